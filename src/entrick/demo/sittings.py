"""Sittings of the lock yard's jobs, made up by a simulated hand whose errors are known: rehearsed,
not drawn."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from datetime import UTC, datetime, timedelta

import numpy as np

from ..core.board.schedule import MINUTES
from ..core.board.steps import BoardStep
from ..core.desk import Work, work_out
from ..core.logbook.measured import spread_of
from ..core.logbook.sitting import Event
from ..core.rehearsal.hand import Hand
from ..store import Store, append, begin, list_jobs, list_sittings, one_job

SITTINGS = 6
SEED = 1
EVERY = timedelta(days=5)

BIAS = {"compass": 0.22, "rule": -0.08, "dividers": 0.0}
"""How far each instrument of the simulated hand comes out wide, mm on paper: its compass is set a
hair too open."""

MEASURED = 0.25
"""Share of the settings it measures back."""

SLIPS = (
    "the diameter was set for the radius: it is twice as large",
    "read from the wrong centimetre: one too far",
    "one graduation short",
)
ONE_IN = 60
"""It slips once in so many steps."""

SLOWER = 1.6
"""How much longer than usual it takes at its first sitting; it grows quicker from one to the
next."""


def load_sittings(store: Store) -> int:
    """Enter made-up sittings into a register that has none; return how many."""
    with store.reading() as session:
        if list_sittings(session, removed=True):
            return 0
        jobs = [one_job(session, job.id) for job in list_jobs(session).jobs[:SITTINGS]]
    random = np.random.default_rng(SEED)
    start = datetime.now(UTC) - EVERY * (SITTINGS + 1)
    for number, job in enumerate(jobs):
        work = work_out(job.newest.text)
        events = tuple(_events(work, random, SLOWER - (SLOWER - 1) * number / SITTINGS))
        uid = f"{SEED:08x}{number:08x}"
        with store.writing() as session:
            begin(
                session,
                uid,
                job.id,
                job.newest.number,
                "written",
                start + EVERY * number,
                rehearsed=True,
            )
            append(session, uid, events)
    return len(jobs)


def _events(work: Work, random: np.random.Generator, slower: float) -> Iterator[Event]:
    number = 0
    steps: Sequence[BoardStep] = (*work.before, *work.steps, *work.after)
    hand = Hand()
    for index, step in enumerate(steps):
        act = step.source.act if step.source else None
        usual = MINUTES.get(type(act), 0.3) * 60 + 10 if act else 30.0
        if random.random() < 1 / ONE_IN:
            number += 1
            yield Event(number, "slip", index, step.tool, text=str(random.choice(SLIPS)))
        if (
            step.setting
            and not step.setting.is_angle
            and step.tool in BIAS
            and random.random() < MEASURED
        ):
            number += 1
            off = float(random.normal(BIAS[step.tool], spread_of(step.tool, hand)))
            yield Event(number, "measured", index, step.tool, off=round(off, 3))
        number += 1
        yield Event(
            number,
            "done",
            index,
            step.tool,
            round(float(random.lognormal(0.0, 0.35)) * usual * slower, 1),
        )
