"""Events of a cam as a brief says them, in sentences or as a list of stations, turned into clauses
of the plan."""

from __future__ import annotations

import csv
import re
from collections.abc import Iterator
from dataclasses import dataclass, replace
from fractions import Fraction

from .cam import MOST_EVENTS

D = r"\d{1,12}"
"""Digits of one number: more than these are no size, and would take long to look through."""
NUMBER = rf"(?<![\d.])(?:{D}\s{{1,3}}{D}/{D}|{D}/{D}|(?:{D})?\.{D}|{D})(?!\d)"
ANGLE = re.compile(rf"({NUMBER})\s*(?:°|deg(?:rees?)?\b)")
IN_ANGLE = re.compile(rf"(?:\bin\s+)?{ANGLE.pattern}")
"""An angle with the word before it that is no inch."""
LENGTH = re.compile(rf"(?<![\w./])({NUMBER})\s*(mm|in(?:ches|ch)?\b|\")?")

VERBS = {
    "rise": re.compile(
        r"\b(?:ris(?:e|es|ing)|lifts?|lifted|rais(?:e|es|ed)|up(?:wards?)?|outstroke)\b", re.I
    ),
    "fall": re.compile(
        r"\b(?:falls?|falling|drops?|lower(?:s|ed)?|returns?|down(?:wards?)?|instroke)\b", re.I
    ),
    "dwell": re.compile(
        r"\b(?:dwells?|rests?|stands?|stationary|no (?:lift|motion|movement))\b", re.I
    ),
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


@dataclass(frozen=True, slots=True)
class _Said:
    """An event as far as a sentence says it: empty where it does not."""

    row: int
    sentence: str
    verb: str
    angle: str
    lift: str
    unit: str
    motion: str

    @property
    def clause(self) -> str:
        if self.verb == "dwell":
            return f"dwell {self.angle}°"
        return (
            f"{self.verb} {self.angle}° by "
            f"{self.lift}{self.unit}{f' {self.motion}' if self.motion else ''}"
        )


def read_brief(text: str) -> Brief:
    """Read events from sentences, parted by rows, semicolons, commas or "then", or stations from
    CSV (angle, lift).

    An angle that one event does not say is what the others leave of the turn; a fall that does not
    say how far goes back to where the follower started, and a rise as far as the falls come down.

    Examples
    --------
    >>> read_brief("Rise 20 mm in 90° with SHM; dwell for 30 degrees; fall in 120°, dwells").clauses
    ('rise 90° by 20 mm harmonic', 'dwell 30°', 'fall 120° by 20 mm', 'dwell 120°')
    >>> read_brief("station,lift\\n0,0\\n90,12.5\\n180,20\\n270,8\\n360,0").clauses[1]
    'lift 12.5 at 90°'
    """
    text = re.sub(r"[^\S\n]+", " ", text)
    rows = [row for row in text.splitlines() if row.strip()]
    if len(rows) > 1 and all(STATION.fullmatch(row) for row in rows[1:]):
        return _stations(text)
    said: list[_Said] = []
    misread: list[Misread] = []
    for number, sentence in enumerate(_sentences(text), 1):
        event = _event(number, sentence)
        if isinstance(event, _Said):
            said.append(event)
        else:
            misread.append(Misread(number, event))
    if not misread:
        said, misread = _worked_out(said)
    if len(said) > MOST_EVENTS:
        misread.append(Misread(MOST_EVENTS + 1, f"a cam has at most {MOST_EVENTS} events"))
    return Brief(
        tuple(
            event.clause for event in said if event.angle and (event.lift or event.verb == "dwell")
        ),
        tuple(misread),
    )


def _sentences(text: str) -> list[str]:
    """Return what is said of each event; a part between commas that names none belongs to the one
    before it."""
    found: list[str] = []
    for sentence in re.split(r"[;\n]+|\.\s+|,?\s+then\s+", text):
        parts: list[str] = []
        for part in re.split(r",|\band\b", sentence):
            if parts and not any(pattern.search(part) for pattern in VERBS.values()):
                parts[-1] += f", {part}"
            else:
                parts.append(part)
        found += [part.strip() for part in parts if part.strip()]
    return found


def _event(row: int, sentence: str) -> _Said | str:
    """Return what a sentence says of an event, or why it says none."""
    angles = ANGLE.findall(sentence)
    if len(angles) > 1:
        return f"“{sentence}” says several angles; one is wanted, as 90°"
    rest = IN_ANGLE.sub(" ", sentence)
    verbs = [verb for verb, pattern in VERBS.items() if pattern.search(rest)]
    if len(verbs) != 1:
        return f"“{sentence}” does not say whether the follower rises, falls or dwells"
    motion = next((name for name, pattern in MOTIONS if pattern.search(rest)), "")
    lengths = LENGTH.findall(re.sub(r"3-4-5", " ", rest)) if verbs[0] != "dwell" else []
    if len(lengths) > 1:
        return f"“{sentence}” says several lifts; one is wanted, as 20 mm"
    if any(re.search(r"/0+$", text) for text in (*angles, *(value for value, _ in lengths))):
        return f"“{sentence}” has a fraction over nought"
    lift, unit = lengths[0] if lengths else ("", "")
    unit = {"": "", "mm": " mm"}.get(unit, " in")
    return _Said(row, sentence, verbs[0], angles[0] if angles else "", lift, unit, motion)


def _worked_out(said: list[_Said]) -> tuple[list[_Said], list[Misread]]:
    """Return the events with the angle and the lifts that follow from the others, and what does not
    follow."""
    without = [event for event in said if not event.angle]
    left = 360 - sum((_number(event.angle) for event in said if event.angle), Fraction(0))
    if len(without) > 1 or (without and (left <= 0 or len(said) == 1)):
        why = "several say none" if len(without) > 1 else "the others come to 360° or more"
        why = why if len(said) > 1 else "there is nothing it follows from"
        return said, [
            Misread(event.row, f"“{event.sentence}” says no angle, and {why}") for event in without
        ]
    said = [replace(event, angle=_spelt(left)) if not event.angle else event for event in said]
    units = {event.unit for event in said if event.lift}
    misread: list[Misread] = []
    found: list[_Said] = []
    height = Fraction(0)
    falls = [event for event in said if event.verb == "fall"]
    for event in said:
        if event.verb != "dwell" and not event.lift:
            rises = [e for e in said if e.verb == "rise" and e is not event]
            if len(units) != 1:
                size = Fraction(0)
            elif event.verb == "fall":
                size = height
            else:
                size = sum((_number(e.lift) for e in falls if e.lift), Fraction(0)) - sum(
                    (_number(e.lift) for e in rises if e.lift), Fraction(0)
                )
            if size <= 0:
                misread.append(
                    Misread(
                        event.row,
                        f"“{event.sentence}” says no lift, and none follows from the others",
                    )
                )
                continue
            event = replace(event, lift=_spelt(size), unit=next(iter(units)))
        if event.verb != "dwell":
            height += _number(event.lift) * (1 if event.verb == "rise" else -1)
        found.append(event)
    return found, misread


def _number(text: str) -> Fraction:
    return sum((Fraction(part) for part in text.split()), Fraction(0))


def _spelt(value: Fraction) -> str:
    """Write a value as a brief does: a decimal where it ends, a fraction where it does not."""
    ends = value.denominator
    for factor in (2, 5):
        while ends % factor == 0:
            ends //= factor
    if value.denominator == 1:
        return str(value.numerator)
    if ends == 1 and value.denominator % 5 == 0:
        return f"{float(value):.12g}"
    whole, rest = divmod(value, 1)
    return f"{whole} {rest}" if whole else str(rest)


def _stations(text: str) -> Brief:
    clauses: list[str] = []
    misread: list[Misread] = []
    first: str | None = None
    for number, angle, lift, reason in _rows(text):
        if reason:
            misread.append(Misread(number, reason))
        elif float(angle) == 360:
            if first is not None and float(lift) != float(first):
                misread.append(
                    Misread(
                        number,
                        f"at 360° the lift is {lift}, at 0° it is {first}: it does not return",
                    )
                )
        else:
            first = lift if first is None else first
            clauses.append(f"lift {lift} at {angle}°")
    if len(clauses) > MOST_EVENTS:
        misread.append(Misread(MOST_EVENTS + 1, f"a cam has at most {MOST_EVENTS} stations"))
    return Brief(tuple(clauses), tuple(misread))


def _rows(text: str) -> Iterator[tuple[int, str, str, str]]:
    rows = list(
        csv.reader(
            text.splitlines(), delimiter=";" if ";" in text else "\t" if "\t" in text else ","
        )
    )
    for number, row in enumerate(rows, 1):
        cells = [cell.strip().strip("'").rstrip("°").strip() for cell in row if cell.strip()]
        if not cells or (number == 1 and not any(re.search(r"\d", cell) for cell in cells)):
            continue  # blank, or a heading in words
        if len(cells) != 2 or not all(
            re.fullmatch(r"\d{1,12}(\.\d{1,12})?|\.\d{1,12}", cell) for cell in cells
        ):
            yield (
                number,
                "",
                "",
                "a station is an angle and a lift, in degrees and plan units: 30, 4.5",
            )
        else:
            yield number, cells[0], cells[1], ""
