"""Where an outline goes on."""

from __future__ import annotations

from collections.abc import Iterator
from random import Random

from ..question import Question, Slip
from .context import Context

PLACE = 13
"""Where it stands among the others; those drawn by lot come last."""


def ask(at: Context, random: Random) -> Iterator[Question]:
    """Ask which piece follows when an outline is gone over."""
    for entry in at.work.solution.entries:
        made = entry.made
        if made is None or made.lined is None:
            continue
        for loop in made.gone_over:
            names = list(
                dict.fromkeys(piece.curve_of or piece.name for piece in getattr(loop, "pieces", ()))
            )
            if not 3 <= len(names) <= 40 or len(set(names)) != len(names):
                continue
            where = random.randrange(len(names) - 1)
            before, here, right = names[where - 1], names[where], names[where + 1]
            rest = [name for name in names if name not in (here, right)]
            others = [
                before,
                *random.sample([n for n in rest if n != before], k=min(2, len(rest) - 1)),
            ]
            choices = [right, *dict.fromkeys(others)]
            random.shuffle(choices)
            asks = (
                f"Going over {entry.statement.name} you have come along {before} and then "
                f"{here}. What comes next?"
            )
            slips = (Slip("back the way one came", 4, before, f"{before} is where you came from"),)
            yield Question(
                f"next:{entry.line}",
                "next",
                asks,
                "choice",
                entry.line,
                right,
                0,
                choices=tuple(choices),
                slips=slips,
                working=(" > ".join(names),),
                hints=(f"Look where {here} ends",),
            )
            break
