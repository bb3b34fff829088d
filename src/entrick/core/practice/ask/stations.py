"""How far out a station of a cam lies."""

from __future__ import annotations

from collections.abc import Iterator
from random import Random

from ..question import Question, Slip
from .context import Context

PLACE = 4
"""Where it stands among the others."""


def ask(at: Context, _: Random) -> Iterator[Question]:
    """Ask which way a cam's stations run."""
    for entry in at.work.solution.entries:
        made = entry.made
        if made is None or made.worksheet is None or entry.statement.kind != "cam":
            continue
        against = next((row for row in made.working if "stations run" in row), "")
        turned = "counter-clockwise" in made.sentence
        right = "clockwise" if turned else "counter-clockwise"
        wrong = "counter-clockwise" if turned else "clockwise"
        yield Question(
            f"stations:{entry.line}",
            "stations",
            f"{at.told(entry.line)} Which way are the stations numbered?",
            "choice",
            entry.line,
            right,
            choices=("clockwise", "counter-clockwise"),
            slips=(Slip("with the rotation", 6, wrong, "Stations run against the turning"),),
            working=(against,),
            hints=("Think of the follower going round the cam that stands still",),
        )
