"""Screw threads by table: metric coarse and fine, unified coarse and fine; diameters and tapping
drills."""

from __future__ import annotations

import re
from dataclasses import dataclass
from fractions import Fraction

INCH = Fraction(254, 10)

MINOR = Fraction("1.082532")
"""Basic major less basic minor diameter, in pitches: 5/8·√3 of the 60° triangle (ISO 724, ASME
B1.1; from memory)."""

COARSE = {
    "1": "0.25",
    "1.1": "0.25",
    "1.2": "0.25",
    "1.4": "0.3",
    "1.6": "0.35",
    "1.8": "0.35",
    "2": "0.4",
    "2.2": "0.45",
    "2.5": "0.45",
    "3": "0.5",
    "3.5": "0.6",
    "4": "0.7",
    "4.5": "0.75",
    "5": "0.8",
    "6": "1",
    "7": "1",
    "8": "1.25",
    "10": "1.5",
    "12": "1.75",
    "14": "2",
    "16": "2",
    "18": "2.5",
    "20": "2.5",
    "22": "2.5",
    "24": "3",
    "27": "3",
    "30": "3.5",
    "33": "3.5",
    "36": "4",
    "39": "4",
    "42": "4.5",
    "45": "4.5",
    "48": "5",
    "52": "5",
    "56": "5.5",
    "60": "5.5",
    "64": "6",
    "68": "6",
}
"""Pitch of metric coarse threads by diameter, mm (ISO 261, ISO 262; from memory)."""

USUAL = (3, 4, 5, 6, 8, 10, 12, 16, 20, 24, 30, 36, 42, 48)
"""Diameters one takes first, mm (ISO 261, first choice; from memory)."""

FINE = {
    "1": ("0.2",),
    "1.1": ("0.2",),
    "1.2": ("0.2",),
    "1.4": ("0.2",),
    "1.6": ("0.2",),
    "1.8": ("0.2",),
    "2": ("0.25",),
    "2.2": ("0.25",),
    "2.5": ("0.35",),
    "3": ("0.35",),
    "3.5": ("0.35",),
    "4": ("0.5",),
    "4.5": ("0.5",),
    "5": ("0.5",),
    "6": ("0.75",),
    "7": ("0.75",),
    "8": ("0.75", "1"),
    "10": ("0.75", "1", "1.25"),
    "12": ("1", "1.25", "1.5"),
    "14": ("1", "1.25", "1.5"),
    "16": ("1", "1.5"),
    "18": ("1", "1.5", "2"),
    "20": ("1", "1.5", "2"),
    "22": ("1", "1.5", "2"),
    "24": ("1", "1.5", "2"),
    "27": ("1", "1.5", "2"),
    "30": ("1", "1.5", "2", "3"),
    "33": ("1.5", "2", "3"),
    "36": ("1.5", "2", "3"),
    "39": ("1.5", "2", "3"),
    "42": ("1.5", "2", "3", "4"),
    "45": ("1.5", "2", "3", "4"),
    "48": ("1.5", "2", "3", "4"),
    "52": ("1.5", "2", "3", "4"),
    "56": ("1.5", "2", "3", "4"),
    "60": ("1.5", "2", "3", "4"),
    "64": ("1.5", "2", "3", "4"),
    "68": ("1.5", "2", "3", "4"),
    **dict.fromkeys(("72", "76", "80"), ("1.5", "2", "3", "4", "6")),
    **dict.fromkeys(("85", "90", "95", "100"), ("2", "3", "4", "6")),
}
"""Pitches of metric fine threads by diameter, mm; beyond 68 there is no coarse one (ISO 261; from
memory)."""

PIPE = {
    "1/16": ("7.723", 28),
    "1/8": ("9.728", 28),
    "1/4": ("13.157", 19),
    "3/8": ("16.662", 19),
    "1/2": ("20.955", 14),
    "5/8": ("22.911", 14),
    "3/4": ("26.441", 14),
    "7/8": ("30.201", 14),
    "1": ("33.249", 11),
    "1 1/8": ("37.897", 11),
    "1 1/4": ("41.910", 11),
    "1 1/2": ("47.803", 11),
    "1 3/4": ("53.746", 11),
    "2": ("59.614", 11),
    "2 1/4": ("65.710", 11),
    "2 1/2": ("75.184", 11),
    "2 3/4": ("81.534", 11),
    "3": ("87.884", 11),
    "3 1/2": ("100.330", 11),
    "4": ("113.030", 11),
}
"""Parallel pipe threads by size: major diameter, mm, and threads to an inch (ISO 228-1; from
memory)."""

PIPE_MINOR = Fraction("1.280654")
"""Major less minor diameter of a pipe thread, in pitches: twice 0.640327 (ISO 228-1; from
memory)."""

TRAPEZOIDAL = {
    "8": ("1.5",),
    "9": ("2", "1.5"),
    "10": ("2", "1.5"),
    "11": ("2", "3"),
    "12": ("3", "2"),
    "14": ("3", "2"),
    **dict.fromkeys(("16", "18", "20"), ("4", "2")),
    **dict.fromkeys(("22", "24", "26", "28"), ("5", "3", "8")),
    **dict.fromkeys(("30", "32", "34", "36"), ("6", "3", "10")),
    **dict.fromkeys(("38", "40", "42"), ("7", "3", "10")),
    "44": ("7", "3", "12"),
    **dict.fromkeys(("46", "48", "50", "52"), ("8", "3", "12")),
    "55": ("9", "3", "14"),
    "60": ("9", "3", "14"),
    **dict.fromkeys(("65", "70", "75", "80"), ("10", "4", "16")),
    **dict.fromkeys(("85", "90", "95"), ("12", "4", "18")),
    "100": ("12", "4", "20"),
}
"""Pitches of trapezoidal threads by diameter, mm, the preferred one first (ISO 10208; from
memory)."""

UNIFIED: dict[str, tuple[int | Fraction | None, ...]] = {
    "#0": (None, 80),
    "#1": (64, 72),
    "#2": (56, 64),
    "#3": (48, 56),
    "#4": (40, 48),
    "#5": (40, 44),
    "#6": (32, 40),
    "#8": (32, 36),
    "#10": (24, 32),
    "#12": (24, 28),
    "1/4": (20, 28),
    "5/16": (18, 24),
    "3/8": (16, 24),
    "7/16": (14, 20),
    "1/2": (13, 20),
    "9/16": (12, 18),
    "5/8": (11, 18),
    "3/4": (10, 16),
    "7/8": (9, 14),
    "1": (8, 12),
    "1 1/8": (7, 12),
    "1 1/4": (7, 12),
    "1 3/8": (6, 12),
    "1 1/2": (6, 12),
    "1 3/4": (5,),
    "2": (Fraction(9, 2),),
    "2 1/4": (Fraction(9, 2),),
    "2 1/2": (4,),
    "2 3/4": (4,),
    "3": (4,),
    "3 1/4": (4,),
    "3 1/2": (4,),
    "3 3/4": (4,),
    "4": (4,),
}
"""Threads to an inch by size, coarse and fine, None where a series has none (ASME B1.1; from
memory)."""


class UnknownThread(ValueError):
    """A thread that stands in no table; says what would."""


@dataclass(frozen=True, slots=True)
class Thread:
    """A thread: its designation, major diameter and pitch in mm, exact, its series, and by how many
    pitches its minor diameter is less."""

    name: str
    major: Fraction
    pitch: Fraction
    series: str
    less: Fraction = MINOR

    @property
    def minor(self) -> Fraction:
        """Basic minor diameter, mm."""
        return self.major - self.less * self.pitch

    @property
    def drill(self) -> Fraction:
        """Tapping drill, mm: major diameter less pitch (common practice; ISO 2306 agrees to its
        rounding)."""
        return self.major - self.pitch


def thread(text: str, special: bool = False) -> Thread:
    """Read a designation: M10, M10x1.25, 1/4-20, 1/4-20 UNC, #10-32 UNF, G1/2, Tr20x4.

    Parameters
    ----------
    text : str
    special : bool
        Whether size and pitch may be ones that stand in no table.

    Raises
    ------
    UnknownThread

    Examples
    --------
    >>> float(thread("M10").minor)
    8.376202
    >>> float(thread("M10x1.25").drill)
    8.75
    >>> thread("1/4-20").series
    'unified coarse'
    """
    said = re.sub(r"\s+", " ", text.replace("×", "x")).strip()
    metric = re.fullmatch(r"[Mm] ?(\d+(?:\.\d+)?)(?: ?x ?(\d+(?:\.\d+)?))?", said)
    if metric and special and metric[2]:
        return _special(f"M{metric[1]}x{metric[2]}", Fraction(metric[1]), Fraction(metric[2]))
    if metric:
        return _metric(metric[1], metric[2])
    inch = re.fullmatch(
        r"(#\d+|\d+(?: \d+/\d+)?|\d+/\d+) ?- ?(\d+(?:\.\d+)?)(?: ?(UNC|UNF))?", said, re.IGNORECASE
    )
    if inch and special and float(inch[2]) > 0:
        return _special(f"{inch[1]}-{inch[2]}", _inches(inch[1]) * INCH, INCH / Fraction(inch[2]))
    if inch:
        return _unified(inch[1], Fraction(inch[2]), (inch[3] or "").upper())
    pipe = re.fullmatch(r"[Gg] ?(\d+(?: \d+/\d+)?|\d+/\d+)", said)
    if pipe:
        return _pipe(pipe[1])
    trapezoidal = re.fullmatch(r"[Tt][Rr] ?(\d+)(?: ?x ?(\d+(?:\.\d+)?))?", said)
    if trapezoidal:
        return _trapezoidal(trapezoidal[1], trapezoidal[2])
    raise UnknownThread(
        f"{text} is no thread of the tables; write M10, M10x1.25, 1/4-20, #10-32 UNF, G1/2 or "
        "Tr20x4"
    )


def _pipe(size: str) -> Thread:
    if size not in PIPE:
        raise UnknownThread(f"G{size} is no size of the table; it has {', '.join(PIPE)}")
    major, count = PIPE[size]
    return Thread(f"G{size}", Fraction(major), INCH / count, "parallel pipe thread", PIPE_MINOR)


def _trapezoidal(size: str, pitch: str | None) -> Thread:
    if size not in TRAPEZOIDAL:
        near = min(TRAPEZOIDAL, key=lambda each: abs(int(each) - int(size)))
        raise UnknownThread(f"Tr{size} is not in the table; the nearest is Tr{near}")
    offered = TRAPEZOIDAL[size]
    said = pitch or offered[0]
    if Fraction(said) not in map(Fraction, offered):
        raise UnknownThread(f"Tr{size} has no pitch {pitch}; it has {', '.join(offered)}")
    return Thread(f"Tr{size}x{said}", Fraction(size), Fraction(said), "trapezoidal", Fraction(1))


def _metric(size: str, pitch: str | None) -> Thread:
    size = size.rstrip("0").rstrip(".") if "." in size else size
    if size not in COARSE and size not in FINE:
        near = min((*COARSE, *FINE), key=lambda each: abs(float(each) - float(size)))
        raise UnknownThread(f"M{size} is not in the table; the nearest is M{near}")
    usual, fine = COARSE.get(size), FINE.get(size, ())
    if usual and (pitch is None or Fraction(pitch) == Fraction(usual)):
        return Thread(f"M{size}", Fraction(size), Fraction(usual), "metric coarse")
    if pitch is None:
        raise UnknownThread(f"M{size} has no coarse pitch: say which, {' or '.join(fine)}")
    if Fraction(pitch) not in {Fraction(each) for each in fine}:
        offered = ", ".join(filter(None, (usual, *fine)))
        message = (
            f"M{size} has no pitch {pitch} in the table; it has {offered}; for a pitch of its "
            "own say  special"
        )
        raise UnknownThread(message)
    return Thread(f"M{size}x{pitch}", Fraction(size), Fraction(pitch), "metric fine")


def _unified(size: str, count: Fraction, series: str) -> Thread:
    if size not in UNIFIED:
        raise UnknownThread(f"{size} is no size of the unified table; it has {', '.join(UNIFIED)}")
    offered = UNIFIED[size]
    if count not in offered:
        counts = " or ".join(f"{float(n):g}" for n in offered if n is not None)
        raise UnknownThread(
            f"{size} has {counts} threads to an inch; for a pitch of its own say  special"
        )
    word = ("UNC", "UNF")[offered.index(count)]
    if series and series != word:
        raise UnknownThread(f"{size} with {float(count):g} threads to an inch is {word}")
    full = "unified coarse" if word == "UNC" else "unified fine"
    return Thread(f"{size}-{float(count):g} {word}", _inches(size) * INCH, INCH / count, full)


def _inches(size: str) -> Fraction:
    """Return the major diameter of a unified size: numbered ones are 0.060 and 0.013 for each
    number (ASME B1.1)."""
    if size.startswith("#"):
        return Fraction(60 + 13 * int(size[1:]), 1000)
    return sum((Fraction(part) for part in size.split()), Fraction(0))


def _special(name: str, major: Fraction, pitch: Fraction) -> Thread:
    """Return a thread of no table, of the same 60° profile."""
    result = Thread(name, major, pitch, "special: in no table, and taps for it are made to order")
    if pitch <= 0 or result.minor <= 0:
        raise UnknownThread(
            f"{name} would be cut to its axis: a pitch is a small part of the diameter"
        )
    return result
