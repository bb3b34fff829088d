"""What might be done otherwise, each to be rehearsed like the plan itself: how arcs are opened, a
template, a squarer crossing, the order, a larger scale."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from ..acts import Paper
from ..acts.act import Act, Edge, GoOver, Key, Prick, Round, Thing
from ..acts.paper import crossing
from ..acts.work import picked
from ..board.kit import Kit
from ..board.schedule import leaves, scheduled
from ..geometry import Arc, Circle
from ..sheet import Sheet
from ..sheet.choose import RATIOS
from ..sheet.layout import INCH_PAPERS, PAPERS, lay_out_at, read_scale
from ..solve import Solution
from .carry_out import Lining

LININGS: tuple[tuple[Lining, str], ...] = (
    ("start", "open the compass to where the arc begins, not by the rule"),
    ("end", "open the compass to where the arc ends, not by the rule"),
    ("between", "try the opening at both ends and set it between"),
)
"""What may be done instead of setting a radius by the rule when an arc is gone over."""

SHALLOW, SQUARER = 0.5, 1.3
"""Sine of the angle under which a crossing is called shallow, and how many times as large it has to
become (by eye)."""


@dataclass(frozen=True, slots=True)
class OtherWay:
    """Another way to draw a plan.

    Attributes
    ----------
    told : str
        What to do instead.
    acts : tuple of Act
    factor : float
        Millimetres on paper for each unit of the plan.
    lining : str
        How arcs are gone over.
    holes : frozenset of float
        Radii, plan units, that are gone over by a template.
    arcs_only : bool
        Whether it changes nothing but how arcs are gone over.
    """

    told: str
    acts: tuple[Act, ...]
    factor: float
    lining: Lining = "rule"
    holes: frozenset[float] = frozenset()
    arcs_only: bool = False


def other_ways(
    acts: Sequence[Act], things: Mapping[Key, Thing], solution: Solution, sheet: Sheet, kit: Kit
) -> Iterator[OtherWay]:
    """Yield the ways in which a plan may be drawn otherwise on what is there.

    Parameters
    ----------
    acts : sequence of Act
        As written.
    things : mapping of str to Thing
        Everything they leave.
    solution : Solution
    sheet : Sheet
    kit : Kit
        Its template may have the holes.
    """
    own, factor = tuple(acts), sheet.factor
    for lining, told in LININGS:
        yield OtherWay(told, own, factor, lining, arcs_only=True)
    holes = frozenset(
        piece.planned.radius
        for act in acts
        if isinstance(act, GoOver)
        for piece in act.pieces
        if isinstance(piece.planned, Arc | Circle)
        and kit.has_template(sheet.scale.apply(piece.planned.size) * 2, sheet.unit)
    )
    if holes:
        yield OtherWay(
            "take the hole of the circle template", own, factor, holes=holes, arcs_only=True
        )
    squarer, names = _squarer(acts, things, sheet)
    if names:
        more = f" and {len(names) - 1} more" if len(names) > 1 else ""
        yield OtherWay(f"mark {names[0]}{more} where lines cross more squarely", squarer, factor)
    order = scheduled(acts, "settings")
    if order != list(range(len(acts))):
        yield OtherWay(
            "take the order with the fewest settings: a compass left as it is repeats itself",
            tuple(acts[index] for index in order),
            factor,
        )
    yield from _larger(own, solution, sheet)


def _squarer(
    acts: Sequence[Act], things: Mapping[Key, Thing], sheet: Sheet
) -> tuple[tuple[Act, ...], list[str]]:
    """Return the acts, every shallow crossing pricked on something drawn before that crosses more
    squarely there, and the names of what is marked so."""
    paper = Paper(max(sheet.width, sheet.height) / sheet.factor, 1.0)
    found: list[Act] = []
    names: list[str] = []
    for act in acts:
        better = _better(act, things, paper) if isinstance(act, Prick) else None
        if better is not None:
            names.append(act.called)
        found.append(better or act)
        paper.put(things[key] for key in leaves(act) if key in things)
    return tuple(found), names


def _better(act: Prick, things: Mapping[Key, Thing], paper: Paper) -> Prick | None:
    pair = things.get(act.first), things.get(act.second)
    rounds = [thing for thing in pair if isinstance(thing, Edge | Round)]
    if len(rounds) < 2 or not (was := crossing(rounds[0], rounds[1], act.planned)) < SHALLOW:
        return None
    best = max(
        (
            (crossing(one, other, act.planned), one, other)
            for one in rounds
            for other in paper.through(act.planned)
        ),
        key=lambda each: each[0],
        default=None,
    )
    # Two lines of one direction touch there at nought: the place is a touch, and no crossing helps
    # it.
    if best is None or was == 0.0 or best[0] < SQUARER * was:
        return None
    _, one, other = best
    return replace(act, first=one.key, second=other.key, pick=picked(one, other, act.planned))


def _larger(acts: tuple[Act, ...], solution: Solution, sheet: Sheet) -> Iterator[OtherWay]:
    """Yield the next larger scale on this paper, or on the smallest larger paper of its series that
    takes it."""
    above = [ratio for ratio in RATIOS if read_scale(ratio).ratio > sheet.scale.ratio]
    if not above:
        return
    ratio = above[-1]
    scale = read_scale(ratio)
    for name, wide, high in (("this sheet", sheet.width, sheet.height), *_papers_above(sheet)):
        laid = lay_out_at(solution, replace(sheet, width=wide, height=high, scale=scale))
        low, up = laid.space
        needed, space = laid.room[1] - laid.room[0], up - low
        if needed.x <= space.x and needed.y <= space.y:
            yield OtherWay(
                f"draw it at {ratio} on {name}: of the part, the miss is smaller", acts, laid.factor
            )
            return


def _papers_above(sheet: Sheet) -> Iterator[tuple[str, float, float]]:
    inch = [
        (name, float(short) * 25.4, float(long) * 25.4)
        for name, (short, long) in INCH_PAPERS.items()
    ]
    metric = [(name, float(short), float(long)) for name, (short, long) in PAPERS.items()]
    series = (
        inch
        if any(abs(min(sheet.width, sheet.height) - short) < 1 for _, short, _ in inch)
        else metric
    )
    for name, short, long in series:
        if short * long > sheet.width * sheet.height * 1.01:
            yield (name, long, short) if sheet.width >= sheet.height else (name, short, long)
