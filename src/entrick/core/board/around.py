"""What is done before the first statement and after the last: the sheet is made ready, lettered and
cleaned, as acts.

Common practice, no source. They leave nothing that a construction stands on.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from fractions import Fraction

from ..acts.act import Act, Finish
from ..drawing.strokes import Tool
from ..measure import Scale
from ..sheet import Sheet
from ..sheet.layout import STRIP
from ..solve import Solution
from .kit import Kit
from .step import Step
from .steps import BoardStep, length_setting

GUIDES = (5.0, 3.5)
"""Guide lines of a title strip: capitals this high, mm, in its first row and in the others."""


def preparation(sheet: Sheet) -> tuple[Act, ...]:
    """Return how a sheet is made ready: fixed, bordered, its strip and guide lines drawn; sizes are
    mm on paper."""
    return tuple(_before(sheet))


def completion(solution: Solution, sheet: Sheet) -> tuple[Act, ...]:
    """Return how a sheet is finished: its strip lettered, and the construction rubbed out where the
    sheet says so."""
    return tuple(_after(solution, sheet))


def _before(sheet: Sheet) -> Iterator[Act]:
    yield Finish(
        verb="fix",
        told=f"Lay the sheet ({sheet.name}) on the board with its upper edge along the T-square, "
        "and fix its corners",
        check="slide the T-square down: the lower edge lies along it too",
    )
    if sheet.ground:
        yield Finish(
            verb="fix",
            told=f"The paper is ruled in {sheet.ground}: lay a ruling along the T-square",
        )
    if sheet.left != sheet.border:
        yield Finish(
            verb="border",
            told="From the left edge measure the filing border and draw it plumb",
            size=_exact(sheet.left),
        )
        rest = "From the other three edges"
    else:
        rest = "From every edge"
    if sheet.border > 0:
        yield Finish(
            verb="border",
            told=f"{rest} measure the border, and draw it level and plumb",
            size=_exact(sheet.border),
        )
    edge, way = ("upper", "downwards") if sheet.strip_on_top else ("lower", "upwards")
    yield Finish(
        verb="border",
        told=f"From the {edge} border measure the title strip {way} and draw it level",
        size=_exact(sheet.strip),
    )
    rows = GUIDES[:1] if sheet.strip <= STRIP else GUIDES
    sizes = " and ".join(f"{size:g} mm" for size in rows)
    yield Finish(
        verb="letter",
        told=f"Draw guide lines for capitals of {sizes} in the strip, as light as can be seen",
    )


def _after(solution: Solution, sheet: Sheet) -> Iterator[Act]:
    if sheet.rubbed_out:
        yield Finish(
            verb="rub out",
            told="Rub out the light lines of the construction, under a shield where they run "
            "close to the outline",
            check="what was lined in has not become lighter",
        )
    said = [text for text in (solution.title, solution.drawing) if text]
    what = (
        f": {', '.join(said)}, the scale, the units"
        if said
        else " with title, number, scale and units"
    )
    yield Finish(verb="letter", told=f"Letter the title strip between its guide lines{what}")
    kept = (
        "the guide lines stay"
        if not sheet.rubbed_out
        else "the guide lines may go with the construction"
    )
    yield Finish(
        verb="letter",
        told="Brush the sheet clean, take it off the board, and look along every join",
        check=kept,
    )


def _exact(mm: float) -> Fraction:
    return Fraction(mm).limit_denominator(1000)


TOOLS = {
    "fix": Tool.STRAIGHTEDGE,
    "border": Tool.RULE,
    "letter": Tool.PENCIL,
    "rub out": Tool.PENCIL,
}


def told(acts: Sequence[Act], kit: Kit, sheet: Sheet) -> tuple[BoardStep, ...]:
    """Return the steps of such acts, numbered from 1, on line 0: sizes are set at full size,
    whatever the scale."""
    result = []
    for number, act in enumerate(acts, 1):
        assert isinstance(act, Finish)
        setting = None
        if act.size is not None:
            setting = length_setting(Fraction(act.size) / sheet.unit.mm, kit, Scale(), sheet.unit)
        tool = {"fix": "T-square", "rub out": "eraser and shield"}.get(
            act.verb, str(TOOLS[act.verb])
        )
        step = Step(TOOLS[act.verb], act.told, act.size, None, act.strokes, act.check, act)
        result.append(BoardStep(number, 0, "", tool, act.told, setting, None, (), act.check, step))
    return tuple(result)
