"""Events of a cam as a brief says them, in sentences or as a list of stations, turned into clauses of the plan."""

from __future__ import annotations

import csv
import re
from collections.abc import Iterator
from dataclasses import dataclass

from .cam import MOST_EVENTS

D = r"\d{1,12}"
"""Digits of one number: more than these are no size, and would take long to look through."""
NUMBER = rf"(?<![\d.])(?:{D}\s{{1,3}}{D}/{D}|{D}/{D}|(?:{D})?\.{D}|{D})(?!\d)"
ANGLE = re.compile(rf"({NUMBER})\s*(?:°|deg(?:rees?)?\b)")
LENGTH = re.compile(rf"(?<![\w./])({NUMBER})\s*(mm|in(?:ches|ch)?\b|\")?")

VERBS = {
    "rise": re.compile(r"\b(?:ris(?:e|es|ing)|lifts?|lifted|rais(?:e|es|ed)|up(?:wards?)?|outstroke)\b", re.I),
    "fall": re.compile(r"\b(?:falls?|falling|drops?|lower(?:s|ed)?|returns?|down(?:wards?)?|instroke)\b", re.I),
    "dwell": re.compile(r"\b(?:dwells?|rests?|stands?|stationary|no (?:lift|motion|movement))\b", re.I),
}
MOTIONS = (
    ("rounded", re.compile(r"round", re.I)),
    ("parabolic", re.compile(r"parabol|acceleration|gravity", re.I)),
    ("harmonic", re.compile(r"harmonic|\bS\.?H\.?M", re.I)),
    ("cycloidal", re.compile(r"cycloid", re.I)),
    ("polynomial", re.compile(r"3-4-5|polynomial", re.I)),
    ("uniform", re.compile(r"uniform|constant (?:velocity|speed)|steady", re.I)),
)


@dataclass(frozen=True, slots=True)
class Misread:
    """A row of a brief that could not be read: its number from 1, and why."""

    row: int
    message: str


@dataclass(frozen=True, slots=True)
class Brief:
    """What a brief says: clauses of the plan, and the rows that could not be read."""

    clauses: tuple[str, ...]
    misread: tuple[Misread, ...]


STATION = re.compile(r"[\d\s./,;\t°\"'+-]+")
"""A row of figures, in whatever way they are parted and quoted."""


def read_brief(text: str) -> Brief:
    """Read events from sentences, one to a row or parted by semicolons, or stations from CSV (angle, lift).

    Examples
    --------
    >>> read_brief("Rise 20 mm in 90° with SHM; dwell for 30 degrees").clauses
    ('rise 90° by 20 mm harmonic', 'dwell 30°')
    >>> read_brief("station,lift\\n0,0\\n90,12.5\\n180,20\\n270,8\\n360,0").clauses[1]
    'lift 12.5 at 90°'
    """
    text = re.sub(r"[^\S\n]+", " ", text)
    rows = [row for row in text.splitlines() if row.strip()]
    if len(rows) > 1 and all(STATION.fullmatch(row) for row in rows[1:]):
        return _stations(text)
    clauses: list[str] = []
    misread: list[Misread] = []
    for number, sentence in enumerate((s for s in re.split(r"[;\n]+|\.\s+|,?\s+then\s+", text) if s.strip()), 1):
        clause, reason = _event(sentence)
        if reason:
            misread.append(Misread(number, reason))
        else:
            clauses.append(clause)
    if len(clauses) > MOST_EVENTS:
        misread.append(Misread(MOST_EVENTS + 1, f"a cam has at most {MOST_EVENTS} events"))
    return Brief(tuple(clauses), tuple(misread))


def _event(sentence: str) -> tuple[str, str]:
    angles = ANGLE.findall(sentence)
    if len(angles) != 1:
        return "", f"“{sentence.strip()}” says {'no angle' if not angles else 'several angles'}; one is wanted, as 90°"
    rest = ANGLE.sub(" ", sentence)
    verbs = [verb for verb, pattern in VERBS.items() if pattern.search(rest)]
    if len(verbs) != 1:
        return "", f"“{sentence.strip()}” does not say whether the follower rises, falls or dwells"
    angle = angles[0]
    if verbs[0] == "dwell":
        return f"dwell {angle}°", ""
    motion = next((name for name, pattern in MOTIONS if pattern.search(rest)), "")
    lengths = LENGTH.findall(re.sub(r"3-4-5", " ", rest))
    if len(lengths) != 1:
        return "", f"“{sentence.strip()}” says {'no lift' if not lengths else 'several lifts'}; one is wanted, as 20 mm"
    value, unit = lengths[0]
    unit = {"": "", "mm": " mm"}.get(unit, " in")
    return f"{verbs[0]} {angle}° by {value}{unit}{f' {motion}' if motion else ''}", ""


def _stations(text: str) -> Brief:
    clauses: list[str] = []
    misread: list[Misread] = []
    first: str | None = None
    for number, angle, lift, reason in _rows(text):
        if reason:
            misread.append(Misread(number, reason))
        elif float(angle) == 360:
            if first is not None and float(lift) != float(first):
                misread.append(Misread(number, f"at 360° the lift is {lift}, at 0° it is {first}: it does not return"))
        else:
            first = lift if first is None else first
            clauses.append(f"lift {lift} at {angle}°")
    if len(clauses) > MOST_EVENTS:
        misread.append(Misread(MOST_EVENTS + 1, f"a cam has at most {MOST_EVENTS} stations"))
    return Brief(tuple(clauses), tuple(misread))


def _rows(text: str) -> Iterator[tuple[int, str, str, str]]:
    rows = list(csv.reader(text.splitlines(), delimiter=";" if ";" in text else "\t" if "\t" in text else ","))
    for number, row in enumerate(rows, 1):
        cells = [cell.strip().strip("'").rstrip("°").strip() for cell in row if cell.strip()]
        if not cells or (number == 1 and not any(re.search(r"\d", cell) for cell in cells)):
            continue  # blank, or a heading in words
        if len(cells) != 2 or not all(re.fullmatch(r"\d{1,12}(\.\d{1,12})?|\.\d{1,12}", cell) for cell in cells):
            yield number, "", "", "a station is an angle and a lift, in degrees and plan units: 30, 4.5"
        else:
            yield number, cells[0], cells[1], ""
