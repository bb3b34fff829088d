"""The sample jobs of the register."""

from __future__ import annotations

from collections.abc import Callable

from ..core.summary import Summary
from ..store import Store, add_job, list_jobs
from . import sample_plans


def load(store: Store, summarized: Callable[[str], Summary | None]) -> int:
    """Enter the sample jobs into an empty register, as a drafter opens plans from disk; return how
    many.

    `summarized` gives what the register lists of a plan.
    """
    with store.reading() as session:
        if list_jobs(session).total or list_jobs(session, archived=True).total:
            return 0
    plans = {name: (text, summarized(text)) for name, text in sample_plans().items()}
    with store.writing() as session:
        for name, (text, made) in plans.items():
            add_job(session, text, f"opened from {name}", made)
    return len(plans)
