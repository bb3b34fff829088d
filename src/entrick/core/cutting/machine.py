"""What is set on a machine: its process, feeds, heights, passes, tabs, leads and where its zero is;
read from open JSON that one can edit."""

from __future__ import annotations

import json
from collections.abc import Mapping
from dataclasses import dataclass, fields, replace
from functools import cache
from importlib import resources
from typing import Literal, get_args

from ..measure import Unit
from ..plan.errors import ClauseError

Process = Literal["plain", "router", "laser", "torch"]
Lead = Literal["arc", "line", "none"]
Direction = Literal["climb", "conventional"]
Zero = Literal["datum", "corner", "middle"]
Entry = Literal["ramp", "plunge"]

LONGEST = 4096
"""Characters of a profile."""


@dataclass(frozen=True, slots=True)
class Machine:
    """What is set on a machine, in mm, mm a minute and seconds.

    Attributes
    ----------
    name : str
    process : {"plain", "router", "laser", "torch"}
        Tool on and off; a spindle that goes down; a beam; a flame or plasma above the sheet.
    feed : float
        Along the cut.
    plunge : float
        Down into the sheet.
    spindle : float
        Turns a minute (S).
    spin_up : float
        Wait until it turns.
    power : float
        Of a beam, in thousandths of the most (S).
    safe : float
        Height above the sheet at which it moves over it.
    thickness, through : float
        Of the sheet, and how much further the tool goes.
    pass_depth : float
        How much deeper each pass goes at most; in the file `pass`.
    passes : int
        How often a beam goes round.
    entry : {"ramp", "plunge"}
        Down along the lead, or straight.
    tabs : int
        Left on every rim, so that the part stays in the sheet.
    tab_width, tab_height : float
    pierce : float
        Wait until the sheet is pierced.
    pierce_height, cut_height : float
        Of a torch above the sheet.
    slow : float
        Feed near sharp corners and in small holes, per cent.
    slow_within : float
        How near; holes of that radius are small.
    lead : {"arc", "line", "none"}
    direction : {"climb", "conventional"}
        With a spindle that turns clockwise climb is clockwise round a rim, and the other way round
        in a hole (common practice, no source).
    zero : {"datum", "corner", "middle"}
        Where the program has its zero: the plan's datum, the lower left corner of the part's box,
        its middle.
    dry : bool
        The same way with the tool off, or up.
    """

    name: str = "A plain cutter"
    process: Process = "plain"
    feed: float = 400.0
    plunge: float = 200.0
    spindle: float = 12000.0
    spin_up: float = 2.0
    power: float = 500.0
    safe: float = 5.0
    thickness: float = 3.0
    through: float = 0.2
    pass_depth: float = 2.0
    passes: int = 1
    entry: Entry = "ramp"
    tabs: int = 0
    tab_width: float = 5.0
    tab_height: float = 1.0
    pierce: float = 0.5
    pierce_height: float = 3.8
    cut_height: float = 1.5
    slow: float = 100.0
    slow_within: float = 0.0
    lead: Lead = "arc"
    direction: Direction = "climb"
    zero: Zero = "datum"
    dry: bool = False

    @property
    def depths(self) -> tuple[float, ...]:
        """How deep each pass goes: evenly, none deeper than a pass may."""
        whole = self.thickness + self.through
        count = max(1, -int(-whole // self.pass_depth))
        return tuple(whole * k / count for k in range(1, count + 1))


LIMITS: Mapping[str, tuple[float, float]] = {
    "feed": (1, 60_000),
    "plunge": (1, 20_000),
    "spindle": (100, 60_000),
    "spin_up": (0, 60),
    "power": (1, 1000),
    "safe": (0.5, 200),
    "thickness": (0.05, 200),
    "through": (0, 10),
    "pass": (0.05, 200),
    "passes": (1, 20),
    "tabs": (0, 24),
    "tab_width": (0.1, 100),
    "tab_height": (0.1, 200),
    "pierce": (0, 30),
    "pierce_height": (0.2, 50),
    "cut_height": (0.2, 50),
    "slow": (5, 100),
    "slow_within": (0, 100),
}
"""What each number may be."""

SAID: Mapping[str, tuple[str, str]] = {
    "name": ("Name", ""),
    "feed": ("Feed", "mm a minute"),
    "plunge": ("Goes down at", "mm a minute"),
    "spindle": ("Spindle", "turns a minute"),
    "spin_up": ("Wait for the spindle", "s"),
    "power": ("Power", "of 1000"),
    "safe": ("Safe height", "mm"),
    "thickness": ("Sheet", "mm thick"),
    "through": ("Goes through it by", "mm"),
    "pass": ("Each pass at most", "mm deep"),
    "passes": ("Times round", ""),
    "entry": ("Goes in by", ""),
    "tabs": ("Tabs on a rim", ""),
    "tab_width": ("Width of a tab", "mm"),
    "tab_height": ("Height of a tab", "mm"),
    "pierce": ("Pierces for", "s"),
    "pierce_height": ("Pierces at", "mm above"),
    "cut_height": ("Cuts at", "mm above"),
    "slow": ("Slows to", "%"),
    "slow_within": ("Slow near corners by", "mm"),
    "lead": ("Lead", ""),
    "direction": ("Goes round by", ""),
    "zero": ("Program zero", ""),
    "dry": ("Dry run, tool off", ""),
}
"""What each entry is called on the page, and what it is in."""

WORDS: Mapping[str, tuple[str, ...]] = {
    "process": get_args(Process),
    "entry": get_args(Entry),
    "lead": get_args(Lead),
    "direction": get_args(Direction),
    "zero": get_args(Zero),
}
"""What each word may be."""

WHOLE = frozenset({"passes", "tabs"})


@cache
def machines() -> Mapping[str, Machine]:
    """Return the profiles that ship with the application, by the names of their files."""
    return {key: read_machine(profile_of(key)) for key in get_args(Process)}


def profile_of(key: str) -> str:
    """Return the text of a profile that ships with the application."""
    return resources.files(__package__).joinpath("machines", f"{key}.json").read_text("utf-8")


def read_machine(text: str) -> Machine:
    """Read a profile.

    Raises
    ------
    ClauseError
        With the entry that is none, or is out of what it may be.
    """
    if len(text) > LONGEST:
        raise ClauseError(f"a machine's profile has at most {LONGEST} characters")
    try:
        said = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise ClauseError(f"this is no profile of a machine: {error}") from error
    if not isinstance(said, dict):
        raise ClauseError("this is no profile of a machine: it has no entries")
    known = {field.name: field for field in fields(Machine)}
    values: dict[str, object] = {}
    for key, value in said.items():
        name = "pass_depth" if key == "pass" else key
        if name not in known or key == "pass_depth":
            raise ClauseError(f"{key} is nothing that is set on a machine")
        values[name] = _checked(key, value)
    return Machine(**values)  # type: ignore[arg-type]


def _checked(key: str, value: object) -> object:
    if key in LIMITS:
        low, high = LIMITS[key]
        if isinstance(value, bool) or not isinstance(value, int | float):
            raise ClauseError(f"{key} is a number, not {value}")
        if not low <= value <= high:
            raise ClauseError(f"{key} is from {low:g} to {high:g}, not {value:g}")
        if key in WHOLE and value != int(value):
            raise ClauseError(f"{key} is a whole number, not {value:g}")
        return int(value) if key in WHOLE else float(value)
    if key in WORDS:
        if value not in WORDS[key]:
            raise ClauseError(f"{key} is one of {', '.join(WORDS[key])}, not {value}")
        return value
    if key == "dry":
        if not isinstance(value, bool):
            raise ClauseError("dry is true or false")
        return value
    if not isinstance(value, str) or not 0 < len(value) <= 80:
        raise ClauseError("a machine has a name of at most 80 letters")
    return value


LENGTHS = (
    "feed",
    "plunge",
    "safe",
    "thickness",
    "through",
    "pass_depth",
    "tab_width",
    "tab_height",
    "pierce_height",
    "cut_height",
    "slow_within",
)


def in_unit(machine: Machine, unit: Unit) -> Machine:
    """Return a machine with its lengths and feeds in a plan's unit."""
    by = float(unit.mm)
    return replace(machine, **{name: getattr(machine, name) / by for name in LENGTHS})
