"""Threads of tapped holes, and whether they are lettered: no number of the plan says how large one
is, so that no dimension that is measured can fix it."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass

from ..drawing.notes import Label, Note
from ..plan.terms import Name, Text
from ..solve import Entry, Solution

TIMES = re.compile(r"(\d+)\s*[×x]\s*")


@dataclass(frozen=True)
class Thread:
    """The thread of one statement.

    Attributes
    ----------
    line : int
    name : str
    size : str
        As it is said: ``M10``.
    count : int
        How many holes have it.
    across : str
        By which clause it is dimensioned.
    """

    line: int
    name: str
    size: str
    count: int
    across: str


def threads(solution: Solution) -> list[Thread]:
    """Return the threads of all tapped holes."""
    return [
        found
        for entry in solution.entries
        if entry.statement.kind == "tapped hole" and entry.made is not None
        for found in _of(entry)
    ]


def _of(entry: Entry) -> Iterator[Thread]:
    said, made = entry.statement, entry.made
    assert made is not None
    size = next(
        (
            clause.items[1].text
            for clause in said.clauses
            if len(clause.items) > 1
            and clause.items[0] == Name("thread")
            and isinstance(clause.items[1], Text)
        ),
        said.note,
    )
    key = next((k for k in ("major", "1.major") if k in made.parts), "")
    across = f"diameter {said.name}.{key}"
    if not key:
        first = "1." if "1.major.1" in made.parts else ""
        across = f"between {said.name}.{first}major.1 and {said.name}.{first}major.2"
    yield Thread(entry.line, said.name, size, len(made.shapes), across)


def unlettered(solution: Solution) -> list[Thread]:
    """Return the threads that the sheet does not say, by size: one word says as many as it
    counts."""
    said = Counter[str]()
    for entry in solution.entries:
        for note in entry.made.notes if entry.made else ():
            for size, count in _lettered(note):
                said[size] += count
    result = []
    for thread in threads(solution):
        if said[_plain(thread.size)] < thread.count:
            result.append(thread)
        said[_plain(thread.size)] -= thread.count
    return result


def _lettered(note: Note) -> Iterator[tuple[str, int]]:
    text = getattr(note, "text", "")
    times = TIMES.match(text)
    # A label beside a hole may go on: M10, 20 deep.
    rest = text[times.end() :] if times else text
    size = rest.partition(",")[0] if isinstance(note, Label) else rest
    yield _plain(size), int(times[1]) if times else 1


def _plain(size: str) -> str:
    return re.sub(r"\s+", "", size).upper().replace("×", "X")
