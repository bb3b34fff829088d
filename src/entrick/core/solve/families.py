"""One statement, or one for each member of a family; what was constructed before is kept."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import partial

from ..acts import Work
from ..allowance import MOST_PIECES, pieces, refuse
from ..geometry import Arc, Circle, Loop, Point, Shape
from ..geometry.walk import Stop
from ..kind import Args, Length, Made, Value
from ..kind.figure import Family, Ref
from ..kind.told import completed
from ..memo import remembered
from ..moves import kinds
from ..plan.errors import ClauseError


def _construct(kind: str, args: Args) -> tuple[Made, int]:
    return _construct_once(
        kind,
        args,
        tuple(_exactness(value) for clause in args.clauses for _, value in clause.values),
    )


def _weigh(found: tuple[Made, int]) -> int:
    return 20 + found[1]


@remembered(_weigh)
def _construct_once(kind: str, args: Args, _: tuple[type | None, ...]) -> tuple[Made, int]:
    try:
        made = kinds()[kind].construct(args)
    except ZeroDivisionError as error:
        # Kinds refuse in their own words what they foresee; what is left has two places that are
        # exactly one.
        raise ClauseError(
            "two places this stands on are one and the same: it comes to nothing"
        ) from error
    made = replace(made, sentence=completed(made.sentence, args))
    asked = _asked(made)
    if asked > MOST_PIECES:
        raise refuse("this", asked, MOST_PIECES)
    return made, asked


def _asked(made: Made) -> int:
    """Count the pieces a statement asks for: what it makes, its parts, what is drawn for it."""
    return pieces(made.shapes) + pieces(made.parts.values()) + len(made.notes)


def _exactness(value: Value) -> type | None:
    """Tell 7/2 from 3.5, which Python holds equal: one is written as a fraction, the other was
    worked out."""
    if isinstance(value, Length):
        return type(value.value)
    if isinstance(value, Ref) and isinstance(value.shape, Circle | Arc):
        return type(value.shape.exact)
    return None


def construct_all(kind: str, args: Args) -> tuple[Made, int]:
    """Construct a statement and count what it asks for; given a family, it makes a family, member
    by member."""
    refs = [
        value for clause in args.clauses for _, value in clause.values if isinstance(value, Ref)
    ]
    counts = {len(ref.shape.members) for ref in refs if isinstance(ref.shape, Family)}
    if not counts:
        return _construct(kind, args)
    if len(counts) > 1:
        raise ClauseError(
            f"families of {' and '.join(map(str, sorted(counts)))} members cannot be paired"
        )
    labels = [
        label
        for label, _ in next(ref.shape.labelled for ref in refs if isinstance(ref.shape, Family))
    ]
    made: list[Made] = []
    asked = 0
    for index, label in enumerate(labels):
        one, more = _construct(kind, _member(args, index, label))
        made.append(one)
        asked += more
        if asked > MOST_PIECES:
            raise refuse("this, for every member,", asked, MOST_PIECES)
    parts: dict[str, Shape | Loop] = {}
    members: list[tuple[str, Shape | Loop]] = []
    for label, one in zip(labels, made, strict=True):
        if isinstance(one.shape, Family):
            members += [(f"{label}.{inner}", shape) for inner, shape in one.shape.labelled]
        elif not one.nothing:
            members.append((label, one.shape))
        parts |= {f"{label}.{key}": shape for key, shape in one.parts.items()}
    parts |= members
    standing: set[int] = set()
    for index, one in enumerate(made):
        before = sum(len(earlier.shapes) for earlier in made[:index])
        standing.update(before + inner for inner in one.standing)
    told = made[0].sentence
    for name in (args.name, *(ref.text for ref in refs)):
        told = told.replace(f"{name}.{labels[0]}", name)
    notes = tuple(note for one in made for note in one.notes)
    sentence = f"{len(made)} times: {told}"
    shapes, behind = tuple(shape for _, shape in members), tuple(label for label, _ in members)
    draws = tuple(one.draw for one in made if one.draw)
    family = Made(
        Family(shapes, behind),
        sentence,
        made[0].working,
        parts=parts,
        lined=made[0].lined,
        standing=frozenset(standing),
        notes=notes,
        nothing=made[0].nothing,
        cut=made[0].cut,
        draw=partial(_draw_all, draws) if len(draws) == len(made) else None,
    )
    return family, asked


def _draw_all(draws: tuple[Callable[[Work], None], ...], work: Work) -> None:
    for draw in draws:
        draw(work)


def _member(args: Args, index: int, label: str) -> Args:
    """Return the arguments of one member of a family."""

    def one(slot: str, value: Value) -> Value:
        if not (isinstance(value, Ref) and isinstance(value.shape, Family)):
            return value
        own, shape = value.shape.labelled[index]
        text = f"{value.text}.{own}"
        if slot == "walk":
            assert not isinstance(shape, Point)
            if isinstance(shape, Loop):
                return (Stop(shape.pieces[0].curve, text, run=shape, lined=value.lined or ""),)
            return (Stop(shape, text),)
        return Ref(text, shape, f"{text}.centre", value.lined)

    said = tuple(
        replace(s, values=tuple((slot, one(slot, value)) for slot, value in s.values))
        for s in args.clauses
    )
    return replace(args, name=f"{args.name}.{label}", clauses=said)
