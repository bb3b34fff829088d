"""A cutter that is not here: it reads a program (ISO 6983) by itself, moves, and leaves what it has
cut.

It knows nothing of plans, nor of who wrote the program. Blocks are sent one at a time and answered;
a fault that is switched on happens at its block, is told, and one may go on after it."""

from __future__ import annotations

import math
import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field, replace
from typing import Literal

Place = tuple[float, float]

Fault = Literal["", "lost step", "late answer", "cut connection"]
"""What may go wrong: it stands a little beside where it thinks, its answer comes late, nothing is
answered any more."""

Process = Literal["plain", "router", "laser", "torch"]
"""What the machine is: a tool on and off, a spindle that goes down, a beam, a torch above the
sheet. Each does only what it has: a plain one has no height, a beam no depth."""

MOST_POWER = 1000
"""S of a beam at its most."""

FARTHEST = 1_000_000
"""Nothing a program says is larger, in its unit."""

LOST = 0.5
"""How far it stands aside after a lost step, mm."""

MOST_BLOCKS = 200_000
LONGEST_BLOCK = 256

_WORD = re.compile(r"([A-Z])\s*([+-]?(?:\d+\.?\d*|\.\d+))")
_RADIUS_OFF = 0.01
"""By how much both ends of an arc may differ in their distance from its centre, mm (as controls
do)."""


class CutterError(Exception):
    """Something the machine does not do; says at which block, and why."""

    def __init__(self, block: int, told: str) -> None:
        super().__init__(f"block {block}: {told}")
        self.block, self.told = block, told


@dataclass(frozen=True, slots=True)
class Move:
    """One movement in mm: straight, or round a centre (`turn` in radians, counter-clockwise more
    than nought); heights at both ends count up from the top of the sheet."""

    block: int
    start: Place
    end: Place
    cutting: bool
    feed: float
    centre: Place | None = None
    turn: float = 0.0
    heights: Place = (0.0, 0.0)
    rapid: bool = False

    @property
    def length(self) -> float:
        """How far it goes, mm."""
        up = self.heights[1] - self.heights[0]
        if self.centre is None:
            return math.hypot(math.dist(self.start, self.end), up)
        return math.hypot(math.dist(self.start, self.centre) * abs(self.turn), up)

    @property
    def minutes(self) -> float:
        """How long it takes."""
        return self.length / (RAPID if self.rapid else self.feed)

    def at(self, share: float) -> Place:
        """Return where the tool is after a share of the way."""
        if self.centre is None:
            return (
                self.start[0] + (self.end[0] - self.start[0]) * share,
                self.start[1] + (self.end[1] - self.start[1]) * share,
            )
        angle = (
            math.atan2(self.start[1] - self.centre[1], self.start[0] - self.centre[0])
            + self.turn * share
        )
        radius = math.dist(self.start, self.centre)
        return self.centre[0] + radius * math.cos(angle), self.centre[1] + radius * math.sin(angle)


ONE_PLACE = 1e-9
"""Turn below which both ends of an arc are one place, radians."""

RAPID = 6000.0
"""Speed without cutting, mm a minute."""


@dataclass
class Cutter:
    """The machine.

    Attributes
    ----------
    fault : str
        Switched on for one block.
    at_block : int
        Which one: it happens when that block is sent for the first time.
    process : str
    told : list of str
        What happened on the way.
    waited : float
        Minutes in which it stood and waited.
    """

    fault: Fault = ""
    at_block: int = 0
    process: Process = "plain"
    waited: float = 0.0
    is_open: bool = False
    told: list[str] = field(default_factory=list)
    moves: list[Move] = field(default_factory=list)
    _block: int = 0
    _place: Place = (0.0, 0.0)
    _mm: float | None = None
    _absolute: bool | None = None
    _motion: int | None = None
    _feed: float = 0.0
    _cutting: bool = False
    _ended: bool = False
    _answer: str = ""
    _aside: Place = (0.0, 0.0)
    _height: float = 0.0
    _speed: float = 0.0
    _pierced: bool = True
    _on_by: str = "M3"

    def open(self) -> None:
        """Get ready for a program; what was cut before stays where it is."""
        self.is_open = True

    def close(self) -> None:
        """Let go of the machine: the tool is off."""
        self.is_open, self._cutting = False, False

    def on_again(self) -> tuple[str, ...]:
        """Return the blocks that put the tool on as it was: a torch pierces anew."""
        return (self._on_by, "G4 P1") if self.process == "torch" else (self._on_by,)

    def send(self, block: str) -> None:
        """Send a block; `read` says what came of it."""
        if not self.is_open:
            raise CutterError(self._block, "the machine is not open")
        self._block += 1
        if self.fault and self._block == self.at_block:
            fault, self.fault = self.fault, ""
            if fault == "cut connection":
                self._block -= 1
                self.close()
                raise CutterError(
                    self._block + 1,
                    "the connection is cut; the tool is off. Connect again and go on",
                )
            if fault == "late answer":
                self._do(block)
                self._answer = ""
                return
            self._aside = (LOST, 0.0)
        self._do(block)
        self._answer = f"ok {self._block}"

    def read(self) -> str:
        """Return the answer to the last block: ``ok 12``, or nothing where it is late; asked again
        it is there."""
        answer, self._answer = self._answer, f"ok {self._block}"
        return answer

    def error(self) -> str:
        """Return what the machine finds wrong with where it stands: it measures against its own
        marks."""
        return (
            "a step was lost, it stood aside; the datum has to be found again"
            if self._aside[0]
            else ""
        )

    def home(self) -> None:
        """Find the datum again: it stands where it thinks it does from now on."""
        self._aside = (0.0, 0.0)

    @property
    def is_cutting(self) -> bool:
        """Whether the tool is on."""
        return self._cutting

    @property
    def block(self) -> int:
        """How many blocks it has had."""
        return self._block

    @property
    def ended(self) -> bool:
        """Whether the program has come to its end."""
        return self._ended

    def _do(self, block: str) -> None:
        if len(block) > LONGEST_BLOCK or self._block > MOST_BLOCKS:
            raise CutterError(self._block, "longer than this machine takes")
        text = re.sub(r"\([^)]*\)", " ", block).strip().upper()
        if text in ("", "%") or text.startswith("O"):
            return
        words = _WORD.findall(text)
        if "".join(f"{letter}{number}" for letter, number in words) != re.sub(r"\s+", "", text):
            raise CutterError(self._block, f"{block.strip()} cannot be read")
        if self._ended:
            raise CutterError(self._block, "the program has ended already")
        if any(abs(float(number)) > FARTHEST for _, number in words):
            raise CutterError(self._block, f"{block.strip()}: farther than any machine goes")
        self._obey([(letter, float(number)) for letter, number in words])

    def _obey(self, words: Sequence[tuple[str, float]]) -> None:
        said: dict[str, float] = {}
        moves = waits = False
        puts_on = ""
        for letter, number in words:
            match letter, number:
                case "G", 4:
                    waits = True
                case "G", _:
                    self._prepare(number)
                case "P", _ if waits:
                    self.waited += number / 60
                    self._pierced = self._pierced or number > 0
                case "S", _:
                    self._speed = number
                case "M", 3:
                    puts_on = "M3"
                case "M", 4 if self.process == "laser":
                    puts_on = "M4"
                case "M", 2 | 5 | 30:
                    self._cutting, self._ended = False, number != 5
                case "F", _:
                    self._feed = number * self._need_units()
                case "N", _:
                    pass
                case "Z", _ if self.process in ("router", "torch"):
                    said[letter] = number
                    moves = True
                case (("X" | "Y" | "I" | "J" | "R"), _):
                    said[letter] = number
                    moves = True
                case _:
                    raise CutterError(
                        self._block, f"{letter}{number:g} is nothing this machine does"
                    )
        if puts_on:
            self._put_on(puts_on)
        if moves:
            self._move(said)

    def _prepare(self, number: float) -> None:
        """Take a preparatory word: units, absolute or not, how it moves from now on."""
        match number:
            case 20 | 21:
                self._mm = 25.4 if number == 20 else 1.0
            case 90 | 91:
                self._absolute = number == 90
            case 17 | 94 | 40:
                pass
            case 0 | 1 | 2 | 3:
                self._motion = int(number)
            case _:
                raise CutterError(self._block, f"G{number:g} is nothing this machine does")

    def _put_on(self, word: str) -> None:
        """Put the tool on, where the process allows it."""
        self._need_units()
        if self.process in ("router", "laser") and self._speed <= 0:
            raise CutterError(self._block, "no speed or power is said (S)")
        if self.process == "laser" and self._speed > MOST_POWER:
            raise CutterError(self._block, f"S{self._speed:g}: a beam has S{MOST_POWER} at most")
        self._cutting, self._pierced = True, self.process != "torch"
        self._on_by = f"{word} S{self._speed:g}" if self._speed else word

    def _need_units(self) -> float:
        if self._mm is None:
            raise CutterError(self._block, "no units are said (G20 or G21)")
        return self._mm

    def _move(self, said: dict[str, float]) -> None:
        mm = self._need_units()
        if self._absolute is None or self._motion is None:
            raise CutterError(self._block, "neither G90 nor G91, or no motion, is said")
        base = (0.0, 0.0) if self._absolute else self._place
        x = base[0] + said["X"] * mm if "X" in said else self._place[0]
        y = base[1] + said["Y"] * mm if "Y" in said else self._place[1]
        height = self._height
        if "Z" in said:
            height = (0.0 if self._absolute else self._height) + said["Z"] * mm
        low = min(height, self._height)
        # A spindle runs on over the sheet; what goes into it is told by its height.
        goes_in = low < 0 if self.process == "router" else self._cutting
        self._check(goes_in, low, (x, y) != self._place, height > self._height)
        if self._motion in (1, 2, 3) and self._feed <= 0:
            raise CutterError(self._block, "no feed is said (F)")
        start, self._place = self._place, (x, y)
        centre, turn = None, 0.0
        if self._motion in (2, 3):
            centre, turn = self._round(start, (x, y), said, mm)
        shift = self._aside
        moved = [(p[0] + shift[0], p[1] + shift[1]) for p in (start, (x, y), centre or (0.0, 0.0))]
        self.moves.append(
            Move(
                self._block,
                moved[0],
                moved[1],
                goes_in and self._cutting and self._motion != 0,
                self._feed,
                moved[2] if centre else None,
                turn,
                (self._height, height),
                self._motion == 0,
            )
        )
        self._height = height

    def _check(self, goes_in: bool, low: float, moves: bool, rises: bool) -> None:
        """Refuse what would spoil the sheet or the machine; straight up it may always go."""
        lifts_off = self.process == "router" and rises and not moves
        if self._motion == 0 and goes_in and not lifts_off:
            message = "in the sheet" if self.process == "router" else "with the tool on"
            raise CutterError(self._block, f"a rapid move {message}")
        if self.process == "router" and goes_in and not self._cutting:
            raise CutterError(self._block, "into the sheet with the spindle standing")
        if self.process == "torch" and low <= 0 < self._height:
            raise CutterError(self._block, "the torch would come down on the sheet")
        if self.process == "torch" and self._cutting and moves and not self._pierced:
            raise CutterError(self._block, "it moves before the sheet is pierced (G4)")

    def _round(
        self, start: Place, end: Place, said: dict[str, float], mm: float
    ) -> tuple[Place, float]:
        """Return the centre of an arc and its turn, from I and J (from its beginning), or from
        R."""
        clockwise = self._motion == 2
        if "R" in said:
            radius, apart = said["R"] * mm, math.dist(start, end)
            if apart == 0 or apart > 2 * abs(radius) + _RADIUS_OFF:
                raise CutterError(
                    self._block, "no such arc: its ends lie too far apart for its radius"
                )
            high = math.sqrt(max(0.0, radius * radius - apart * apart / 4))
            side = -1 if clockwise == (radius > 0) else 1
            mx, my = (start[0] + end[0]) / 2, (start[1] + end[1]) / 2
            centre = (
                mx - side * high * (end[1] - start[1]) / apart,
                my + side * high * (end[0] - start[0]) / apart,
            )
        else:
            if "I" not in said and "J" not in said:
                raise CutterError(self._block, "an arc without I, J or R")
            centre = (start[0] + said.get("I", 0.0) * mm, start[1] + said.get("J", 0.0) * mm)
            if abs(math.dist(start, centre) - math.dist(end, centre)) > _RADIUS_OFF:
                raise CutterError(
                    self._block, "both ends of the arc are not as far from its centre"
                )
        begin = math.atan2(start[1] - centre[1], start[0] - centre[0])
        stop = math.atan2(end[1] - centre[1], end[0] - centre[0])
        turn = (begin - stop if clockwise else stop - begin) % math.tau
        # Beginning and end in one place are once round.
        turn = turn if turn > ONE_PLACE else math.tau
        return centre, -turn if clockwise else turn


def tool_of(program: str) -> float | None:
    """Return how wide a program says it cuts, in its unit; None where it does not say."""
    found = re.search(r"TOOL\s+([0-9]{1,6}(?:\.[0-9]{0,9})?)", program)
    return float(found[1]) if found else None


def process_of(program: str) -> Process:
    """Return the process a program says it is for; plain where it does not say."""
    found = re.search(r"\((PLAIN|ROUTER|LASER|TORCH):", program)
    return found[1].lower() if found else "plain"  # type: ignore[return-value]


def zero_of(program: str) -> Place:
    """Return how far a program says its zero lies from the plan's datum, in its unit."""
    number = r"(-?[0-9]{1,7}(?:\.[0-9]{0,9})?)"
    found = re.search(rf"PROGRAM ZERO X{number} Y{number} FROM THE DATUM", program)
    return (float(found[1]), float(found[2])) if found else (0.0, 0.0)


def from_datum(moves: Sequence[Move], zero: Place) -> list[Move]:
    """Return movements as they lie about the plan's datum, whose distance to the program's zero is
    given in mm."""

    def there(spot: Place) -> Place:
        return spot[0] + zero[0], spot[1] + zero[1]

    return [
        replace(
            move,
            start=there(move.start),
            end=there(move.end),
            centre=there(move.centre) if move.centre else None,
        )
        for move in moves
    ]


def blocks(program: str) -> Iterator[str]:
    """Yield the blocks of a program."""
    yield from (row for row in program.replace("\r\n", "\n").split("\n") if row.strip())


WAITS = 3
"""How often an answer that is late is asked for."""


def run(program: str, cutter: Cutter | None = None) -> Cutter:
    """Run a whole program, and go on after a fault: a late answer is asked for again; where the
    connection was cut the machine is connected, the tool put on again where it was, and the block
    sent once more; after a lost step the datum is found again and the block repeated. What happened
    stands in `cutter.told`.

    Raises
    ------
    CutterError
        Where the machine does not do what a block says.
    """
    machine = cutter or Cutter()
    machine.open()
    for block in blocks(program):
        was_cutting = machine.is_cutting
        try:
            machine.send(block)
        except CutterError as error:
            if machine.is_open:
                raise
            machine.told.append(str(error))
            machine.open()
            if was_cutting:
                for again in machine.on_again():
                    machine.send(again)
            machine.send(block)
        for _ in range(WAITS):
            if machine.read():
                break
            machine.told.append(f"block {machine.block}: the answer came late, and was waited for")
        if machine.error():
            machine.told.append(f"block {machine.block}: {machine.error()}")
            machine.home()
    machine.close()
    return machine
