"""The minor diameter of a thread."""

from __future__ import annotations

from collections.abc import Iterator
from random import Random

from ...geometry import Line as Straight
from ...solve import Entry
from ..question import Question, Slip
from .context import Context, of_size

PLACE = 6
"""Where it stands among the others."""


def ask(at: Context, _: Random) -> Iterator[Question]:
    """Ask for the minor diameter of a thread in section."""
    for entry in at.work.solution.entries:
        parts = entry.made.parts if entry.made else {}
        sides = [parts.get(key) for key in ("major.1", "major.2", "minor.1", "minor.2")]
        lines = [line for line in sides if isinstance(line, Straight)]
        if len(lines) < 4:
            continue
        major, minor = (abs(lines[k].offset_of(lines[k + 1].through)) for k in (0, 2))
        working = " ".join(entry.made.working) if entry.made else ""
        if "depth is stated" in working:
            yield from _by_depth(at, entry, major, minor)
        if "1.0825" not in working:
            continue
        pitch = (major - minor) / 1.0825
        own = [
            Slip(
                "drill for minor",
                5,
                major - pitch,
                "That is the tapping drill; the minor diameter is D − 1.0825 P",
            ),
            Slip("thread depth miscounted", 4, major - 0.54 * pitch, "Once on each side"),
            Slip("thread depth miscounted", 4, major - 2 * pitch, "The pitch is not the depth"),
        ]
        yield from of_size(
            at, entry, "thread", "What is its minor diameter", minor, own, "D − 1.0825 × P"
        )


def _by_depth(at: Context, entry: Entry, major: float, minor: float) -> Iterator[Question]:
    """Ask for it where the depth of the thread is stated, and not its school."""
    deep = (major - minor) / 2
    own = [
        Slip("depth once", 5, major - deep, "The depth is taken off on both sides"),
        Slip("drill for minor", 3, major - 2 * deep / 1.0825, "The depth is the one stated"),
    ]
    hint = "The diameter less the depth, on both sides"
    yield from of_size(at, entry, "thread", "What is its minor diameter", minor, own, hint)
