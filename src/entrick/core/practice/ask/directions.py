"""At which angle a line is drawn, and how corners and stations lie to each other."""

from __future__ import annotations

import math
from collections.abc import Iterator
from random import Random

from ...geometry import Line as Straight
from ...measure import spell_angle
from ...solve import Entry
from ...tolerance import DIRECTION
from ..question import Question, Slip
from ..slips import ANGLES_NEAR, angles
from .context import Context

PLACE = 3
"""Where it stands among the others."""

RIGHT_ANGLE, TURN = 90.0, 360.0


def ask(at: Context, random: Random) -> Iterator[Question]:
    """Ask for angles nobody has written down: counted from the other side, between two sides of a
    polygon, from the first station to a further one."""
    for entry in at.work.solution.entries:
        made = entry.made
        if made is None:
            continue
        if entry.statement.kind == "line" and isinstance(made.shape, Straight):
            yield from _line(at, entry, made.shape)
        elif entry.statement.kind == "polygon":
            yield from _corner(at, entry)
        elif entry.statement.kind in ("cam", "rocker", "drum") and made.worksheet is not None:
            yield from _station(at, entry, random)


def _line(at: Context, entry: Entry, line: Straight) -> Iterator[Question]:
    """Ask at which angle a line that leans is drawn."""
    right = math.degrees(line.direction.angle) % 180
    leans = min(right % RIGHT_ANGLE, RIGHT_ANGLE - right % RIGHT_ANGLE)
    if leans < DIRECTION or not any(str(c).startswith("at ") for c in entry.statement.clauses):
        return
    own = [Slip("counted from plumb", 5, (right + RIGHT_ANGLE) % 180, "Counted from level it is")]
    asks = (
        f"{at.told(entry.line)} At how many degrees is {entry.statement.name} drawn, counted "
        "from level to the right, against the clock?"
    )
    working = f"180° − {spell_angle(180 - right)} = {spell_angle(right)}"
    yield _angle("leans", entry, asks, right, own, working)


def _corner(at: Context, entry: Entry) -> Iterator[Question]:
    """Ask for the angle between two sides of a regular polygon."""
    made = entry.made
    count = sum(key.startswith("corner.") for key in made.parts) if made else 0
    if count < 3:
        return
    turn = TURN / count
    own = [
        Slip("the turn for the corner", 6, turn, "That is how far one turns from side to side"),
        Slip("half the corner", 3, 90 - turn / 2, "That is from a side to the middle"),
    ]
    asks = f"{at.told(entry.line)} How many degrees lie between two neighbouring sides, inside?"
    working = f"360 ÷ {count} = {spell_angle(turn)}; 180 − {spell_angle(turn)} = " + spell_angle(
        180 - turn
    )
    yield _angle("corner", entry, asks, 180 - turn, own, working)


def _station(at: Context, entry: Entry, random: Random) -> Iterator[Question]:
    """Ask how far round a station of a cam lies."""
    tables = entry.made.worksheet(0.0).tables if entry.made and entry.made.worksheet else ()
    rows = next((table.rows for table in tables if table.title == "Stations"), ())
    turned = {str(row[0]): row[1] for row in rows if isinstance(row[1], float | int)}
    number = random.randrange(2, max(3, len(turned) - 1))
    right, each = float(turned.get(str(number), 0.0)), float(turned.get("1", 0.0))
    if not 0 < each < right:
        return
    own = [
        Slip("station out", 5, right - each, "Stations are counted from 0"),
        Slip("station out", 5, right + each, "Stations are counted from 0"),
        Slip("with the rotation", 3, TURN - right, "Stations run against the turning"),
    ]
    asks = (
        f"{at.told(entry.line)} How many degrees does the cam turn from station 0 to station "
        f"{number}?"
    )
    working = f"{number} × {spell_angle(each)} = {spell_angle(right)}"
    yield _angle(f"turned:{number}", entry, asks, right, own, working)


def _angle(
    key: str, entry: Entry, asks: str, right: float, own: list[Slip], working: str
) -> Question:
    rule = {"leans": "direction", "corner": "parts"}.get(key, "stations")
    return Question(
        f"{key}:{entry.line}",
        rule,
        asks,
        "angle",
        entry.line,
        right,
        0,
        "°",
        ANGLES_NEAR,
        slips=angles(right, own),
        working=tuple(working.split("; ")),
        hints=("All the way round is 360°, half of it 180°.",),
    )
