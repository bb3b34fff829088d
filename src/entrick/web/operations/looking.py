"""Pictures of finished sheets looked at."""

from __future__ import annotations

import base64
from typing import Annotated, Literal

from pydantic import Field

from ...core.classroom.sets import own_variant
from ...core.desk import work_out
from ...core.formats.looked import marks_table
from ...core.look.finding import Finding, Slipped
from ...core.look.places import PlacesError, look_at_places, read_taken
from ...core.look.scheme import Marked, Scheme, marked
from ...records import Schedule
from ..answer import Answer, Refused
from ..base import Asked, Crossing, KitText, PlanText, Seed
from ..operation import Operations
from .shared import as_file, kit_of

Points = Annotated[float, Field(ge=0, le=1000, allow_inf_nan=False)]


class SchemeIn(Asked):
    """How many marks there are for what."""

    accuracy: Points = 10
    tangency: Points = 4
    weight: Points = 2
    completeness: Points = 3
    centring: Points = 1


class LookIn(Asked):
    """A plan, and a picture of its finished sheet (PNG, JPEG, TIFF, or a PDF that holds one) as
    base64; `tolerance` in mm on paper. Where it is the sheet of a student of a class set, the plan
    has the givens of that student."""

    text: PlanText
    kit: KitText = ""
    schedule: Schedule = "written"
    picture: Annotated[str, Field(max_length=56 * 2**20)]
    tolerance: Annotated[float, Field(gt=0, le=50, allow_inf_nan=False)] = 0.5
    scheme: SchemeIn = SchemeIn()
    student: Annotated[int, Field(ge=1, le=2000)] | None = None
    seed: Seed = 1


Spots = tuple[tuple[float, float], ...]


class SizedOut(Crossing):
    """A size as given and as drawn, in the plan's unit; `u` is what the measuring may be off, and
    `paper` how far the line is off, mm on paper."""

    what: str
    given: float
    drawn: float
    u: float
    paper: float


class SheetRowOut(Crossing):
    """A piece on the sheet; `place` is how far it is from its place, mm on paper, and `place_u`
    what that may be off; `step` lines it in, with a `tool`. Paths are in mm on paper, down from the
    top of the sheet."""

    name: str
    size: SizedOut | None
    place: float
    place_u: float
    judged: Literal["within", "unsure", "off", "missing"]
    told: str
    seen: float
    carried: bool
    step: int
    tool: str
    path: Spots
    planned: Spots


class SlippedOut(Crossing):
    """A slip that explains the sheet, with the step it was made at."""

    key: str
    said: str
    step: int
    act: str


class MarkedOut(Crossing):
    """Marks for a sheet, part by part."""

    accuracy: float
    tangency: float
    weight: float
    completeness: float
    centring: float
    whole: float
    most: float


class LookedOut(Crossing):
    """A sheet looked at. `picture` is the straightened picture as the address of an image, `width`
    and `height` are mm."""

    sentence: str
    notes: tuple[str, ...]
    rows: tuple[SheetRowOut, ...]
    slips: tuple[SlippedOut, ...]
    second: tuple[SlippedOut, ...]
    within: bool
    doubt: str
    unit: str
    picture: str
    width: float
    height: float
    marks: MarkedOut


class SampleIn(Asked):
    """A plan to be drawn by a simulated hand: without a slip, with one, or photographed with
    one."""

    text: PlanText
    kit: KitText = ""
    which: Literal["sound", "slipped", "photographed"] = "sound"


class SampleOut(Crossing):
    """A picture of a sheet: its name, and what is in it as base64."""

    name: str
    picture: str


class StudentIn(Asked):
    """The marks of one student, and what was said."""

    student: Annotated[str, Field(max_length=200)]
    marks: SchemeIn | None
    said: Annotated[str, Field(max_length=1000)]


class ClassIn(Asked):
    """The marks of a class."""

    students: Annotated[tuple[StudentIn, ...], Field(max_length=400)]


looking = Operations()


@looking.post("/look")
def look_at_sheet(body: LookIn) -> LookedOut:
    """Look at a picture of a finished sheet: what is off, by how much, and which act slipped."""
    # OpenCV is loaded by whoever looks at a picture, and by nobody else.
    from ...pictures.look import look_at_picture, shown
    from ...pictures.read import PictureError

    own = own_variant(body.text, body.student, body.seed) if body.student else None
    work = own or work_out(body.text, kit_of(body.kit), body.schedule)
    try:
        looked = look_at_picture(work, _unpacked(body.picture), body.tolerance)
    except PictureError as error:
        raise Refused(409, "No sheet to look at", str(error)) from error
    finding, sheet = looked.finding, work.sheet
    scheme = Scheme(**body.scheme.model_dump())

    def on_paper(path: Spots, shift: tuple[float, float] = (0.0, 0.0)) -> Spots:
        return tuple(
            (
                round(sheet.origin.x + shift[0] + x * sheet.factor, 2),
                round(sheet.height - sheet.origin.y - shift[1] - y * sheet.factor, 2),
            )
            for x, y in path
        )

    rows = tuple(
        SheetRowOut.from_core(
            row, path=on_paper(row.path, finding.shift), planned=on_paper(row.planned)
        )
        for row in finding.rows
    )
    return LookedOut(
        sentence=finding.sentence,
        notes=finding.notes,
        rows=rows,
        slips=_slips(finding.slips),
        second=_slips(finding.second),
        within=finding.is_within,
        doubt=finding.doubt,
        unit=work.solution.unit.value,
        picture=shown(looked.straight),
        width=sheet.width,
        height=sheet.height,
        marks=_marks(finding, scheme),
    )


def _unpacked(picture: str) -> bytes:
    try:
        return base64.b64decode(picture, validate=True)
    except ValueError as error:
        message = "the picture did not arrive whole; choose it again"
        raise Refused(409, "No sheet to look at", message) from error


def _slips(slips: tuple[Slipped, ...]) -> tuple[SlippedOut, ...]:
    return tuple(map(SlippedOut.from_core, slips))


def _marks(finding: Finding, scheme: Scheme) -> MarkedOut:
    return MarkedOut.from_core(marked(finding, scheme), most=scheme.whole)


class PlacesIn(Asked):
    """A plan, and a table of what was measured on its finished sheet: ``x,y,piece`` as a digitiser
    sends it (mm from the lower left corner of the sheet), or ``piece,size``."""

    text: PlanText
    kit: KitText = ""
    schedule: Schedule = "written"
    table: Annotated[str, Field(max_length=200_000)]


class PieceOffOut(Crossing):
    """How far a piece that was measured is off at most, mm on paper."""

    name: str
    off: float


class PlacesOut(Crossing):
    """What measured places say."""

    sentence: str
    slips: tuple[SlippedOut, ...]
    fits: bool
    off: tuple[PieceOffOut, ...]


@looking.post("/look/places")
def look_at_measured(body: PlacesIn) -> PlacesOut:
    """Look at measured places or sizes of a finished sheet: which act slipped."""
    work = work_out(body.text, kit_of(body.kit), body.schedule)
    try:
        found = look_at_places(work, read_taken(body.table))
    except PlacesError as error:
        raise Refused(409, "Nothing measured", str(error)) from error
    steps = {step.number: step.text for step in work.steps}
    slips = tuple(
        SlippedOut(
            key=each.slip.key, said=each.slip.said, step=each.step, act=steps.get(each.step, "")
        )
        for each in found.slips
    )
    off = tuple(PieceOffOut(name=name, off=off) for name, off in found.off)
    return PlacesOut(sentence=found.sentence, slips=slips, fits=found.fits, off=off)


@looking.post("/look/sample")
def sample_sheet(body: SampleIn) -> SampleOut:
    """Have a simulated hand draw a plan, and a simulated scanner or camera take its picture."""
    from ...core.look.by_hand import drawn_by_hand
    from ...core.look.which import hypotheses
    from ...devices.scanner import photograph, scan

    work = work_out(body.text, kit_of(body.kit))
    slips = hypotheses(work).slips if body.which != "sound" else ()
    if not work.outlines:
        raise Refused(409, "Nothing to draw", "nothing is lined in on this plan")
    seed = len(body.text) + len(body.which)
    chosen = slips[seed % min(len(slips), HEAVIEST) :][:1] if slips else ()
    sheet = drawn_by_hand(work, seed, chosen)
    photo = body.which == "photographed"
    content = photograph(sheet, seed=seed) if photo else scan(sheet, dpi=200, seed=seed)
    ending = "jpg" if photo else "png"
    return SampleOut(
        name=f"{body.which}.{ending}", picture=base64.b64encode(content).decode("ascii")
    )


HEAVIEST = 40
"""Slips of a plan, the heaviest first, of which one is made for show."""


@looking.post("/look/marks.csv")
def marks_of_class(body: ClassIn) -> Answer:
    """Write the marks of a class as a table."""
    rows = (
        (each.student, Marked(**each.marks.model_dump()) if each.marks else None, each.said)
        for each in body.students
    )
    return as_file(marks_table(rows), "marks", "csv")
