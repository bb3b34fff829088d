"""A statement ready to be constructed: its clauses with their values worked out."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from ..geometry import Line, Loop, Point, Shape
from ..geometry.walk import Stop
from ..measure import Number, Quantity, Unit, spell
from ..plan.errors import ClauseError, Wanting
from .figure import Family, Ref

if TYPE_CHECKING:
    from .declared import Kind


@dataclass(frozen=True, slots=True)
class Length:
    """A length in plan units with its spelling in the plan: ``e1/2``."""

    value: Number
    text: str

    def __float__(self) -> float:
        return float(self.value)


Value = Length | Ref | str | tuple[Stop, ...] | tuple[Ref, ...] | tuple[Length, ...] | Quantity


@dataclass(frozen=True, slots=True)
class ClauseValues:
    """One clause of a statement with its values worked out."""

    key: str
    index: int
    values: tuple[tuple[str, Value], ...]

    def __getitem__(self, slot: str) -> Value:
        return next(value for name, value in self.values if name == slot)

    def has(self, slot: str) -> bool:
        """Tell whether a slot was said in this form of the clause."""
        return any(name == slot for name, _ in self.values)

    def length(self, slot: str) -> Length:
        """Return a length, radius, diameter or angle slot; a radius that is said by its diameter is
        half of that (`size_across` for `size`)."""
        across = f"{slot}_across"
        if self.has(across):
            whole = self.length(across)
            return Length(whole.value / 2, whole.text)
        value = self[slot]
        assert isinstance(value, Length)
        return value

    def ref(self, slot: str) -> Ref:
        """Return a reference slot."""
        value = self[slot]
        assert isinstance(value, Ref)
        return value

    def count(self, slot: str) -> int:
        """Return a whole number."""
        return int(self.length(slot).value)

    def point(self, slot: str) -> Point:
        """Return the point a reference slot refers to."""
        shape = self.ref(slot).shape
        assert isinstance(shape, Point)
        return shape

    def line(self, slot: str) -> Line:
        """Return the line a reference slot refers to."""
        shape = self.ref(slot).shape
        assert isinstance(shape, Line)
        return shape

    def shape(self, slot: str) -> Shape:
        """Return the point, line, circle or arc a reference slot refers to."""
        shape = self.ref(slot).shape
        assert not isinstance(shape, Family | Loop)
        return shape

    def thing(self, slot: str) -> Shape | Loop:
        """Return whatever a reference slot refers to."""
        shape = self.ref(slot).shape
        assert not isinstance(shape, Family)
        return shape

    def run(self, slot: str) -> Loop:
        """Return the outline or run a reference slot refers to."""
        shape = self.ref(slot).shape
        assert isinstance(shape, Loop)
        return shape

    def things(self, slot: str) -> list[tuple[str, Shape | Loop]]:
        """Return several references by name, the members of families one by one."""
        result: list[tuple[str, Shape | Loop]] = []
        for ref in self.refs(slot):
            if isinstance(ref.shape, Family):
                result += [(f"{ref.text}.{label}", member) for label, member in ref.shape.labelled]
            else:
                result.append((ref.text, ref.shape))
        return result

    def refs(self, slot: str) -> tuple[Ref, ...]:
        """Return the references of a slot for several."""
        value = self[slot]
        assert isinstance(value, tuple)
        return value  # type: ignore[return-value]

    def lengths(self, slot: str) -> tuple[Length, ...]:
        """Return lengths that stand one after another."""
        value = self[slot]
        assert isinstance(value, tuple)
        return value  # type: ignore[return-value]

    def word(self, slot: str) -> str:
        """Return a word slot."""
        value = self[slot]
        assert isinstance(value, str)
        return value

    def stops(self, slot: str) -> tuple[Stop, ...]:
        """Return a walk slot."""
        value = self[slot]
        assert isinstance(value, tuple)
        return value  # type: ignore[return-value]


@dataclass(frozen=True)
class Args:
    """A statement ready to be constructed: its name, unit, clauses with values, and the plan's
    isometric school."""

    name: str
    unit: Unit
    clauses: tuple[ClauseValues, ...]
    projected: bool = False
    kind: Kind | None = field(default=None, compare=False, repr=False)

    @property
    def foreshortened(self) -> bool:
        """Whether isometric lengths are drawn as projection makes them, here or in the whole
        plan."""
        return self.projected or self.get("projection") is not None

    def all(self, *keys: str) -> list[ClauseValues]:
        """Return the clauses with one of the keys, in order."""
        return [said for said in self.clauses if said.key in keys]

    def get(self, *keys: str) -> ClauseValues | None:
        """Return the first clause with one of the keys, or None."""
        return next(iter(self.all(*keys)), None)

    def need(self, *keys: str) -> ClauseValues:
        """Return the first clause with one of the keys.

        Raises
        ------
        ClauseError
            When none was said.
        """
        result = self.get(*keys)
        if result is None:
            forms = [
                form.example for form in (self.kind.forms if self.kind else ()) if form.key in keys
            ]
            raise Wanting(
                f"{self.kind.name if self.kind else self.name} needs {' or '.join(forms or keys)}"
            )
        return result

    def between(self) -> ClauseValues:
        """Return between what it lies: ``first`` and ``second``, two curves, or the pieces that
        meet in a corner.

        Raises
        ------
        ClauseError
            Where neither was said, or both.
        """
        corner, between = self.get("corner"), self.get("between")
        if corner and between:
            raise ClauseError("it lies between two of them, or at a corner", corner.index)
        if corner is None:
            return self.need("between", "corner")
        named = corner.ref("corner")
        meeting = named.meeting
        if meeting is None:
            message = (
                f"{named.text} is no corner; name one of a run, as in  corner frame.lower_right"
            )
            raise ClauseError(message, corner.index)
        refs = (
            (slot, Ref(piece.name, piece.curve))
            for slot, piece in zip(("first", "second"), meeting, strict=True)
        )
        return ClauseValues("between", corner.index, tuple(refs))

    def number(self, *keys: str, usual: float) -> float:
        """Return the number the first clause with one of the keys says, or what is usual where none
        was said."""
        clause = self.get(*keys)
        return (
            usual
            if clause is None
            else float(next(v for _, v in clause.values if isinstance(v, Length)))
        )

    def say(self, value: Number) -> str:
        """Write a length of the plan."""
        return spell(value, self.unit)
