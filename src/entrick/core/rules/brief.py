"""Events of a cam as a brief says them, in sentences or as a list of stations, turned into clauses
of the plan."""

from __future__ import annotations

import csv
import re
from collections.abc import Iterator
from dataclasses import dataclass, replace
from fractions import Fraction

from .cam import MOST_EVENTS
from .motion import USUAL

D = r"\d{1,12}"
"""Digits of one number: more than these are no size, and would take long to look through."""
NUMBER = rf"(?<![\d.])(?:{D}\s{{1,3}}{D}/{D}|{D}/{D}|(?:{D})?\.{D}|{D})(?!\d)"
DEGREES = rf"({NUMBER})\s*(?:°|deg(?:rees?)?\b\.?)"
ANGLE = re.compile(
    rf"{DEGREES}(?:\s*(?:and\s+)?({NUMBER})\s*(?:'|′|min(?:utes?)?\b))?"
    rf"(?:\s*({NUMBER})\s*(?:\"|″|sec(?:onds?)?\b))?"
)
"""Degrees, with minutes and seconds where they are said."""
FROM_TO = re.compile(rf"(?:\b(?:from|between)\s+)?{DEGREES[:-1]})?\s*(?:to|and|-|–)\s*{DEGREES}")
"""From one angle to another, the first without its sign where the second has it."""
SHARES = {
    "half": 2,
    "third": 3,
    "quarter": 4,
    "fourth": 4,
    "fifth": 5,
    "sixth": 6,
    "eighth": 8,
    "tenth": 10,
    "twelfth": 12,
}
COUNTS = {"": 1, "a": 1, "one": 1, "two": 2, "three": 3, "five": 5}
TURN = r"(?:of\s+)?(?:a\s+|the\s+|one\s+)?(?:turn|rev(?:olution)?|cycle)\b\.?"
IN_WORDS = re.compile(
    rf"(?:\b({'|'.join(filter(None, COUNTS))})[\s-]+)?\b({'|'.join(SHARES)})s?\s+{TURN}", re.I
)
"""A part of a turn in words: half a revolution, two thirds of a turn."""
IN_TURNS = re.compile(rf"({NUMBER})\s+{TURN}", re.I)
"""The same in figures: 1/3 revolution."""
BARE_ANGLE = re.compile(
    rf"\b(?:in|for|over|through|during)\s+({NUMBER})(?!\s*(?:mm|in\b|\"))", re.I
)
"""An angle without its sign, where degrees have been said before."""
LENGTH = re.compile(
    rf"(\bto\s+(?:a\s+\w+\s+of\s+)?)?(?<![\w./])({NUMBER})\s*(mm|in(?:ches|ch)?\b|\")?"
)
"""A lift: how far, or where to."""
TO_NOUGHT = re.compile(
    r"\bto\s+(?:zero|nought|(?:the|its)\s+(?:start|lowest|bottom|base|beginning)\b)", re.I
)
ABBREVIATED = re.compile(
    r"\b(in|mm|deg|rev|ins|approx)\.(?=\s+[^A-Z\s]|\s*[,;]|\s*$)"
    r"|\b(S\.H\.M|SHM)\.(?=\s+[a-z]|\s*[,;]|\s*$)"
)
"""A point behind a shortened word that ends no sentence."""

VERBS = {
    "rise": re.compile(
        r"\b(?:ris(?:e|es|ing)|lifts?|lifted|rais(?:e|es|ed)|up(?:wards?)?|outstroke|outwards?|out"
        r"|ascen(?:t|ds?|ding)|advances?|climbs?)\b",
        re.I,
    ),
    "fall": re.compile(
        r"\b(?:falls?|falling|drops?|lower(?:s|ed)?|returns?|down(?:wards?)?|instroke|inwards?"
        r"|descen(?:t|ds?|ding)|sinks?)\b",
        re.I,
    ),
    "dwell": re.compile(
        r"\b(?:dwell(?:s|ing)?|rests?|stands?|stationary|holds?|held|pauses?|remains?|stays?"
        r"|no (?:lift|rise|motion|movement))\b",
        re.I,
    ),
}
HELD = re.compile(
    r"\b(?:hold(?:s|ing)?|held|stay(?:s|ing)?|remain(?:s|ing)?|stands?|rests?|kept|keeps?|pauses?)"
    r"\s+(?:it\s+)?(?:up|down|out(?:wards?)?|in(?:wards?)?|raised|lowered)\b",
    re.I,
)
"""Where the follower is held, which is no way it goes."""
TIMED = re.compile(rf"{NUMBER}\s*(?:s|secs?|seconds?|minutes?|ms)\b", re.I)
"""A time, which is no angle."""
REST_OF_TURN = re.compile(
    r"\b(?:(?:in|for|over|during)\s+)?the\s+(?:rest|remainder|remaining)\b", re.I
)
"""What is left of the turn, which says no angle."""
SUDDEN = re.compile(r"\b(?:sudden(?:ly)?|instant(?:ly|aneously)?|at once|immediately)\b", re.I)
"""A fall that takes no angle."""
AT_REST = re.compile(r"\bno (?:lift|rise|motion|movement)\b", re.I)
MOTIONS = (
    ("rounded", re.compile(r"round|modified\s+(?:uniform|constant|straight)", re.I)),
    ("parabolic", re.compile(r"parabol|accelerat|retard|gravity", re.I)),
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
class Understood:
    """One event as it was understood: the words it was read from, what the follower does, from
    which angle to which, its lift and motion; empty where there is none."""

    sentence: str
    event: str
    angle: str
    span: str
    lift: str
    motion: str


@dataclass(frozen=True, slots=True)
class Brief:
    """What a brief says: clauses of the plan, the rows that could not be read, and the events as
    they were understood."""

    clauses: tuple[str, ...]
    misread: tuple[Misread, ...]
    events: tuple[Understood, ...] = ()


STATION = re.compile(r"[\d\s./,;\t°\"'+-]+")
"""A row of figures, in whatever way they are parted and quoted."""


@dataclass(frozen=True, slots=True)
class _Said:
    """An event as far as a sentence says it: empty where it does not; `to` where the lift is the
    height it comes to, not how far it goes."""

    row: int
    sentence: str
    verb: str
    angle: str
    lift: str
    unit: str
    motion: str
    to: bool = False

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
    in_degrees = ANGLE.search(text) is not None
    for number, sentence in enumerate(_sentences(text), 1):
        event = _event(number, sentence, in_degrees)
        if isinstance(event, _Said):
            said.append(event)
        else:
            misread.append(Misread(number, event))
    if not misread:
        said, misread = _worked_out(said)
    if len(said) > MOST_EVENTS:
        misread.append(Misread(MOST_EVENTS + 1, f"a cam has at most {MOST_EVENTS} events"))
    whole = [event for event in said if event.angle and (event.lift or event.verb == "dwell")]
    return Brief(tuple(event.clause for event in whole), tuple(misread), tuple(_understood(whole)))


def _understood(said: list[_Said]) -> Iterator[Understood]:
    """Yield events as they were understood, each from where the one before it ends."""
    at = Fraction(0)
    for event in said:
        begin, at = at, at + _number(event.angle)
        lift = f"{event.lift}{event.unit}" if event.verb != "dwell" else ""
        usual = "" if event.verb == "dwell" else f"{USUAL}, the usual"
        usual = "sudden" if event.angle == "0" else usual
        yield Understood(
            event.sentence,
            event.verb,
            f"{event.angle}°",
            f"{_spelt(begin)}° to {_spelt(at)}°",
            lift,
            event.motion or usual,
        )


def _sentences(text: str) -> list[str]:
    """Return what is said of each event; a part between commas that names none belongs to the one
    before it."""
    result: list[str] = []
    text = ABBREVIATED.sub(lambda short: short[1] or short[2], text)
    for sentence in re.split(r"[;\n]+|\.\s+|\.$|,?\s+then\s+", text):
        parts: list[str] = []
        for part in re.split(r",|\band\b", sentence):
            if parts and not any(pattern.search(part) for pattern in VERBS.values()):
                parts[-1] += f", {part}"
            else:
                parts.append(part)
        result += [part.strip() for part in parts if part.strip()]
    return result


def _event(row: int, sentence: str, in_degrees: bool) -> _Said | str:
    """Return what a sentence says of an event, or why it says none; where degrees have been said, a
    number that can be nothing else is so many."""
    if re.search(r"/0+(?!\d)", sentence):
        return f"“{sentence}” has a fraction over nought"
    angles, rest = _angles(sentence)
    if len(angles) > 1:
        return f"“{sentence}” says several angles; one is wanted, as 90°"
    rest = REST_OF_TURN.sub(" ", rest)
    at_rest = AT_REST.search(rest) is not None
    rest = AT_REST.sub(" ", rest)
    rest = HELD.sub(" dwells ", rest)
    verbs = [verb for verb, pattern in VERBS.items() if pattern.search(rest)]
    verbs = ["dwell"] if at_rest and verbs in ([], ["dwell"]) else verbs
    if len(verbs) != 1 or (at_rest and verbs != ["dwell"]):
        return f"“{sentence}” does not say whether the follower rises, falls or dwells"
    rest = re.sub(r"3-4-5", " ", rest)
    if TIMED.search(rest):
        return f"“{sentence}” tells a time; a cam goes by its angle: say so many degrees"
    if not angles and in_degrees:
        bare = (
            re.compile(rf"{NUMBER}(?!\s*(?:mm|in\b|\"))") if verbs == ["dwell"] else BARE_ANGLE
        ).search(rest)
        if bare:
            angles = [_number(bare[bare.lastindex or 0])]
            rest = rest[: bare.start()] + rest[bare.end() :]
    motion = next((name for name, pattern in MOTIONS if pattern.search(rest)), "")
    lengths = LENGTH.findall(rest) if verbs[0] != "dwell" else []
    if len(lengths) > 1:
        return f"“{sentence}” says several lifts; one is wanted, as 20 mm"
    to, lift, unit = lengths[0] if lengths else ("", "", "")
    if not lengths and verbs == ["fall"] and TO_NOUGHT.search(rest):
        to, lift = "to", "0"
    unit = {"": "", "mm": " mm"}.get(unit, " in")
    angle = _spelt(angles[0]) if angles else ""
    if verbs == ["fall"] and not angles and SUDDEN.search(rest):
        angle = "0"
    return _Said(row, sentence, verbs[0], angle, lift, unit, motion, bool(to))


def _angles(sentence: str) -> tuple[list[Fraction], str]:
    """Return the angles of a sentence in degrees, and what is left of it without them."""
    found: list[Fraction] = []

    def between(match: re.Match[str]) -> str:
        found.append((_number(match[2]) - _number(match[1])) % 360 or Fraction(360))
        return " "

    def parted(match: re.Match[str]) -> str:
        parts = [_number(part) if part else Fraction(0) for part in match.groups()]
        found.append(parts[0] + parts[1] / 60 + parts[2] / 3600)
        return " "

    def in_words(match: re.Match[str]) -> str:
        count = COUNTS[(match[1] or "").lower()]
        found.append(Fraction(360 * count, SHARES[match[2].lower()]))
        return " "

    def in_turns(match: re.Match[str]) -> str:
        found.append(360 * _number(match[1]))
        return " "

    for pattern, take in (
        (FROM_TO, between),
        (IN_WORDS, in_words),
        (IN_TURNS, in_turns),
        (ANGLE, parted),
    ):
        sentence = re.sub(rf"(?:\bin\s+)?{pattern.pattern}", take, sentence, flags=re.I)
    return found, sentence


def _worked_out(said: list[_Said]) -> tuple[list[_Said], list[Misread]]:
    """Return the events with the angle and the lifts that follow from the others, and what does not
    follow."""
    without = [event for event in said if not event.angle]
    left = 360 - sum((_number(event.angle) for event in said if event.angle), Fraction(0))
    if left == 0 and len(without) == 1 and without[0].verb == "fall":
        said = [replace(event, angle="0") if event is without[0] else event for event in said]
        without = []
    if len(without) > 1 or (without and (left <= 0 or len(said) == 1)):
        why = "several say none" if len(without) > 1 else "the others come to 360° or more"
        why = why if len(said) > 1 else "there is nothing it follows from"
        return said, [
            Misread(event.row, f"“{event.sentence}” says no angle, and {why}") for event in without
        ]
    said = [replace(event, angle=_spelt(left)) if not event.angle else event for event in said]
    # A unit that is said once holds for all.
    units = {event.unit for event in said if event.unit}
    if len(units) == 1:
        (unit,) = units
        said = [replace(event, unit=unit) if event.lift else event for event in said]
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
                size = sum(
                    (_number(e.lift) for e in falls if e.lift and not e.to), Fraction(0)
                ) - sum((_number(e.lift) for e in rises if e.lift), Fraction(0))
            if size <= 0:
                misread.append(
                    Misread(
                        event.row,
                        f"“{event.sentence}” says no lift, and none follows from the others",
                    )
                )
                continue
            event = replace(event, lift=_like(size, said), unit=next(iter(units)))
        if event.to:
            way = _number(event.lift) - height
            if (way > 0) != (event.verb == "rise") or way == 0:
                misread.append(Misread(event.row, _no_way(event, height)))
                continue
            event = replace(event, lift=_like(abs(way), said), to=False)
        if event.verb != "dwell":
            height += _number(event.lift) * (1 if event.verb == "rise" else -1)
        found.append(event)
    return found, misread


def _like(value: Fraction, said: list[_Said]) -> str:
    """Write a lift as the others are: a decimal where one of them is."""
    in_decimals = any("." in event.lift for event in said)
    return f"{float(value):.12g}" if in_decimals else _spelt(value)


def _no_way(event: _Said, height: Fraction) -> str:
    """Return why an event cannot come to the height it says."""
    does = "rises" if event.verb == "rise" else "falls"
    return (
        f"“{event.sentence}”: the follower stands at {_spelt(height)}, and {does} to "
        f"{event.lift} by no way"
    )


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
    events: list[Understood] = []
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
            events.append(Understood("", "station", f"{angle}°", "", lift, ""))
    if len(clauses) > MOST_EVENTS:
        misread.append(Misread(MOST_EVENTS + 1, f"a cam has at most {MOST_EVENTS} stations"))
    return Brief(tuple(clauses), tuple(misread), tuple(events))


def _rows(text: str) -> Iterator[tuple[int, str, str, str]]:
    for number, row in enumerate(_table(text), 1):
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


def _table(text: str) -> list[list[str]]:
    """Return the cells of a table, in whatever way they are parted: where that is not the comma, a
    comma between figures is a decimal one."""
    rows = text.splitlines()
    if ";" in text or "\t" in text:
        parted = csv.reader(rows, delimiter=";" if ";" in text else "\t")
        return [[re.sub(r"(?<=\d),(?=\d)", ".", cell) for cell in row] for row in parted]
    if any(
        re.search(r",(?!\d)|\d,\d+\s*,", row) or not re.search(r"\d\s+\d", row) for row in rows[1:]
    ):
        return list(csv.reader(rows))
    return [re.sub(r"(?<=\d),(?=\d)", ".", row).split() for row in rows]
