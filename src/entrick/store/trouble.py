"""What can be wrong with the register on disk, in words: what happened, what is safe, what to
do."""

from __future__ import annotations

from pathlib import Path
from typing import Literal

Cause = Literal[
    "locked", "read-only", "full", "newer", "damaged", "foreign", "unreachable", "server"
]

_SAYINGS: dict[Cause, tuple[str, str, str]] = {
    "locked": (
        "{path} is in use by another program",
        "Everything saved is safe.",
        "Close the other program, or wait until it is done; then try again.",
    ),
    "read-only": (
        "{path} cannot be written to",
        "Everything saved is safe.",
        "Give this account the right to write to the file and to its folder, or name another file "
        "with --database.",
    ),
    "full": (
        "the disk that holds {path} is full",
        "Everything saved is safe; nothing more can be saved.",
        "Make room on the disk, then try again.",
    ),
    "newer": (
        "{path} was written by a newer version of Entrick",
        "Everything saved is safe; this version leaves the file as it is.",
        "Start it with the newer version, or name another file with --database.",
    ),
    "damaged": (
        "{path} is damaged",
        "The file is left as it is.",
        "Start the desk: it sets the file aside and salvages what can be read. Or restore a "
        "backup or a snapshot.",
    ),
    "foreign": (
        "{path} is no register of Entrick",
        "The file is left as it is.",
        "Name the register, or a file that does not exist yet, with --database.",
    ),
    "unreachable": (
        "{path} cannot be opened",
        "Nothing was changed.",
        "Look whether its folder, or its server, is there and may be read and written by this "
        "account.",
    ),
    "server": (
        "{path} stands on a server, and copies of it are the server's business",
        "Nothing was changed.",
        "Take them with pg_dump and put them back with pg_restore; entrick export writes the whole "
        "register as open files.",
    ),
}


class RegisterTrouble(RuntimeError):
    """The register cannot be used as it is.

    Attributes
    ----------
    cause : str
    told, safe, todo : str
        What happened, what is safe, what to do.
    """

    def __init__(self, cause: Cause, path: Path | str, more: str = "") -> None:
        told, self.safe, self.todo = _SAYINGS[cause]
        self.cause = cause
        self.told = told.format(path=path) + (f": {more}" if more else "")
        super().__init__(f"{self.told}. {self.safe} {self.todo}")


def cause_of(error: BaseException) -> Cause | None:
    """Tell from an error of the database, perhaps wrapped, what is wrong; None where it is
    something else."""
    said = f"{error} {getattr(error, 'orig', '')}".lower()
    signs: tuple[tuple[str, Cause], ...] = (
        ("lock timeout", "locked"),
        ("locked", "locked"),
        ("no space left", "full"),
        ("read-only transaction", "read-only"),
        ("connection failed", "unreachable"),
        ("connection is bad", "unreachable"),
        ("connection to server", "unreachable"),
        ("connection refused", "unreachable"),
        ("server closed the connection", "unreachable"),
        ("terminating connection", "unreachable"),
        ("readonly", "read-only"),
        ("is full", "full"),
        ("malformed", "damaged"),
        ("disk image", "damaged"),
        ("not a database", "foreign"),
        ("disk i/o", "damaged"),
        ("unable to open", "unreachable"),
    )
    return next((cause for sign, cause in signs if sign in said), None)
