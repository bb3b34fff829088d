"""The order of work: what it takes, rehearsal, a step opened up, values measured back, pictures of settings."""

from __future__ import annotations

from fractions import Fraction

from ...core import formats
from ...core.board.kits import read_kit
from ...core.board.lacks import lacks
from ...core.board.steps import BoardStep
from ...core.desk import work_out
from ...core.display.instruments import instrument_picture
from ...core.display.picture import angle_picture, compass_over_rule, template_picture
from ...core.logbook.measured import judge, read_value
from ...core.logbook.taught import Taught
from ...core.measure import Unit
from ..answer import Answer, Refused
from ..present import board as present
from ..schemas.board import InstrumentQuery, MeasuredIn, MethodsIn, OpenedIn, PictureQuery, VerdictOut
from ..schemas.crossing import ScheduledIn
from ..schemas.kits import LackOut, LacksIn, LacksOut
from .answers import as_json, kit_of


def schedules(body: ScheduledIn, taught: Taught) -> Answer:
    """Count what every order of work takes."""
    return as_json(present.schedules(work_out(body.text, kit_of(body.kit)), taught))


def rehearsal(body: ScheduledIn, taught: Taught) -> Answer:
    """Draw a plan by many hands."""
    return as_json(present.rehearsal(work_out(body.text, kit_of(body.kit)), taught))


def opened(body: OpenedIn) -> Answer:
    """Open a step up into the classic construction behind it."""
    return as_json(present.opened(work_out(body.text, kit_of(body.kit), body.schedule), body.step))


def compared(body: MethodsIn) -> Answer:
    """Construct a statement by each of its methods."""
    return as_json(present.compared(work_out(body.text), body.line))


def lacking(body: LacksIn) -> Answer:
    """Return what a kit lacks for a job."""
    kit = read_kit(body.kit)
    done = work_out(body.text, kit)
    found = lacks(done.solution, done.sheet, kit)
    return as_json(LacksOut(lacks=tuple(LackOut.model_validate(lack) for lack in found)))


def around(body: ScheduledIn) -> Answer:
    """Return how the sheet is made ready and finished, and what is usually done wrong in each statement."""
    return as_json(present.around(work_out(body.text, kit_of(body.kit), body.schedule)))


def measured(body: MeasuredIn) -> Answer:
    """Judge a value measured back at the board."""
    done = work_out(body.text, kit_of(body.kit), body.schedule)
    step = next((step for step in (*done.before, *done.steps) if _is_step(step, body)), None)
    if step is None:
        raise Refused(409, "No such step", f"the order of work has no step {body.step}")
    value = read_value(body.value, Unit.MM if step.setting and step.setting.is_angle else done.kit.unit)
    found = judge(value, step, done.steps, done.kit, done.sheet.scale, done.solution.unit)
    per = 1.0 if step.setting and step.setting.is_angle else float(done.kit.unit.mm)
    return as_json(VerdictOut(judged=found.judged, off=found.off * per, told=found.told, slips=found.slips))


def _is_step(step: BoardStep, body: MeasuredIn) -> bool:
    return step.number == body.step and (step.line == 0) == body.ready


def picture(query: PictureQuery) -> Answer:
    """Return a life-size picture of an instrument at its setting."""
    if query.unit == "deg":
        drawing = angle_picture(query.value, query.tool)
    else:
        unit, graduation = Unit(query.unit), Fraction(query.graduation)
        if query.tool == "circle template":
            drawing = template_picture(query.value, unit)
        else:
            drawing = compass_over_rule(query.value, unit, graduation, query.tool)
    shown = formats.write_svg(drawing).encode()
    return Answer(shown, "image/svg+xml", {"Cache-Control": "private, max-age=86400"})


def instrument(query: InstrumentQuery) -> Answer:
    """Return a picture of an item of a kit."""
    try:
        drawing = instrument_picture(query.item)
    except KeyError:
        raise Refused(404, "No such item", f"a kit has no {query.item}") from None
    shown = formats.write_svg(drawing).encode()
    return Answer(shown, "image/svg+xml", {"Cache-Control": "private, max-age=86400"})
