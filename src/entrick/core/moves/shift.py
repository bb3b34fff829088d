"""``shift``: the same thing moved by offsets, or along a line; once, or again and again."""

from __future__ import annotations

from ..allowance import check_copies
from ..geometry import Line, Loop, Point, Shape, shift
from ..geometry.place import SIDES
from ..kind import Args, Kind, Made, Role, Step, Stroke, Tool
from ..kind.parts import as_original, copied, draw, places
from ..plan.errors import ClauseError
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct a thing moved level and plumb, or along a line; ``3 times`` makes a row of three beyond the first."""
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
    steps: list[Step] = []
    for index, copy in enumerate(copies):
        called = args.name if len(copies) == 1 else f"{args.name}.{index + 1}"
        steps += _steps(things[index % len(things)], copy, called, by * (index // len(things) + 1), lined)
    row = f", {count} times over" if count > 1 else ""
    return Made(
        shape,
        f"{args.name}, {' and '.join(n for n, _ in things)} moved {told}{row}.",
        (),
        tuple(steps),
        parts,
        lined=lined,
    )


def _displacement(args: Args) -> tuple[Point, str]:
    along = args.get("along")
    offsets = [(said.length("amount"), said.word("way")) for said in args.all("offset")]
    if along:
        if offsets:
            raise ClauseError("a thing is moved either by offsets or along a line", along.clause)
        line, amount = along.line("line"), along.length("amount")
        return line.direction * float(amount), f"{args.say(amount.value)} along {along.ref('line').text}"
    if not offsets:
        raise ClauseError("say how far, such as  30 right  or  20 along edge")
    by = Point(0.0, 0.0)
    for amount, way in offsets:
        by = by + SIDES[way] * float(amount)
    return by, " and ".join(f"{args.say(amount.value)} {way}" for amount, way in offsets)


def _steps(
    original: tuple[str, Shape | Loop], after: Shape | Loop, name: str, by: Point, lined: Role | None
) -> list[Step]:
    called, before = original
    if isinstance(before, Line):
        return [Step(Tool.STRAIGHTEDGE, f"Slide two set squares: draw {name}", strokes=(Stroke(after),))]
    steps = []
    for what, spot in places(before):
        label = name if isinstance(before, Point) else ""
        strokes = (Stroke(Line.between(spot, spot + by)), Stroke(spot + by, Role.POINT, label))
        steps.append(Step(Tool.DIVIDERS, f"Carry {what}{called} across", abs(by), spot, strokes))
    return steps if isinstance(before, Point) else [*steps, *draw(after, name, lined or Role.CONSTRUCTION)]


KIND = Kind(
    name="shift",
    group="Copies",
    summary="the same thing moved level, plumb or along a line, once or in a row",
    example="second = shift, of hole, 30 right",
    mistake="A chain of moves is measured each from the last, and the errors add up: measure each from the first.",
    forms=(
        Form("of {original:shape}"),
        Form("of {originals:several}"),
        Form("{amount:length} {way:left/right/above/below}", "offset", most=2),
        Form("{amount:length} along {line:line}", "along"),
        Form("{count:count} times", "times"),
    ),
    construct=construct,
)
