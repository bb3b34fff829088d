"""Drawing numbers in a row: the next one that is free, and a plan's text with another number."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Collection

COUNTED = re.compile(r"(?P<front>.*?)(?P<count>\d{1,9})", re.S)
"""A drawing number that counts: what stands before its last figures, and those."""

OURS = re.compile(r"\s*(?:#|(?:plan|drawing|units|sheet|given|chain)\b)|.*=")
"""How a line of a plan looks, one that cannot be read too: a comment, a heading, a name given."""

LOOKED_AT = 40
"""Lines of a text that are looked at for one of a plan."""

SHEETS = {
    "mm": "A4 landscape, scale 1:1, border 10",
    "in": "11 by 8 1/2, scale 1:1, border 3/8",
}
"""The sheet a plan begins with, by its unit."""

FIRST = "OY-001"
"""The first number of a register that has none."""


def next_free(taken: Collection[str], like: str = "") -> str:
    """Return the drawing number that comes next.

    Parameters
    ----------
    taken : collection of str
        Numbers of the register; those that do not end in figures do not count.
    like : str
        The number it follows, such as that of the job copied; the usual way of the register where
        it is empty or does not end in figures.

    Returns
    -------
    str
        Counted on from the highest of its row, with as many figures.
    """
    counted = [(found["front"], found["count"]) for found in map(COUNTED.fullmatch, taken) if found]
    own = COUNTED.fullmatch(like)
    if own:
        front = own["front"]
    elif counted:
        front = Counter(front for front, _ in counted).most_common(1)[0][0]
    else:
        return FIRST
    counts = [count for each, count in counted if each == front] + ([own["count"]] if own else [])
    following = max(map(int, counts)) + 1
    return f"{front}{following:0{max(map(len, counts))}}"


def renumbered(text: str, number: str) -> str:
    """Return a plan's text, in canonical spacing, with another drawing number."""
    row = f"drawing {number}"
    result, count = re.subn(r"^drawing .*$", lambda _: row, text, count=1, flags=re.M)
    if count:
        return result
    title = re.match(r"plan .*\n", text)
    at = title.end() if title else 0
    return f"{text[:at]}{row}\n{text[at:]}"


def says_something(text: str) -> bool:
    """Tell whether one of the first lines of a text may be a plan's, or it has none at all."""
    rows = [row for row in text.split("\n") if row.strip("\ufeff \t\r")][:LOOKED_AT]
    return not rows or any(map(OURS.match, rows))


def begun(title: str, number: str, unit: str) -> str:
    """Return the text of a plan just begun, with its heading and the usual sheet of its unit."""
    head = f'plan "{title.replace(chr(34), chr(0x2033))}"\n' + (
        f"drawing {number}\n" if number else ""
    )
    return f"{head}units {unit}\nsheet {SHEETS[unit]}\n"
