"""In which order steps are done."""

from __future__ import annotations

from collections.abc import Iterator
from random import Random

from ...acts.act import Finish
from ...board.schedule import waits_for
from ..question import Question
from .context import Context

PLACE = 14
"""Where it stands among the others; those drawn by lot come last."""

FEWEST_STEPS = 5
"""Steps that are put in order at a time."""


def ask(at: Context, random: Random) -> Iterator[Question]:
    """Ask in which order five steps are done that stand on each other."""
    # What finishes a sheet stands on nothing in particular.
    steps = [
        s
        for s in at.work.steps
        if s.source and s.source.act and not isinstance(s.source.act, Finish)
    ]
    acts = [step.source.act for step in steps if step.source and step.source.act]
    if len(acts) < FEWEST_STEPS:
        return
    waits = waits_for(acts)
    starts = [
        s
        for s in range(len(acts) - FEWEST_STEPS + 1)
        if sum(bool(waits[s + k] & set(range(s, s + k))) for k in range(FEWEST_STEPS))
        >= FEWEST_STEPS - 2
        and len({steps[s + k].text for k in range(FEWEST_STEPS)}) == FEWEST_STEPS
    ]
    for start in sorted(random.sample(starts, k=min(2, len(starts)))):
        own = steps[start : start + FEWEST_STEPS]
        texts = tuple(step.text for step in own)
        # They are shown in an order by lot: which stands on which is said by where they stand then.
        shown = list(range(FEWEST_STEPS))
        random.shuffle(shown)
        needs = tuple(
            tuple(
                sorted(
                    shown.index(w - start)
                    for w in waits[start + k]
                    if start <= w < start + FEWEST_STEPS
                )
            )
            for k in shown
        )
        yield Question(
            f"order:{own[0].line}:{own[0].number}",
            "order",
            "In which order are these five steps done?",
            "order",
            own[0].line,
            texts,
            own[0].number,
            choices=tuple(texts[k] for k in shown),
            waits=needs,
            working=texts,
            hints=("What does each of them stand on?",),
        )
