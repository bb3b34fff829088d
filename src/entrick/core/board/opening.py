"""A step opened up: the same by compass, straight edge and dividers alone, as acts of its own."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from ..acts import Paper, Work
from ..acts.act import Act, Draw, Key, Mark, Measure, Prick, StepOff, Thing
from ..acts.paper import HANDY
from ..measure import Number
from ..sheet import Sheet
from .lacking import by_compass


def opens(act: Act) -> bool:
    """Tell whether an act opens up: a line drawn in a direction, or a length laid off along a line
    by the rule."""
    match act:
        case Prick(held=Draw() as held):
            return opens(held)
        case Draw(way=None):
            return False
        case Draw(touching=str() as round_) if round_:
            return False
        case Draw(way=way):
            assert way is not None
            return bool(way.off) or float(way.degrees) % 180 != 0
        case Measure(computed=False, size=size):
            return bool(act.way.off) and float(size) != 0
    return False


def opened(act: Act, things: Mapping[Key, Thing], sheet: Sheet) -> tuple[Act, ...]:
    """Return what an act is by compass, straight edge and dividers.

    Parameters
    ----------
    act : Act
    things : mapping of str to Thing
        What stands on the sheet, by key.
    sheet : Sheet

    Returns
    -------
    tuple of Act
        Empty for one that opens into nothing.
    """
    if not opens(act):
        return ()
    if isinstance(act, Prick):
        assert act.held is not None
        drawn = opened(act.held, things, sheet)
        return (*drawn, replace(act, held=None)) if drawn else ()
    if isinstance(act, Draw):
        found = tuple(by_compass(act, dict(things), sheet))
        return found if len(found) > 1 else ()
    assert isinstance(act, Measure)
    start = things[act.start]
    assert isinstance(start, Mark)
    work = Work(
        Paper(max(sheet.width, sheet.height) / sheet.factor, HANDY / sheet.factor),
        f"{act.leaves}/dividers",
    )
    work.paper.put((start, things[act.way.off]))
    along = work.edge_of(act.way.off)
    size: Number = -act.size if act.size < 0 else act.size
    work.step_off(start, size, along, [act.planned], [act.called])
    (stepped,) = work.acts
    assert isinstance(stepped, StepOff)
    return (replace(stepped, marks=(act.leaves,)),)
