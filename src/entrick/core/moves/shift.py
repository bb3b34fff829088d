"""``shift``: the same thing moved by offsets, or along a line; once, or again and again."""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial

from ..acts import LEVEL, PLUMB, Mark, Way, Work
from ..acts.copies import carried, laid_off, shifted, simple
from ..acts.shapes import as_run, go_over
from ..allowance import check_copies
from ..geometry import Loop, Point, Shape, shift
from ..geometry.place import SIDES
from ..kind import Args, Kind, Made, Role
from ..kind.parts import as_original, copied, renamed
from ..measure import Number
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form

Moves = tuple[tuple[Way, Number], ...]
"""How far a thing is moved, one direction after the other."""


def construct(args: Args) -> Made:
    """Construct a thing moved level and plumb, or along a line; ``3 times`` makes a row of three
    beyond the first."""
    clause = args.need("of")
    name = clause.ref("original").text if clause.has("original") else ""
    things = clause.things("originals") if not name else [(name, clause.thing("original"))]
    lined = as_original([clause.ref("original")] if name else clause.refs("originals"))
    by, told = _displacement(args)
    if by == Point(0.0, 0.0):
        raise ClauseError("the offsets come to nought: nothing would move")
    times = args.get("times")
    count = times.count("count") if times else 1
    check_copies([thing for _, thing in things], count)
    copies = [shift(thing, by * index) for index in range(1, count + 1) for _, thing in things]
    labels = [(label if count == 1 else "", thing) for _ in range(count) for label, thing in things]
    shape, parts = copied(args.name, labels, copies, lined)
    row = f", {count} times over" if count > 1 else ""
    return Made(
        shape,
        f"{args.name}, {' and '.join(n for n, _ in things)} moved {told}{row}.",
        parts=parts,
        lined=lined,
        draw=partial(_draw, args, things, copies, count, lined),
    )


def _displacement(args: Args) -> tuple[Point, str]:
    along = args.get("along")
    offsets = [(clause.length("amount"), clause.word("way")) for clause in args.all("offset")]
    if along:
        if offsets:
            raise ClauseError("a thing is moved either by offsets or along a line", along.index)
        line, amount = along.line("line"), along.length("amount")
        return line.direction * float(
            amount
        ), f"{args.say(amount.value)} along {along.ref('line').text}"
    if not offsets:
        raise Wanting("say how far, such as  30 right  or  20 along edge")
    by = Point(0.0, 0.0)
    for amount, way in offsets:
        by = by + SIDES[way] * float(amount)
    return by, " and ".join(f"{args.say(amount.value)} {way}" for amount, way in offsets)


def _draw(
    args: Args,
    things: Sequence[tuple[str, Shape | Loop]],
    copies: Sequence[Shape | Loop],
    count: int,
    lined: Role | None,
    work: Work,
) -> None:
    """Carry the places that fix each thing, always from the first; a longer run is traced and laid
    off again."""
    for index, copy in enumerate(copies):
        name, thing = things[index % len(things)]
        moves = _moves(args, index // len(things) + 1, work)
        called = args.name if len(copies) == 1 else f"{args.name}.{index + 1}"
        copy = renamed(copy, called)

        def carry(work: Work, mark: Mark, told: str, label: str, moves: Moves = moves) -> Mark:
            return shifted(work, mark, moves, told, label)

        if simple(thing):
            carried(work, thing, copy, called, name, carry, len(copies) == 1)
        else:
            assert isinstance(thing, Loop)
            assert isinstance(copy, Loop)
            place = thing.pieces[0].entry
            start = work.mark(place, f"a place of {name}")
            laid_off(
                work,
                thing,
                copy,
                "shift",
                start,
                carry(work, start, f"its place on {called}", ""),
                called=called,
            )
        if lined:
            go_over(work, as_run(copy), lined)


def _moves(args: Args, times: int, work: Work) -> Moves:
    along = args.get("along")
    if along:
        edge = work.edge(along.line("line"), along.ref("line").text)
        forth = edge.line.direction.dot(along.line("line").direction) > 0
        return (
            (Way(0 if forth else 180, edge.key, edge.called), along.length("amount").value * times),
        )
    signs = {"right": (LEVEL, 1), "left": (LEVEL, -1), "above": (PLUMB, 1), "below": (PLUMB, -1)}
    offsets = [
        (*signs[clause.word("way")], clause.length("amount").value) for clause in args.all("offset")
    ]
    return tuple((way, sign * size * times) for way, sign, size in offsets if size)


ABOUT = """\
The same thing moved by one or two offsets, or `along` a line; `3 times` makes a row, a family
without the original.
"""

SHOWN = """\
units mm
O = datum
c = circle, centre O, radius 12
d = shift, of c, 30 right, 10 above
l = line, through O, at 20°
row = shift, of c, 30 along l, 3 times
"""

KIND = Kind(
    name="shift",
    group="Copies",
    summary="the same thing moved level, plumb or along a line, once or in a row",
    example="second = shift, of hole, 30 right",
    mistake="A chain of moves is measured each from the last, and the errors add up: measure each "
    "from the first.",
    also=("move", "copy", "row", "slide"),
    forms=(
        Form("of {original:shape}"),
        Form("of {originals:several}"),
        Form("{amount:length} {way:left/right/above/below}", "offset", most=2),
        Form("{amount:length} along {line:line}", "along"),
        Form("{count:count} times", "times"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
