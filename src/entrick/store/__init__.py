"""The register on disk: jobs and their revisions, in SQLite."""

from .archive import ArchiveError, Folder, Imported, Zip, export_register, import_register, opened_zip
from .backup import backup, restore, snapshot, snapshots_of
from .database import Store, open_store
from .jobs import (
    JobView,
    RevisionView,
    StaleSave,
    UnknownJob,
    add_job,
    one_job,
    one_revision,
    revisions,
    save_revision,
    set_archived,
)
from .listing import Listed, Order, Page, list_jobs, listed, outdated, renew
from .salvage import Salvaged, salvage
from .trouble import RegisterTrouble

__all__ = [
    "ArchiveError",
    "Folder",
    "Imported",
    "JobView",
    "Listed",
    "Order",
    "Page",
    "RegisterTrouble",
    "RevisionView",
    "Salvaged",
    "StaleSave",
    "Store",
    "UnknownJob",
    "Zip",
    "add_job",
    "backup",
    "export_register",
    "import_register",
    "list_jobs",
    "listed",
    "one_job",
    "one_revision",
    "open_store",
    "opened_zip",
    "outdated",
    "renew",
    "restore",
    "revisions",
    "salvage",
    "save_revision",
    "set_archived",
    "snapshot",
    "snapshots_of",
]
