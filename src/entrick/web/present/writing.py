"""From the core's results to what crosses the API: help while a plan is written."""

from __future__ import annotations

from collections.abc import Sequence

from ...core.assist.regions import region_at
from ...core.desk import Work
from ...core.display import draw_curves
from ...core.geometry import Point
from ...core.kind import Kind
from ...core.measure import Unit
from ...core.plan.forms import Slot
from ...core.sheet.choose import borders, letterings, papers, recommended, scales, taken
from ..schemas.writing import ChoiceOut, ChoicesOut, FormOut, KindOut, RegionsOut, SlotOut


def regions(done: Work, spots: Sequence[tuple[float, float]], kind: str) -> RegionsOut:
    """Present the boundary of the regions that places on paper lie in."""
    sheet = done.sheet
    found = region_at(done.solution, [sheet.on_plan(Point(x, y)) for x, y in spots], kind)
    marks = draw_curves([piece.curve for loop in found.loops for piece in loop.pieces], sheet)
    return RegionsOut(statements=found.statements, marks=tuple(marks))


def choices(done: Work) -> ChoicesOut:
    """Present what the sheet may be."""
    said = done.solution.sheet
    ratios = scales(done.solution, done.sheet)
    best = recommended(ratios)
    return ChoicesOut(
        units=tuple(unit.value for unit in Unit),
        papers=tuple(ChoiceOut.model_validate(choice) for choice in taken(said, papers(done.solution.unit))),
        borders=tuple(ChoiceOut.model_validate(choice) for choice in taken(said, borders())),
        letterings=tuple(ChoiceOut.model_validate(c) for c in taken(said, letterings(), "dimensions aligned")),
        scales=tuple(ChoiceOut.model_validate(choice) for choice in ratios),
        recommended=best.name if best else "",
    )


def kind(declared: Kind) -> KindOut:
    """Present a kind with the clauses it declares."""
    return KindOut(
        name=declared.name,
        group=declared.group,
        summary=declared.summary,
        example=declared.example,
        mistake=declared.mistake,
        by_clicking=declared.by_clicking,
        lines_in=str(declared.lines_in or ""),
        follows=declared.follows,
        forms=tuple(
            FormOut(
                key=form.key,
                pattern=form.pattern,
                example=form.example,
                needed=form.needed,
                most=form.most,
                choice=form.choice,
                parts=tuple(
                    SlotOut.model_validate(part) if isinstance(part, Slot) else part.text for part in form.parts
                ),
            )
            for form in declared.forms
        ),
    )
