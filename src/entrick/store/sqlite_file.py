"""The rows of an SQLite file, read page by page without trusting anything that holds them together.
(Layout of pages, cells, records and of the write-ahead log: "Database File Format",
sqlite.org.)"""

from __future__ import annotations

import struct
from collections.abc import Iterator, Mapping
from pathlib import Path

LEAF = 0x0D
"""First byte of a page that holds rows of a table."""

PAGES = frozenset({512, 1024, 2048, 4096, 8192, 16384, 32768})
USUAL_PAGE = 4096
"""Bytes of a page, as every register is made."""

Value = None | int | float | str | bytes


def rows_of(path: Path) -> Iterator[tuple[int, tuple[Value, ...]]]:
    """Yield every row that can be read, of whatever table: its number and its values, those of the
    write-ahead log in place of what they replaced. Nothing says yet that it is what was saved."""
    data = path.read_bytes()
    said = int.from_bytes(data[16:18], "big")
    # What the head says of the size of a page may be spoilt too.
    for size in {said, USUAL_PAGE} if said in PAGES else {USUAL_PAGE}:
        pages = _pages(path, data, size)
        for page in pages.values():
            yield from _rows(page, pages, size)


def _pages(path: Path, data: bytes, size: int) -> dict[int, bytes]:
    """Return every page by number, those committed in the log over those in the file."""
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
    return pages


def _rows(
    page: bytes, pages: Mapping[int, bytes], size: int
) -> Iterator[tuple[int, tuple[Value, ...]]]:
    """Return the rows of a leaf page that can be read."""
    start = 100 if page[:16] == b"SQLite format 3\0" else 0
    if len(page) < start + 8 or page[start] != LEAF:
        return
    count = int.from_bytes(page[start + 3 : start + 5], "big")
    for index in range(count):
        at = int.from_bytes(page[start + 8 + 2 * index : start + 10 + 2 * index], "big")
        try:
            yield _cell(page, at, pages, size)
        except (IndexError, ValueError, KeyError, UnicodeDecodeError):
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
            values.append(struct.unpack(">d", raw)[0])
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
