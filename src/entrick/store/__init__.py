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
from .kits import KitView, TooManyKits, list_kits, put_kit, remove_kit
from .listing import Listed, Order, Page, list_jobs, listed, outdated, renew
from .salvage import Salvaged, salvage
from .sittings import (
    EventsDiffer,
    SittingView,
    append,
    begin,
    list_sittings,
    schedule_of,
    set_removed,
    set_schedule,
)
from .trouble import RegisterTrouble

__all__ = [
    "ArchiveError",
    "EventsDiffer",
    "Folder",
    "Imported",
    "JobView",
    "KitView",
    "Listed",
    "Order",
    "Page",
    "RegisterTrouble",
    "RevisionView",
    "Salvaged",
    "SittingView",
    "StaleSave",
    "Store",
    "TooManyKits",
    "UnknownJob",
    "Zip",
    "add_job",
    "append",
    "backup",
    "begin",
    "export_register",
    "import_register",
    "list_jobs",
    "list_kits",
    "list_sittings",
    "listed",
    "one_job",
    "one_revision",
    "open_store",
    "opened_zip",
    "outdated",
    "put_kit",
    "remove_kit",
    "renew",
    "restore",
    "revisions",
    "salvage",
    "save_revision",
    "schedule_of",
    "set_archived",
    "set_removed",
    "set_schedule",
    "snapshot",
    "snapshots_of",
]
