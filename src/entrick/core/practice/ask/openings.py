"""What an instrument that is shown is set to."""

from __future__ import annotations

from collections.abc import Iterator
from random import Random

from ..question import Question, Slip
from .context import _RULE_HINTS, Context

PLACE = 12
"""Where it stands among the others; those drawn by lot come last."""


def ask(at: Context, random: Random) -> Iterator[Question]:
    """Ask what the compass is opened to for a station of a cam."""
    for entry in at.work.solution.entries:
        made = entry.made
        if made is None or made.worksheet is None:
            continue
        table = next((t for t in made.worksheet(0.0).tables if t.title == "Stations"), None)
        where = (
            [n for n, column in enumerate(table.columns) if column.name.startswith("opening")]
            if table
            else []
        )
        if table is None or not where:
            continue
        rows = [
            (str(row[0]), float(row[2]), float(row[where[0]]))
            for row in table.rows
            if isinstance(row[2], float | int) and isinstance(row[where[0]], float | int)
        ]
        lifted = [n for n in range(1, len(rows) - 1) if rows[n][1] > 0]
        greatest = max((lift for _, lift, _ in rows), default=0.0)
        for n in sorted(random.sample(lifted, k=min(2, len(lifted)))):
            name, lift, opening = rows[n]
            right, drawn = at.rule.drawn(opening), at.rule.drawn
            own = [
                Slip(
                    "with the rotation",
                    6,
                    drawn(rows[-1 - n][2]),
                    "Stations run against the turning",
                ),
                Slip(
                    "least distance forgotten", 5, drawn(lift), "Lift starts at the least distance"
                ),
                Slip("station out", 4, drawn(rows[n - 1][2]), "Count the stations from 0"),
                Slip("station out", 4, drawn(rows[n + 1][2]), "Count the stations from 0"),
                Slip(
                    "lift upside down",
                    4,
                    drawn(rows[0][2] + greatest - lift),
                    "Measure from the base line",
                ),
            ]
            slips = at.rule.lengths(right, own)
            if not {slip.key for slip in own} & {slip.key for slip in slips}:
                continue
            asks = (
                f"{at.told(entry.line)} The sheet is at {at.work.sheet.scale}. What is the compass "
                "opened to from the "
                f"centre, {table.columns[where[0]].name.removeprefix('opening ')}, for station "
                f"{name}?"
            )
            yield Question(
                f"opening:{entry.line}:{name}",
                "stations",
                asks,
                "length",
                entry.line,
                right,
                0,
                at.work.kit.unit.value,
                at.rule.near,
                slips=slips,
                working=made.working,
                hints=(
                    _RULE_HINTS["stations"],
                    f"The lift there is {at.rule.say(drawn(lift))}",
                ),
                setting="compass",
            )
