"""Is the file sound? Looked at before it is written to for the first time."""

from __future__ import annotations

import sqlite3
import struct
from pathlib import Path

from .digest import digest_of
from .trouble import RegisterTrouble, cause_of

MIGRATIONS = Path(__file__).with_name("migrations")


def known_versions() -> list[str]:
    """Return the migrations this version of the desk knows, oldest first."""
    return sorted(
        path.name.partition("_")[0] for path in (MIGRATIONS / "versions").glob("[0-9]*.py")
    )


def version_of(connection: sqlite3.Connection) -> str:
    """Return the migration a database stands at, empty for one without tables."""
    names = {
        name
        for (name,) in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")
    }
    if not names:
        return ""
    if "alembic_version" not in names:
        raise sqlite3.DatabaseError("file is not a database of ours")
    row = connection.execute("SELECT version_num FROM alembic_version").fetchone()
    return str(row[0]) if row else ""


def examine(path: Path) -> str:
    """Look at a register without writing to it.

    Returns
    -------
    str
        The migration it stands at; empty for a new or empty file.

    Raises
    ------
    RegisterTrouble
        Locked, damaged, of a newer version, or no register at all.
    """
    if not path.exists() or path.stat().st_size == 0:
        return ""
    _check_log(path)
    try:
        connection = sqlite3.connect(f"{path.absolute().as_uri()}?mode=ro", uri=True, timeout=2)
    except sqlite3.Error as error:
        raise RegisterTrouble("unreachable", path, str(error)) from error
    try:
        version = version_of(connection)
        if version and version not in known_versions():
            raise RegisterTrouble("newer", path)
        wrong = connection.execute("PRAGMA quick_check(1)").fetchone()[0]
        if wrong != "ok":
            raise RegisterTrouble("damaged", path, str(wrong).splitlines()[-1])
        if version >= "0002":
            _check_digests(connection, path)
        return version
    except sqlite3.Error as error:
        raise RegisterTrouble(cause_of(error) or "foreign", path, str(error)) from error
    finally:
        connection.close()


def _check_log(path: Path) -> None:
    """Refuse a log that is broken off before a save that was finished: SQLite would take it for the
    end of the log.

    (Checksums of the write-ahead log: "Database File Format", sqlite.org.)
    """
    log = path.with_name(path.name + "-wal")
    data = log.read_bytes() if log.exists() else b""
    if len(data) < 32:
        return
    size, order = int.from_bytes(data[8:12], "big"), "<>"[data[3] & 1]
    if data[:3] != b"\x37\x7f\x06" or not 512 <= size <= 65536:
        raise RegisterTrouble("damaged", path, "its log has lost its heading")
    sums = _summed(data[:24], order, (0, 0))
    broken = False
    for at in range(32, len(data) - size - 23, size + 24):
        head, page = data[at : at + 24], data[at + 24 : at + 24 + size]
        if head[8:16] != data[16:24]:
            broken = True  # zeroed, or left from before the log was begun anew
            continue
        if broken and int.from_bytes(head[4:8], "big"):
            raise RegisterTrouble("damaged", path, "its log is broken off before the last save")
        sums = _summed(page, order, _summed(head[:8], order, sums))
        broken = broken or sums != struct.unpack(">II", head[16:24])


def _summed(data: bytes, order: str, sums: tuple[int, int]) -> tuple[int, int]:
    first, second = sums
    words = iter(struct.unpack(f"{order}{len(data) // 4}I", data))
    for one, other in zip(words, words, strict=True):
        first = (first + one + second) & 0xFFFFFFFF
        second = (second + other + first) & 0xFFFFFFFF
    return first, second


def _check_digests(connection: sqlite3.Connection, path: Path) -> None:
    rows = connection.execute(
        "SELECT job_id, number, based_on, text, note, saved_at, digest FROM revision"
    )
    for job_id, number, based_on, text, note, saved_at, digest in rows:
        try:
            sound = digest_of(job_id, number, based_on, text, note, saved_at) == digest
        except TypeError:  # a text that is none any more
            sound = False
        if not sound:
            raise RegisterTrouble(
                "damaged", path, f"revision {number} of job {job_id} is not what was saved"
            )
