"""The sample jobs of the Osierbank Lock Yard."""

from __future__ import annotations

from collections.abc import Callable
from importlib import resources

from ..core.summary import Summary
from ..store import Store, add_job, list_jobs


def sample_plans() -> dict[str, str]:
    """Return the text of every sample plan by file name."""
    folder = resources.files(__package__) / "plans"
    return {
        file.name: file.read_text("utf-8")
        for file in sorted(folder.iterdir(), key=lambda f: f.name, reverse=True)
    }


def sample_profile() -> tuple[str, str]:
    """Return the name and the text of a bare profile: a part of the yard whose givens are gone."""
    (file,) = (resources.files(__package__) / "profiles").iterdir()
    return file.name, file.read_text("ascii")


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
