"""What a kind of construction is made of: its clauses, its result, its steps at the board, its candidates."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from itertools import combinations

from .claims import Claim
from .figure import Family, Ref
from .geometry import Line, Loop, Point, Shape
from .geometry.place import SIDES, on_side
from .geometry.walk import Stop
from .measure import Number, Quantity, Unit, spell
from .notes import Note
from .plan.errors import ClauseError
from .plan.forms import Form
from .strokes import Role, Stroke, Tool
from .worksheets import Remark, Worksheet

__all__ = [
    "CHOICES", "GROUPS", "Args", "Candidate", "Kind", "Length", "Made", "Option", "Placing", "Role", "Said", "Step",
    "Stroke", "Tool", "Undecided", "Value", "choose",
]  # fmt: skip


@dataclass(frozen=True, slots=True, eq=False)
class Step:
    """One thing done at the board. Compared by identity, so that what is derived from it can be kept.

    Attributes
    ----------
    tool : Tool
    text : str
        What to do, in the trade's words, without the setting.
    setting : Fraction, float or None
        Plan units at full size, or degrees when `tool` is ANGLE.
    needle : Point or None
        Where the compass stands.
    strokes : tuple of Stroke
        What appears on the sheet.
    check : str
        How to see that it came out right.
    opened : callable or None
        The classic construction behind it, where the step itself does not show which; see `classic.opened`.
    """

    tool: Tool
    text: str
    setting: Number | None = None
    needle: Point | None = None
    strokes: tuple[Stroke, ...] = ()
    check: str = ""
    opened: Callable[[], tuple[Step, ...]] | None = None


@dataclass(frozen=True, slots=True)
class Candidate:
    """One of several solutions: its letter, what it is among all of them, and whether it is the one chosen."""

    letter: str
    index: int
    options: tuple[Option, ...]
    chosen: bool = False

    @property
    def shape(self) -> Shape:
        """What it draws."""
        return self.options[self.index].shape

    @property
    def about(self) -> str:
        """What it is."""
        return self.options[self.index].about

    @property
    def words(self) -> tuple[str, ...]:
        """The words that choose it, worked out when they are asked for: most solutions are never looked at."""
        return _selecting(self.options, self.index)


@dataclass(frozen=True, slots=True)
class Placing:
    """Where the datum stands on the sheet: paper lengths from the border in plan units, or centred when None.

    `corner` gives the lower left corner of the view instead.
    """

    from_left: Number | None = None
    from_below: Number | None = None
    corner: tuple[Number, Number] | None = None


@dataclass(frozen=True, slots=True)
class Made:
    """What a statement makes.

    Attributes
    ----------
    shape : Point, Line, Circle, Arc, Loop or Family
    sentence : str
        The entry in the order of work, values put in.
    working : tuple of str
        Formula, numbers put in, result: as the drafter would write it.
    steps : tuple of Step
    parts : mapping of str to Shape or Loop
    centre_name : str
    candidates : tuple of Candidate
        All solutions when there were several.
    placing : Placing or None
        For a datum: where it stands on the sheet.
    lined : Role or None
        What a run of pieces is gone over as; None while it is construction.
    notes : tuple of Note
        What is drawn in paper sizes whatever the scale: dimensions, hatching, centre lines, labels.
    nothing : bool
        Whether it adds nothing that could be referred to: `shape` is then of no account.
    cut : bool
        Whether an outline is that of cut material, which is hatched.
    claims : tuple of Claim
        What is said of the finished part, for the proof.
    departs : float or None
        By how much what is drawn departs most from the true curve, plan units; None where it is the true one.
    remarks : tuple of Remark
        What is wrong, or worth a look, with what was made, for the proof.
    worksheet : callable or None
        Its diagram and tables, turned through an angle in degrees.
    """

    shape: Shape | Loop | Family
    sentence: str
    working: tuple[str, ...] = ()
    steps: tuple[Step, ...] = ()
    parts: Mapping[str, Shape | Loop] = field(default_factory=dict)
    centre_name: str = ""
    candidates: tuple[Candidate, ...] = ()
    placing: Placing | None = None
    lined: Role | None = None
    notes: tuple[Note, ...] = ()
    nothing: bool = False
    cut: bool = False
    claims: tuple[Claim, ...] = ()
    departs: float | None = None
    remarks: tuple[Remark, ...] = ()
    worksheet: Callable[[float], Worksheet] | None = None

    @property
    def shapes(self) -> tuple[Shape | Loop, ...]:
        """What was made, the members of a family one by one."""
        if self.nothing:
            return ()
        return self.shape.members if isinstance(self.shape, Family) else (self.shape,)

    @property
    def loops(self) -> tuple[Loop, ...]:
        """The outlines among it."""
        return tuple(s for s in self.shapes if isinstance(s, Loop)) if self.lined is Role.OUTLINE else ()


class Undecided(ClauseError):
    """Several solutions fit; carries them, lettered, so that the drafter can choose."""

    def __init__(self, message: str, candidates: Sequence[Candidate]) -> None:
        super().__init__(message)
        self.candidates = tuple(candidates)


@dataclass(frozen=True, slots=True)
class Length:
    """A length in plan units with its spelling in the plan: ``e1/2``."""

    value: Number
    text: str

    def __float__(self) -> float:
        return float(self.value)


Value = Length | Ref | str | tuple[Stop, ...] | tuple[Ref, ...] | tuple[Length, ...] | Quantity


@dataclass(frozen=True, slots=True)
class Said:
    """One clause of a statement with its values worked out."""

    key: str
    clause: int
    values: tuple[tuple[str, Value], ...]

    def __getitem__(self, slot: str) -> Value:
        return next(value for name, value in self.values if name == slot)

    def has(self, slot: str) -> bool:
        """Tell whether a slot was said in this form of the clause."""
        return any(name == slot for name, _ in self.values)

    def length(self, slot: str) -> Length:
        """Return a length, radius, diameter or angle slot."""
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
        found: list[tuple[str, Shape | Loop]] = []
        for ref in self.refs(slot):
            if isinstance(ref.shape, Family):
                found += [(f"{ref.text}.{index}", member) for index, member in enumerate(ref.shape.members, 1)]
            else:
                found.append((ref.text, ref.shape))
        return found

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
    """A statement ready to be constructed: its name, unit, clauses with values, and the plan's isometric school."""

    name: str
    unit: Unit
    said: tuple[Said, ...]
    projected: bool = False
    kind: Kind | None = field(default=None, compare=False, repr=False)

    @property
    def foreshortened(self) -> bool:
        """Whether isometric lengths are drawn as projection makes them, here or in the whole plan."""
        return self.projected or self.get("projection") is not None

    def all(self, *keys: str) -> list[Said]:
        """Return the clauses with one of the keys, in order."""
        return [said for said in self.said if said.key in keys]

    def get(self, *keys: str) -> Said | None:
        """Return the first clause with one of the keys, or None."""
        return next(iter(self.all(*keys)), None)

    def need(self, *keys: str) -> Said:
        """Return the first clause with one of the keys.

        Raises
        ------
        ClauseError
            When none was said.
        """
        found = self.get(*keys)
        if found is None:
            forms = [form.example for form in (self.kind.forms if self.kind else ()) if form.key in keys]
            raise ClauseError(f"{self.kind.name if self.kind else self.name} needs {' or '.join(forms or keys)}")
        return found

    def say(self, value: Number) -> str:
        """Write a length of the plan."""
        return spell(value, self.unit)


GROUPS = (
    "Points",
    "Lines",
    "Circles and arcs",
    "Copies",
    "Ready shapes",
    "Curves",
    "Isometric",
    "Outline",
    "Finish",
    "Proof",
)
"""Families of kinds, in the order they are listed."""


@dataclass(frozen=True)
class Kind:
    """A kind of construction, declared in a file of its own.

    Attributes
    ----------
    name : str
        What the plan calls it.
    group : str
        Family it is listed under.
    summary : str
        One line for the family list.
    example : str
        A whole statement.
    mistake : str
        The mistake usually made here.
    forms : tuple of Form
    construct : callable
        Args to Made; raises ClauseError.
    """

    name: str
    group: str
    summary: str
    example: str
    mistake: str
    forms: tuple[Form, ...]
    construct: Callable[[Args], Made]

    @property
    def choosing_words(self) -> frozenset[str]:
        """Every word with which a clause that only chooses among solutions begins."""
        choices = [form for form in self.forms if form.choice]
        words = {word for form in choices for slot in form.slots for word in slot.choices}
        return frozenset(words | {form.head for form in choices if form.head})


ORDINALS = ("first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth")
CLEARLY = 0.1
"""Share of the distance between two spots that must lie up or down before they are called above and below."""
_PLACE_WORDS = ("above", "below", "left", "right")

PLACE = Form("{where:" + "/".join(SIDES) + "}", "where", most=2, choice=True)
NEAR = Form("near {near:point}", choice=True)
ORDINAL = Form("{turn:" + "/".join(ORDINALS) + "}", "turn", choice=True)
CHOICES = (PLACE, NEAR, ORDINAL)


@dataclass(frozen=True, slots=True)
class Option:
    """A solution before it is chosen: its shape, where it lies, what it is called, its own choosing words."""

    shape: Shape
    spot: Point
    about: str
    traits: frozenset[str] = frozenset()


def choose(options: Sequence[Option], args: Args, noun: str) -> tuple[int, tuple[Candidate, ...]]:
    """Choose among several solutions by the words of the statement.

    Parameters
    ----------
    options : sequence of Option
        At least one.
    args : Args
        Whose choosing clauses (place words, ``near``, ordinals, traits) are obeyed.
    noun : str
        What is being chosen, for messages.

    Returns
    -------
    index : int
        Of the chosen option.
    candidates : tuple of Candidate
        Every option with letter and selecting words; empty when there was only one.

    Raises
    ------
    Undecided
        When the words leave more than one.
    """
    order = sorted(range(len(options)), key=lambda i: (round(options[i].spot.x, 9), round(options[i].spot.y, 9)))
    ranked = [options[i] for i in order]
    if len(ranked) == 1:
        return order[0], ()
    left = _narrow(ranked, args)
    if len(left) != 1:
        candidates = _letter(ranked, None)
        listed = "; ".join(f"{c.letter} {c.about} ({', '.join(c.words)})" for c in candidates)
        raise Undecided(f"{len(ranked)} {noun}s fit; say which: {listed}", candidates)
    return order[left[0]], _letter(ranked, left[0])


def _narrow(options: Sequence[Option], args: Args) -> list[int]:
    left = list(range(len(options)))
    for said in args.said:
        for _, value in said.values:
            if isinstance(value, str) and any(value in option.traits for option in options):
                left = [i for i in left if value in options[i].traits]
    for said in args.all("where"):
        left = [left[i] for i in on_side([options[i].spot for i in left], said.word("where"))]
    near = args.get("near")
    if near is not None:
        target = near.ref("near").shape
        assert isinstance(target, Point)
        left = sorted(left, key=lambda i: abs(options[i].spot - target))[:1]
    turn = args.get("turn")
    if turn is not None:
        index = ORDINALS.index(turn.word("turn"))
        left = left[index : index + 1] if index < len(left) else left
    return left


def _letter(options: Sequence[Option], chosen: int | None) -> tuple[Candidate, ...]:
    return tuple(Candidate("ABCDEFGH"[i], i, tuple(options), i == chosen) for i in range(len(options)))


def _selecting(options: Sequence[Option], index: int) -> tuple[str, ...]:
    """Return the fewest words that single out one option."""
    if len(options) == 2:
        apart = options[index].spot - options[1 - index].spot
        if abs(apart.y) > CLEARLY * abs(apart):
            return ("above",) if apart.y > 0 else ("below",)
        if abs(apart.x) > CLEARLY * abs(apart):
            return ("right",) if apart.x > 0 else ("left",)
    traits = sorted(options[index].traits)
    for words in _word_sets(traits):
        left = [i for i in range(len(options)) if all(w in options[i].traits for w in words if w not in SIDES)]
        for word in words:
            if word in SIDES:
                left = [left[i] for i in on_side([options[i].spot for i in left], word)]
        if left == [index]:
            return words
    return (ORDINALS[index],)


def _word_sets(traits: Sequence[str]) -> Iterator[tuple[str, ...]]:
    words = (*traits, *_PLACE_WORDS)
    for count in (1, 2, 3):
        for chosen in combinations(words, count):
            against = ({"above", "below"}, {"left", "right"})
            if sum(word in SIDES for word in chosen) <= 2 and not any(pair <= set(chosen) for pair in against):
                yield chosen
