"""A plan with one of its numbers changed by a tenth, and what touches in it."""

import re
from collections.abc import Iterator

from entrick.core.plan.reader import read_plan
from entrick.core.solve import solve

NUMBER = re.compile(
    r"(?<![\w.\"])[ØR]?(\d+(?:\.\d+)?)(?=[°,\s]|$)(?! (?:sides|about|times|on|teeth)\b)"
)


def touching(text: str) -> list[tuple[int, int]]:
    """Return of every outline how many pieces it has, and at how many joints it goes on without a corner."""
    entries = solve(read_plan(text)).entries
    assert [str(entry.error) for entry in entries if entry.error] == []
    found = []
    for loop in (loop for entry in entries if entry.made for loop in entry.made.loops):
        joints = list(zip(loop.pieces, [*loop.pieces[1:], loop.pieces[0]], strict=True))
        joints = joints if loop.closed else joints[:-1]
        ways = [(a.direction(a.exit), b.direction(b.entry)) for a, b in joints if a is not b]
        smooth = sum(abs(p.cross(q)) < 1e-6 and p.dot(q) > 0 for p, q in ways)
        found.append((len(loop.pieces), smooth))
    return sorted(found)


def each_changed(text: str) -> Iterator[tuple[str, str]]:
    """Yield a plan with each of its numbers a tenth larger in turn, the changed row before it."""
    rows = text.split("\n")
    for k, row in enumerate(rows):
        if k < 4 or "datum" in row:
            continue
        for number in NUMBER.finditer(row):
            if row[: number.start()].endswith("spaced, "):
                continue
            said = f"{float(number[1]) * 1.1:.6g}"
            changed = row[: number.start(1)] + said + row[number.end(1) :]
            yield changed, "\n".join([*rows[:k], changed, *rows[k + 1 :]])
