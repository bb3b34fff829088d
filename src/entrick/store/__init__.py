"""The register on disk: jobs and their revisions, in SQLite."""

from .database import Store, open_store
from .jobs import (
    JobView,
    RevisionView,
    StaleSave,
    UnknownJob,
    add_job,
    all_jobs,
    one_job,
    one_revision,
    revisions,
    save_revision,
    set_archived,
)

__all__ = [
    "JobView",
    "RevisionView",
    "StaleSave",
    "Store",
    "UnknownJob",
    "add_job",
    "all_jobs",
    "one_job",
    "one_revision",
    "open_store",
    "revisions",
    "save_revision",
    "set_archived",
]
