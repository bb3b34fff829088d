"""Plans: work out, edit, complete, export; the vocabulary; pictures of settings. Keeps no state."""

from __future__ import annotations

from flask import Response, current_app

from ..demo import sample_profile
from .ask import asked
from .asked_for import tasks
from .documented import Routes
from .logbook import taught_now
from .problems import FILES, PROBLEMS
from .schemas.board import (
    AroundOut,
    InstrumentQuery,
    MeasuredIn,
    MethodsIn,
    MethodsOut,
    OpenedIn,
    OpenedOut,
    PictureQuery,
    RehearsalOut,
    SchedulesOut,
    VerdictOut,
)
from .schemas.crossing import PlanIn, ScheduledIn
from .schemas.files import CutIn, CutOut, ExportIn, ExportPath, ProfileIn, ReadBackOut, SampleProfileOut
from .schemas.inspection import ProofOut
from .schemas.plans import WorkIn, WorkOut
from .schemas.worksheets import WorksheetFileIn, WorksheetIn, WorksheetOut, WorksheetPath
from .schemas.writing import (
    BriefIn,
    BriefOut,
    ChoicesOut,
    CompleteIn,
    CompleteOut,
    KindsOut,
    LessonOut,
    RegionsIn,
    RegionsOut,
    SuggestOut,
)

plans = Routes("plans", __name__, url_prefix="/api", abp_responses=PROBLEMS)


@plans.get("/kinds", responses={200: KindsOut})
def vocabulary() -> Response:
    """Return every kind of construction with its clauses; cards and lists are built from this."""
    return asked(tasks.vocabulary)


@plans.post("/work", responses={200: WorkOut})
def work(body: WorkIn) -> Response:
    """Work a plan out, after an edit if one is given. The answer carries the edited text.

    A plan that asks for more than the desk gives to one comes back as text alone, with the reason in `trouble`.
    """
    return asked(tasks.work, body, otherwise=tasks.unworked)


@plans.post("/complete", responses={200: CompleteOut})
def completion(body: CompleteIn) -> Response:
    """Return what may follow a half-written row."""
    return asked(tasks.completion, body)


@plans.post("/lesson", responses={200: LessonOut})
def lesson(body: PlanIn) -> Response:
    """Return how far a plan has come in the first job, and what comes next."""
    return asked(tasks.lesson, body)


@plans.post("/proof", responses={200: ProofOut})
def proof(body: PlanIn) -> Response:
    """Inspect a plan: findings, junctions and measures."""
    return asked(tasks.proof, body)


@plans.post("/schedules", responses={200: SchedulesOut})
def schedules(body: ScheduledIn) -> Response:
    """Count what every order of work takes: settings, changes of instrument, minutes."""
    return asked(tasks.schedules, body, taught_now())


@plans.post("/rehearsal", responses={200: RehearsalOut})
def rehearsal(body: ScheduledIn) -> Response:
    """Draw a plan by many hands: how well its outline closes on paper."""
    return asked(tasks.rehearsal, body, taught_now())


@plans.post("/suggest", responses={200: SuggestOut})
def suggest(body: PlanIn) -> Response:
    """Suggest dimensions that define the outline."""
    return asked(tasks.suggest, body)


@plans.post("/regions", responses={200: RegionsOut})
def regions(body: RegionsIn) -> Response:
    """Return the boundary of the regions pointed at."""
    return asked(tasks.regions, body)


@plans.post("/opened", responses={200: OpenedOut})
def opened(body: OpenedIn) -> Response:
    """Open a step up into the classic construction behind it."""
    return asked(tasks.opened, body)


@plans.post("/methods", responses={200: MethodsOut})
def compared(body: MethodsIn) -> Response:
    """Construct a statement by each of its methods."""
    return asked(tasks.compared, body)


@plans.post("/worksheet", responses={200: WorksheetOut})
def worksheet(body: WorksheetIn) -> Response:
    """Return the worksheet of a statement, turned through an angle."""
    return asked(tasks.worksheet, body)


@plans.post("/worksheet/<string:format>", responses={200: FILES})
def worksheet_file(path: WorksheetPath, body: WorksheetFileIn) -> Response:
    """Return a worksheet as a file: diagram and profile on one page, or one of its tables."""
    return asked(tasks.worksheet_file, body, path.format)


@plans.post("/brief", responses={200: BriefOut})
def brief(body: BriefIn) -> Response:
    """Give a cam the events of a brief: sentences, or stations as CSV."""
    return asked(tasks.brief, body)


@plans.post("/around", responses={200: AroundOut})
def around(body: ScheduledIn) -> Response:
    """Return how the sheet is made ready and finished, and the mistakes usually made in between."""
    return asked(tasks.around, body)


@plans.post("/measured", responses={200: VerdictOut})
def measured(body: MeasuredIn) -> Response:
    """Judge a value measured back at the board, and name the slip it looks like."""
    return asked(tasks.measured, body)


@plans.post("/sheet-choices", responses={200: ChoicesOut})
def sheet_choices(body: PlanIn) -> Response:
    """Return the papers, borders and scales a plan may take, each scale with its reason."""
    return asked(tasks.sheet_choices, body)


@plans.post("/export/<string:format>", responses={200: FILES})
def export(path: ExportPath, body: ExportIn) -> Response:
    """Return a plan as a file."""
    if path.format == "entrick":
        return asked(tasks.export, body, path.format, otherwise=tasks.text_alone)
    return asked(tasks.export, body, path.format)


@plans.post("/read-back", responses={200: ReadBackOut})
def read_back(body: ProfileIn) -> Response:
    """Read a bare profile (DXF, SVG, CSV of points) back into a plan, and into the others it may as well be."""
    return asked(tasks.read_back_profile, body)


@plans.get("/read-back/sample", responses={200: SampleProfileOut})
def profile_to_try() -> Response:
    """Return a bare profile of the yard, to be read back."""
    name, text = sample_profile()
    told = SampleProfileOut(name=name, text=text)
    return current_app.response_class(told.model_dump_json(), mimetype="application/json")


@plans.post("/cut", responses={200: CutOut})
def cut(body: CutIn) -> Response:
    """Write the program of a cutter, cut it on a simulated one, and hold the part against the plan."""
    return asked(tasks.cut, body)


@plans.get("/pictures/instrument.svg", responses={200: FILES})
def instrument(query: InstrumentQuery) -> Response:
    """Return a picture of an item of a kit."""
    return asked(tasks.instrument, query)


@plans.get("/pictures/setting.svg", responses={200: FILES})
def picture(query: PictureQuery) -> Response:
    """Return a life-size picture of an instrument at its setting."""
    return asked(tasks.picture, query)
