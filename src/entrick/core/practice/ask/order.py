"""In which order steps are done."""

from __future__ import annotations

from collections.abc import Iterator
from random import Random

from ...acts.act import Act, Finish
from ...acts.names import plain, spelt
from ...board.schedule import waits_for
from ...board.together import tidy
from ...board.words import step_of
from ..question import Question
from .context import Context


def _named(act: Act) -> str:
    """Tell an act with every place by what it is called in the plan."""
    return tidy(spelt(step_of(act).text, {act.leaves: plain(act.called)}))


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
    if len(steps) < FEWEST_STEPS:
        return
    acts = [(index, each) for index, s in enumerate(steps) if s.source for each in s.source.acts]
    waits: list[set[int]] = [set() for _ in steps]
    for (index, _), own_waits in zip(acts, waits_for([each for _, each in acts]), strict=True):
        waits[index] |= {acts[before][0] for before in own_waits} - {index}
    # Told by what things are: the numbers they are given at the board would give the order away.
    told = [_named(s.source.act) for s in steps if s.source and s.source.act]
    starts = [
        s
        for s in range(len(steps) - FEWEST_STEPS + 1)
        if sum(bool(waits[s + k] & set(range(s, s + k))) for k in range(FEWEST_STEPS))
        >= FEWEST_STEPS - 2
        and len({told[s + k] for k in range(FEWEST_STEPS)}) == FEWEST_STEPS
    ]
    for start in sorted(random.sample(starts, k=min(2, len(starts)))):
        own = steps[start : start + FEWEST_STEPS]
        texts = tuple(told[start : start + FEWEST_STEPS])
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
            f"order:{at.key(own[0])}",
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
