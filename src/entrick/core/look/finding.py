"""What is found on a finished sheet: every piece as given and as drawn, what is missing, open or
too faint, and the act whose slip explains it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

TOLERANCE = 0.5
"""How far a drawing may be off, mm on paper, where nobody says otherwise (common practice, no
source)."""

OPEN = 0.8
"""How far apart two pieces may be where they meet, mm."""

Spots = tuple[tuple[float, float], ...]

Judged = Literal["within", "unsure", "off", "missing"]
"""Within the tolerance; beyond it, but not beyond what the measuring may be off; off; not there."""


@dataclass(frozen=True, slots=True)
class Sized:
    """A size of a piece: as given and as drawn, in the plan's unit; `u` is what the measuring may
    be off (95 in 100), and `paper` how far the line is off, mm on paper.

    Attributes
    ----------
    what : str
        ``R 154``, ``Ø 38``.
    given, drawn, u : float
    paper : float
    """

    what: str
    given: float
    drawn: float
    u: float
    paper: float


@dataclass(frozen=True)
class Row:
    """One piece of the plan on the sheet.

    Attributes
    ----------
    name : str
    line : int
        Statement of the plan.
    size : Sized or None
        None for a straight line or a curve.
    place : float
        How far it is from its place, mm on paper: the centre of a circle, a line or curve square to
        itself.
    place_u : float
        What that may be off (95 in 100).
    judged : str
    told : str
        What is to be said of it; empty where nothing is.
    seen : float
        Share of it that is drawn.
    dark, width : float
        How dark the stroke is (1 black), and how wide, mm.
    carried : bool
        Whether it is off, but where it should be if the slip that is told was made.
    step : int
        Which lines it in; 0 where none does.
    tool : str
        With what.
    path, planned : tuple of (x, y)
        Where it was drawn, and where it belongs, in the plan.
    """

    name: str
    line: int
    judged: Judged
    told: str
    seen: float
    planned: Spots
    path: Spots = ()
    size: Sized | None = None
    place: float = 0.0
    place_u: float = 0.0
    dark: float = 0.0
    width: float = 0.0
    carried: bool = False
    step: int = 0
    tool: str = ""


@dataclass(frozen=True, slots=True)
class Joined:
    """Where two pieces of an outline meet on the sheet; `miss` between them, mm on paper."""

    first: str
    second: str
    miss: float
    place: tuple[float, float]

    @property
    def is_closed(self) -> bool:
        """Whether they meet as far as the eye can tell."""
        return self.miss <= OPEN


@dataclass(frozen=True, slots=True)
class Slipped:
    """A slip that explains the sheet: what went wrong at which step, in a sentence."""

    key: str
    said: str
    step: int
    act: str
    gain: float
    name: str


@dataclass(frozen=True)
class Finding:
    """A sheet looked at.

    Attributes
    ----------
    rows : tuple of Row
    slips : tuple of Slipped
        The act that slipped, and others that would draw the same; empty where none did.
    second : tuple of Slipped
        A second slip, on top of the first.
    sentence : str
        What there is to say, in one sentence.
    notes : tuple of str
        What is missing, open, overshot, too faint, extra; how the picture was.
    joins : tuple of Joined
    shift : (float, float)
        How far the view stands from its place, mm.
    tolerance : float
        Mm on paper.
    unfinished : bool
        Whether several pieces are not lined in, and nothing is drawn elsewhere instead.
    extra : tuple of (x, y, length)
        Heavy lines that belong to no piece: about where, mm from the datum, and how long.
    """

    rows: tuple[Row, ...]
    slips: tuple[Slipped, ...]
    second: tuple[Slipped, ...]
    sentence: str
    notes: tuple[str, ...]
    joins: tuple[Joined, ...]
    shift: tuple[float, float]
    tolerance: float
    unfinished: bool = False
    extra: tuple[tuple[float, float, float], ...] = ()

    @property
    def is_within(self) -> bool:
        """Whether nothing is off, and nothing is missing."""
        return all(row.judged in ("within", "unsure") for row in self.rows)

    @property
    def doubt(self) -> str:
        """Why an eye should look at the sheet too; empty where none need."""
        if self.unfinished:
            return "not all of it is lined in"
        if not self.slips and not self.is_within:
            return "off, and no one slip explains it"
        if self.second:
            return "two slips"
        return "several slips would draw the same" if len(self.slips) > 1 else ""
