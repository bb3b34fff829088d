"""Does the view fit the sheet, at a scale the trade uses, with every needle point on the board?"""

from __future__ import annotations

from collections.abc import Iterator

from ..geometry import Point
from ..measure import spell
from ..tolerance import PAPER
from .finding import Checked, Finding


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report a view that leaves the space, an unusual scale, and centres off the paper or under the
    title strip."""
    sheet = checked.sheet
    if not checked.solution.entries:
        return
    low, high = sheet.space
    over = {
        "left": low.x - sheet.view[0].x,
        "right": sheet.view[1].x - high.x,
        "bottom": low.y - sheet.view[0].y,
        "top": sheet.view[1].y - high.y,
    }
    worst = {side: amount for side, amount in over.items() if amount > PAPER}
    mm = float(sheet.unit.mm)
    if worst:
        told = ", ".join(
            f"{spell(amount / mm, sheet.unit, 2)} {sheet.unit} at the {side}"
            for side, amount in worst.items()
        )
        middle = (sheet.view[0] + sheet.view[1]) * 0.5
        yield Finding(
            "wrong",
            "fit",
            f"the view does not fit the sheet: over by {told}; take a smaller scale",
            0,
            middle,
        )
    else:
        for told in sheet.working:
            yield Finding("good", "fit", told)
    if not sheet.scale.is_recommended:
        yield Finding(
            "note",
            "scale",
            f"{sheet.scale} is not one of the recommended scales 1:2, 1:5, 1:10, 2:1, 5:1, 10:1",
        )
    seen = set[Point]()
    for step in checked.steps:
        if step.needle is None or step.needle in seen:
            continue
        seen.add(step.needle)
        place = sheet.on_paper(step.needle)
        if not (0 <= place.x <= sheet.width and 0 <= place.y <= sheet.height):
            told = (
                f"the needle of step {step.number} ({step.name}) stands off the paper: fix a "
                "slip beside the sheet"
            )
            yield Finding("note", "fit", told, step.line)
        elif _in_strip(checked, place):
            told = (
                f"the needle of step {step.number} ({step.name}) stands where the title strip "
                "will: draw that last"
            )
            yield Finding("note", "fit", told, step.line, place)


def _in_strip(checked: Checked, place: Point) -> bool:
    """Tell whether a place lies where the title strip will be, inside the border: light work is not
    shown there."""
    sheet = checked.sheet
    low, high = sheet.space
    inside = sheet.left < place.x < sheet.width - sheet.border
    if sheet.strip_on_top:
        return inside and high.y + PAPER < place.y < high.y + sheet.strip
    return inside and low.y - sheet.strip < place.y < low.y - PAPER
