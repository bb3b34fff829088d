"""Salvage: what can still be read of a damaged register, page by page, without trusting anything
that holds them together.

A revision carries a digest of all it says, so that a record found anywhere in the file is either
exactly what was saved or is left out. (Layout of pages, cells, records and of the write-ahead log:
"Database File Format", sqlite.org.)"""

from __future__ import annotations

import shutil
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from datetime import UTC, datetime
from pathlib import Path

from .database import Store, open_store
from .digest import STAMP, digest_of
from .jobs import add_revision
from .listing import put_summary
from .models import Job

LEAF = 0x0D
"""First byte of a page that holds rows of a table."""

INDEX_LEAF = 0x0A
"""First byte of a page that holds entries of an index: those of (job, revision) tell what there
was."""

SIDE_FILES = ("-wal", "-shm")

Value = None | int | float | str | bytes


@dataclass(frozen=True, slots=True)
class Salvaged:
    """What became of a damaged register.

    Attributes
    ----------
    aside : Path
        Where the damaged file lies now, as it was.
    report : Path
        A list of what was salvaged and what was not.
    jobs, revisions : int
        Salvaged.
    lost : tuple of str
        What could not be, as far as it can be told.
    """

    aside: Path
    report: Path
    jobs: int
    revisions: int
    lost: tuple[str, ...]


@dataclass(slots=True)
class _Found:
    revisions: dict[tuple[int, int], tuple[Value, ...]] = field(default_factory=dict)
    jobs: dict[int, tuple[str, str | None]] = field(default_factory=dict)
    known: set[tuple[int, int]] = field(default_factory=set)
    """Revisions that there were, as far as an index or a spoilt record tells."""


def salvage(path: Path) -> tuple[Store, Salvaged]:
    """Set a damaged register aside and open a fresh one with whatever can be read of it.

    Raises
    ------
    LookupError
        Where not one revision can be read; the file is left where it is.
    """
    found = _read(path)
    if not found.revisions:
        raise LookupError(f"not one revision can be read in {path}")
    stamp = datetime.now().strftime("%Y%m%d-%H%M%S")
    aside = path.with_name(f"{path.name}.damaged-{stamp}")
    for side in ("", *SIDE_FILES):
        file = path.with_name(path.name + side)
        if file.exists():
            shutil.move(file, aside.with_name(aside.name + side))
    store = open_store(path)
    lost = _enter(store, found)
    jobs = len({job_id for job_id, _ in found.revisions})
    report = aside.with_name(aside.name + ".txt")
    rows = [
        f"{path.name} was damaged and was set aside as {aside.name}, unchanged.",
        f"Salvaged: {jobs} jobs with {len(found.revisions)} revisions, each exactly as it was "
        "saved.",
        "Not salvaged, as far as it can be told:" if lost else "Nothing is known to be missing.",
        *lost,
    ]
    report.write_text("\n".join(rows) + "\n", "utf-8")
    report.chmod(0o600)
    return store, Salvaged(aside, report, jobs, len(found.revisions), lost)


def _enter(store: Store, found: _Found) -> tuple[str, ...]:
    """Write what was found into a fresh register; return what is missing from it."""
    lost: list[str] = []
    by_job: dict[int, list[int]] = {}
    for job_id, number in sorted(found.revisions):
        by_job.setdefault(job_id, []).append(number)
    with store.writing() as session:
        for job_id, numbers in by_job.items():
            first = str(found.revisions[job_id, numbers[0]][6])
            created, archived = found.jobs.get(job_id, (first, None))
            if job_id not in found.jobs:
                lost.append(f"job {job_id}: when it was entered, and whether it was archived")
            job = Job(
                id=job_id,
                created_at=_time(created),
                archived_at=_time(archived) if archived else None,
            )
            session.add(job)
            session.flush()
            revision = None
            for number in numbers:
                _, _, _, based_on, text, note, saved_at, _ = found.revisions[job_id, number]
                assert based_on is None or isinstance(based_on, int)
                revision = add_revision(
                    session, job_id, number, based_on, str(text), str(note), _time(str(saved_at))
                )
            assert revision is not None
            put_summary(session, job, revision, None)
            gaps = sorted(set(range(1, numbers[-1] + 1)) - set(numbers))
            lost += [f"job {job_id}, revision {number}" for number in gaps]
    told = {
        f"job {job_id}, revision {number}"
        for job_id, number in found.known - found.revisions.keys()
    }
    lost += sorted(told - set(lost))
    lost += [
        f"job {job_id}: all its revisions" for job_id in sorted(found.jobs.keys() - by_job.keys())
    ]
    return tuple(lost)


def _time(stamp: str) -> datetime:
    return datetime.strptime(stamp, STAMP).replace(tzinfo=UTC)


def _read(path: Path) -> _Found:
    found = _Found()
    pages, size = _pages(path)
    for page in pages.values():
        for row_id, values in _rows(page, pages, size):
            _keep(row_id, values, found)
        for values in _entries(page):
            if len(values) == 3 and all(isinstance(value, int) for value in values):
                found.known.add((int(values[0] or 0), int(values[1] or 0)))
    return found


def _keep(row_id: int, values: tuple[Value, ...], found: _Found) -> None:
    if len(values) == 8:
        _, job_id, number, based_on, text, note, saved_at, digest = values
        if not (
            isinstance(job_id, int)
            and isinstance(number, int)
            and isinstance(digest, str)
            and len(digest) == 64
        ):
            return
        sound = isinstance(text, str) and isinstance(note, str) and isinstance(saved_at, str)
        if sound and digest_of(job_id, number, based_on, text, note, saved_at) == digest:  # type: ignore[arg-type]
            found.revisions[job_id, number] = values
        else:
            found.known.add((job_id, number))
    elif len(values) == 3 and values[0] is None:
        _, created, archived = values
        if _is_stamp(created) and (archived is None or _is_stamp(archived)):
            found.jobs[row_id] = (str(created), None if archived is None else str(archived))


def _is_stamp(value: Value) -> bool:
    try:
        return isinstance(value, str) and bool(_time(value))
    except ValueError:
        return False


def _pages(path: Path) -> tuple[dict[int, bytes], int]:
    """Return every page by number, those committed in the log over those in the file."""
    data = path.read_bytes()
    size = int.from_bytes(data[16:18], "big")
    size = 65536 if size == 1 else size
    if size < 512 or size & (size - 1):
        size = 4096  # the header is gone: the size every register is made with
    pages = {at // size + 1: data[at : at + size] for at in range(0, len(data), size)}
    log = path.with_name(path.name + "-wal")
    waiting: dict[int, bytes] = {}
    if log.exists():
        frames = log.read_bytes()
        salts = frames[16:24]
        for at in range(32, len(frames) - size - 23, size + 24):
            head = frames[at : at + 24]
            if head[8:16] != salts:
                # spoilt, or left from before; a record that is not whole has no true digest
                continue
            waiting[int.from_bytes(head[:4], "big")] = frames[at + 24 : at + 24 + size]
            if int.from_bytes(
                head[4:8], "big"
            ):  # the last frame of a transaction says how large the file is now
                pages |= waiting
                waiting = {}
    return pages, size


def _rows(
    page: bytes, pages: Mapping[int, bytes], size: int
) -> Iterator[tuple[int, tuple[Value, ...]]]:
    """Return the rows of a leaf page that can be read."""
    start = 100 if page[:16] == b"SQLite format 3\0" else 0
    if len(page) < size or page[start] != LEAF:
        return
    count = int.from_bytes(page[start + 3 : start + 5], "big")
    for index in range(count):
        at = int.from_bytes(page[start + 8 + 2 * index : start + 10 + 2 * index], "big")
        try:
            yield _cell(page, at, pages, size)
        except (IndexError, ValueError, KeyError, UnicodeDecodeError):
            continue


def _entries(page: bytes) -> Iterator[tuple[Value, ...]]:
    """Return the entries of a leaf page of an index, as far as they lie on the page."""
    if not page or page[0] != INDEX_LEAF:
        return
    for index in range(int.from_bytes(page[3:5], "big")):
        at = int.from_bytes(page[8 + 2 * index : 10 + 2 * index], "big")
        try:
            length, at = _varint(page, at)
            yield _record(page[at : at + length])
        except (IndexError, ValueError):
            continue


def _cell(
    page: bytes, at: int, pages: Mapping[int, bytes], size: int
) -> tuple[int, tuple[Value, ...]]:
    length, at = _varint(page, at)
    row_id, at = _varint(page, at)
    most, least = size - 35, (size - 12) * 32 // 255 - 23
    if length > 2**30:
        raise ValueError("a record of impossible length")
    if length <= most:
        return row_id, _record(page[at : at + length])
    here = least + (length - least) % (size - 4)
    here = here if here <= most else least
    payload = page[at : at + here]
    following = int.from_bytes(page[at + here : at + here + 4], "big")
    seen: set[int] = set()
    while len(payload) < length:
        if following in seen:
            raise ValueError("a chain of pages that bites its tail")
        seen.add(following)
        more = pages[following]
        following = int.from_bytes(more[:4], "big")
        payload += more[4 : 4 + length - len(payload)]
    return row_id, _record(payload)


def _record(payload: bytes) -> tuple[Value, ...]:
    head, at = _varint(payload, 0)
    kinds = []
    while at < head:
        kind, at = _varint(payload, at)
        kinds.append(kind)
        if len(kinds) > 40:
            raise ValueError("a record of impossible width")
    values: list[Value] = []
    at = head
    for kind in kinds:
        wide = {0: 0, 1: 1, 2: 2, 3: 3, 4: 4, 5: 6, 6: 8, 7: 8, 8: 0, 9: 0}.get(
            kind, max(0, (kind - 12) // 2)
        )
        raw = payload[at : at + wide]
        if len(raw) < wide:
            raise ValueError("a record that breaks off")
        at += wide
        if kind == 0:
            values.append(None)
        elif kind <= 6:
            values.append(int.from_bytes(raw, "big", signed=True))
        elif kind == 7:
            values.append(raw.hex())
        elif kind in (8, 9):
            values.append(kind - 8)
        else:
            values.append(raw.decode("utf-8") if kind % 2 else raw)
    return tuple(values)


def _varint(data: bytes, at: int) -> tuple[int, int]:
    value = 0
    for index in range(8):
        byte = data[at + index]
        value = value << 7 | byte & 0x7F
        if byte < 0x80:
            return value, at + index + 1
    return value << 8 | data[at + 8], at + 9
