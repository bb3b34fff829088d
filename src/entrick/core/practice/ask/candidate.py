"""Which of several solutions the words choose."""

from __future__ import annotations

from collections.abc import Iterator
from random import Random

from ...desk import work_out
from ...moves import kinds
from ...plan.edit import choose_candidate
from ...plan.writer import write_plan
from ..question import Question
from .context import Context

PLACE = 10
"""Where it stands among the others."""


def ask(at: Context, random: Random) -> Iterator[Question]:
    """Show every solution of a statement whose words choose one, and ask for the letter of the one
    meant."""
    for entry in at.work.solution.entries:
        made = entry.made
        if made is None or not 2 <= len(made.candidates) <= 6:
            continue
        chosen = next((c for c in made.candidates if c.chosen), None)
        if chosen is None:
            continue
        # The words that choose are taken out of what is shown, so that the sheet letters every
        # solution alike.
        words = kinds()[entry.statement.kind].choosing_words
        open_plan = choose_candidate(at.work.plan, entry.line, (), words)
        shown = work_out(write_plan(open_plan)).solution.entry(entry.line)
        found = next(
            (c for c in (shown.candidates if shown else ()) if c.shape == chosen.shape), None
        )
        if shown is None or found is None:
            continue
        letters = tuple(c.letter for c in shown.candidates)
        asks = (
            f"{at.told(entry.line)} {len(letters)} solutions fit, lettered on the sheet. Which one "
            "do the words choose?"
        )
        yield Question(
            f"candidate:{entry.line}",
            "candidate",
            asks,
            "choice",
            entry.line,
            found.letter,
            0,
            choices=letters,
            working=(f"{found.letter}: {chosen.about}",),
            shows=write_plan(open_plan),
            hints=("Read the words behind the radius once more",),
        )
