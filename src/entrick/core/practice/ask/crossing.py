"""On which side a centre is pricked."""

from __future__ import annotations

from collections.abc import Iterator
from random import Random

from ...acts.act import Prick, Swing
from ...acts.names import plain
from ...geometry import Arc, Circle
from ...tolerance import worked
from ..question import Question, Slip
from .context import Context

PLACE = 3
"""Where it stands among the others."""


def ask(at: Context, random: Random) -> Iterator[Question]:
    """Ask which of two crossings of swings is the centre."""
    things = {}
    for step in at.work.steps:
        act = step.source.act if step.source else None
        if isinstance(act, Swing):
            things[act.leaves] = act.planned
        if not isinstance(act, Prick) or act.pick not in ("left", "right"):
            continue
        first, second = things.get(act.first), things.get(act.second)
        entry = at.entry(step.line)
        made = entry.made if entry else None
        if (
            first is None
            or second is None
            or made is None
            or not isinstance(made.shape, Arc | Circle)
        ):
            continue
        if abs(act.planned - made.shape.centre) > worked(made.shape.radius + abs(act.planned)):
            continue
        ahead = (second.centre - first.centre).unit
        away = ahead.normal * (act.planned - first.centre).dot(ahead.normal)
        if abs(away) * at.work.sheet.factor < 4:
            continue
        words = (
            ("the upper one", "the lower one")
            if abs(away.y) >= abs(away.x)
            else ("the right one", "the left one")
        )
        up = away.y > 0 if abs(away.y) >= abs(away.x) else away.x > 0
        right, wrong = words if up else words[::-1]
        asks = (
            f"{at.told(step.line)} The two swings cross twice. Which crossing is "
            f"{plain(act.called) or 'the centre'}?"
        )
        said = "The arc would bulge the other way: a centre lies on the hollow side of its arc"
        yield Question(
            f"crossing:{at.key(step)}",
            "crossing",
            asks,
            "choice",
            step.line,
            right,
            step.number,
            choices=tuple(sorted(words)),
            slips=(Slip("the other crossing", 6, wrong, said),),
            working=(step.text,),
            hints=("Where does the arc lie? Its centre is on its hollow side",),
        )
