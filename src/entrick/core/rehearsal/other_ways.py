"""What might be done otherwise, each to be rehearsed like the plan itself: how arcs are opened, a
squarer crossing, the order. A larger scale is none: the miss on paper is the same."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from ..acts import Paper
from ..acts.act import Act, Edge, GoOver, Key, Prick, Round, Thing
from ..acts.names import plain
from ..acts.paper import crossing
from ..acts.work import picked
from ..board.kit import Kit
from ..board.schedule import leaves, scheduled
from ..geometry import Arc, Circle
from ..sheet import Sheet
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
    lining : str
        How arcs are gone over.
    arcs_only : bool
        Whether it changes nothing but how arcs are gone over.
    """

    told: str
    acts: tuple[Act, ...]
    lining: Lining = "rule"
    arcs_only: bool = False


def template_holes(acts: Sequence[Act], kit: Kit, sheet: Sheet) -> frozenset[float]:
    """Return the radii, plan units, that are gone over by a hole of the kit's template, as the card
    has it."""
    return frozenset(
        piece.planned.radius
        for act in acts
        if isinstance(act, GoOver)
        for piece in act.pieces
        if isinstance(piece.planned, Arc | Circle)
        and kit.has_template(sheet.scale.apply(piece.planned.size) * 2, sheet.unit)
    )


def other_ways(
    acts: Sequence[Act], things: Mapping[Key, Thing], sheet: Sheet
) -> Iterator[OtherWay]:
    """Yield the ways in which a plan may be drawn otherwise on what is there.

    Parameters
    ----------
    acts : sequence of Act
        As written.
    things : mapping of str to Thing
        Everything they leave.
    sheet : Sheet
    """
    own = tuple(acts)
    for lining, told in LININGS:
        yield OtherWay(told, own, lining, arcs_only=True)
    squarer, names = _squarer(acts, things, sheet)
    if names:
        more = f" and {len(names) - 1} more" if len(names) > 1 else ""
        yield OtherWay(f"mark {names[0]}{more} where lines cross more squarely", squarer)
    order = scheduled(acts, "settings")
    if order != list(range(len(acts))):
        yield OtherWay(
            "take the order with the fewest settings: a compass left as it is repeats itself",
            tuple(acts[index] for index in order),
        )


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
            names.append(plain(act.called))
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
