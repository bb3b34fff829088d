"""Copies of the whole register: taken while it is used, put back, and taken by themselves once a
day."""

from __future__ import annotations

import os
import shutil
import sqlite3
import tempfile
import time
from collections.abc import Iterable
from datetime import date
from pathlib import Path

from .database import open_store
from .soundness import examine
from .trouble import RegisterTrouble

DAYS = 14
"""Daily snapshots kept."""

WEEKS = 8
"""Weeks of which one snapshot is kept, beyond the days."""

MONTHS = 12
"""Months of which one snapshot is kept, beyond the weeks."""


RESTORING = ".restoring-"

LEFT = 3600.0
"""Seconds after which what a copy was made in is taken for left by a desk that was killed."""


def clear_leftovers(register: Path) -> int:
    """Take away what copies that were never finished have left beside a register and among its
    snapshots; return how many."""
    left = [*register.parent.glob(f"{RESTORING}*"), *snapshots_of(register).glob(".*.db-*")]
    old = [path for path in left if time.time() - path.stat().st_mtime > LEFT]
    for path in old:
        shutil.rmtree(path) if path.is_dir() else path.unlink(missing_ok=True)
    return len(old)


def backup(register: Path, file: Path) -> None:
    """Write a copy of a register to a file, whole or not at all, while others read and save.

    Raises
    ------
    RegisterTrouble
        Where the register cannot be read, or the copy is not sound.
    """
    if not register.exists():
        raise RegisterTrouble("unreachable", register, "there is no such file")
    file.parent.mkdir(parents=True, exist_ok=True)
    handle, name = tempfile.mkstemp(
        prefix=f".{file.name}-", dir=file.parent
    )  # private to its owner
    os.close(handle)
    fresh = Path(name)
    try:
        _copy(register, fresh)
        examine(fresh)
        os.replace(fresh, file)
    except sqlite3.Error as error:
        raise RegisterTrouble("unreachable", register, str(error)) from error
    finally:
        fresh.unlink(missing_ok=True)


def _copy(source: Path, target: Path) -> None:
    reader = sqlite3.connect(f"{source.absolute().as_uri()}?mode=ro", uri=True, timeout=5)
    try:
        writer = sqlite3.connect(target, timeout=5)
        try:
            reader.backup(writer)
            # One file alone: a copy goes by mail and on sticks, and a log beside it would be left
            # behind.
            writer.execute("PRAGMA journal_mode=DELETE")
        finally:
            writer.close()
    finally:
        reader.close()


def restore(file: Path, register: Path) -> Path | None:
    """Put a backup in the place of a register, which is kept as a snapshot first.

    Returns
    -------
    Path or None
        Where the register as it was lies now.

    Raises
    ------
    RegisterTrouble
        Where the backup is not sound; the register is left as it is.
    """
    if not examine(file):
        raise RegisterTrouble("foreign", file)
    kept = None
    if register.exists() and register.stat().st_size:
        kept = (
            snapshots_of(register) / f"before-restore-{date.today().isoformat()}-{os.getpid()}.db"
        )
        backup(register, kept)
    with tempfile.TemporaryDirectory(
        prefix=RESTORING, dir=register.parent if register.parent.exists() else None
    ) as folder:
        fresh = Path(folder) / "fresh.db"
        backup(file, fresh)
        open_store(fresh).close()  # an older one is brought up to date before it takes the place
        if not register.exists():
            open_store(register).close()
        reader = sqlite3.connect(fresh)
        writer = sqlite3.connect(register, timeout=5)
        try:
            reader.backup(writer)
        except sqlite3.Error as error:
            raise RegisterTrouble("locked", register, str(error)) from error
        finally:
            reader.close()
            writer.close()
    return kept


def snapshots_of(register: Path) -> Path:
    """Return the folder of a register's snapshots."""
    return register.with_name(f"{register.stem}-snapshots")


def snapshot(register: Path, today: date) -> Path | None:
    """Take the day's snapshot, unless there is one, and thin out the old ones.

    Returns
    -------
    Path or None
        The snapshot where one was taken.
    """
    folder = snapshots_of(register)
    file = folder / f"{today.isoformat()}.db"
    if file.exists():
        return None
    folder.mkdir(mode=0o700, exist_ok=True)
    backup(register, file)
    days = {date.fromisoformat(path.stem): path for path in folder.glob("????-??-??.db")}
    for day in days.keys() - kept(days, today):
        days[day].unlink()
    return file


def kept(days: Iterable[date], today: date) -> set[date]:
    """Return which snapshots are kept: the last days, then the first of each week, then of each
    month; those of days that are yet to come, as the clock was set back since.

    Examples
    --------
    >>> days = [date(2026, 1, 5), date(2026, 1, 6), date(2026, 3, 30), date(2026, 3, 31)]
    >>> sorted(kept(days, date(2026, 4, 1)))
    [datetime.date(2026, 1, 5), datetime.date(2026, 3, 30), datetime.date(2026, 3, 31)]
    """
    taken = set(days)
    every = sorted(day for day in taken if day <= today)
    result = {day for day in taken if day > today} | set(every[-DAYS:])
    weeks: dict[tuple[int, int], date] = {}
    months: dict[tuple[int, int], date] = {}
    for day in every:
        weeks.setdefault(day.isocalendar()[:2], day)
        months.setdefault((day.year, day.month), day)
    result.update([*weeks.values()][-WEEKS:])
    result.update([*months.values()][-MONTHS:])
    return result
