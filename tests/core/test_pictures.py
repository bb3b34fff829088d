"""Pictures of finished sheets: straightened, measured and told, whoever made them and whatever spoils them; what is
no picture of the sheet is refused with what to do."""

import io
import math
from collections import defaultdict
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import cache

import cv2
import numpy as np
import pypdfium2
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from PIL import Image
from reportlab.pdfgen.canvas import Canvas
from scipy.ndimage import gaussian_filter1d
from shapely import LineString, distance, points

import parts
from desk import HEAD
from entrick.core.desk import Work, work_out
from entrick.core.formats.pdf import write_pdf
from entrick.core.look.among import Among
from entrick.core.look.by_hand import DrawnSheet, Stroke, drawn_by_hand, stroke_of
from entrick.core.look.finding import Finding
from entrick.core.look.fit import fit_circle
from entrick.core.look.follow import ACROSS, strokes_along
from entrick.core.look.likely import laid_over, outline_of
from entrick.core.look.scheme import Scheme, marked
from entrick.core.look.seen import pairs
from entrick.core.look.straight import Frame, Straight, frame_of
from entrick.core.look.strokes import ASKEW, FADES, LINED, SeenStrokes, _softened
from entrick.core.look.which import Hypotheses, hypotheses
from entrick.demo import sample_plans
from entrick.devices.scanner import Lens, Trouble, photograph, scan
from entrick.pictures.look import look_at_picture
from entrick.pictures.read import MOST_PIXELS, PictureError, read_picture
from examples import examples, some

SAMPLES = {name[:6]: text for name, text in sample_plans().items()}


@cache
def tried(name: str) -> tuple[Work, Hypotheses]:
    work = work_out(SAMPLES[name])
    return work, hypotheses(work)


def drawn(name: str, seed: int, slip: int | None = None) -> tuple[DrawnSheet, tuple[int, str]]:
    """Draw a sample, with one of its slips; return which step it is, and what."""
    work, every = tried(name)
    told = [each for each in every.slips if each.sort != "left out"]
    chosen = [] if slip is None else [told[slip % len(told)]]
    named = (every.order.steps[chosen[0].act].number, chosen[0].key) if chosen else (0, "")
    return drawn_by_hand(work, seed, chosen, order=every.order), named


def told(finding: Finding) -> list[tuple[int, str]]:
    return [(slip.step, slip.key) for slip in finding.slips]


@dataclass(frozen=True)
class Off:
    """How far a measured round is from what was drawn, mm; by how much it turns, radians."""

    turned: float
    radius: float
    radius_told: float
    place: float


def off_truth(sheet: DrawnSheet, finding: Finding, work: Work) -> list[Off]:
    """Return for each arc and circle how far it is from what was drawn."""
    strokes = {stroke.piece: stroke.places for stroke in sheet.strokes if stroke.piece}
    origin, factor = complex(work.sheet.origin.x, work.sheet.origin.y), work.sheet.factor
    found = []
    for row in finding.rows:
        if row.size is None or row.judged == "missing":
            continue
        true = strokes[row.name]
        middle = complex(np.mean(true))
        real = fit_circle(true, (middle, float(np.mean(np.abs(true - middle)))), 1.0)
        share = factor / (2 if row.size.what.startswith("Ø") else 1)
        radius = row.size.drawn * share
        path = (
            np.array([complex(x, y) for x, y in row.path]) * factor
            + origin
            + complex(*finding.shift)
        )
        away = np.abs(np.abs(path - real.centre) - real.radius)
        # At its ends a piece runs into others, which are seen as well.
        away = np.sort(away)[: math.ceil(0.9 * len(away))]
        rms = float(np.sqrt(np.mean(away**2)))
        turned = float(np.ptp(np.unwrap(np.angle(true - real.centre))))
        found.append(Off(turned, abs(radius - real.radius), row.size.u * share, rms))
    return found


@pytest.mark.parametrize(
    ("name", "photo"),
    some([("OY-014", False), ("OY-036", True), ("OY-014", True), ("OY-041", True)], 2),
)
def test_what_is_measured_is_what_was_drawn(name: str, photo: bool) -> None:
    """Held to (the way was tried): places within 0.15 mm RMS, radii of arcs over 90° within 0.1."""
    work, _ = tried(name)
    sheet, _ = drawn(name, 5)
    picture = photograph(sheet, Lens(turn=-2.5, bend=-0.015), 5) if photo else scan(sheet, turn=1.5)
    finding = look_at_picture(work, picture).finding
    off = off_truth(sheet, finding, work)
    assert len(off) >= 6
    assert max(each.radius for each in off if each.turned > np.pi / 2) < 0.1
    assert np.mean([each.radius <= each.radius_told for each in off]) >= 0.9, "95 in 100"
    assert np.sqrt(np.mean([each.place**2 for each in off])) < 0.15
    assert finding.slips == ()


@pytest.mark.parametrize(
    ("name", "photo", "slip"),
    some(
        [("OY-014", False, 3), ("OY-075", True, 2), ("OY-033", False, 4), ("OY-027", True, 11)], 2
    ),
)
def test_the_act_that_slipped_is_named(name: str, photo: bool, slip: int) -> None:
    work, _ = tried(name)
    sheet, named = drawn(name, 7, slip)
    picture = photograph(sheet, seed=2) if photo else scan(sheet, dpi=200)
    finding = look_at_picture(work, picture).finding
    assert named in told(finding), finding.sentence
    assert f"At step {finding.slips[0].step} " in finding.sentence
    assert not finding.is_within


@pytest.mark.parametrize(
    ("name", "step", "wrong", "seed"),
    [
        pytest.param("OY-075", 20, 18, 7, id="a line that crosses hatching"),
        pytest.param("OY-068", 4, 30, 7, id="all of the view stands elsewhere by it"),
        pytest.param("OY-069", 20, 18, 192673021, id="another slip of its act comes nearer"),
        pytest.param("OY-031", 35, 4.762499999999999, 3, id="some of it is drawn in the strip"),
    ],
)
def test_a_slip_that_looks_like_something_else_is_named(
    name: str, step: int, wrong: int, seed: int
) -> None:
    work, every = tried(name)
    steps = every.order.steps
    slip = next(
        each for each in every.slips if (steps[each.act].number, each.wrong) == (step, wrong)
    )
    sheet = drawn_by_hand(work, seed, [slip], order=every.order)
    finding = look_at_picture(work, scan(sheet, dpi=150)).finding
    assert (step, slip.key) in told(finding), finding.sentence
    assert abs(complex(*finding.shift)) < 1


@pytest.mark.parametrize("seed", some([1, 2, 3, 4], 1))
def test_of_what_no_slip_explains_none_is_told(seed: int) -> None:
    """Half of the pieces lie millimetres off, every one another way."""
    work, every = tried("OY-027")
    random = np.random.default_rng(seed)
    sheet = drawn_by_hand(work, 7, order=every.order)
    off = {piece.called: 6 * np.exp(1j * random.uniform(0, math.tau)) for piece in every.pieces}
    moved = [
        replace(each, places=each.places + off.get(each.piece, 0) * (at % 2))
        for at, each in enumerate(sheet.strokes)
    ]
    finding = look_at_picture(work, scan(replace(sheet, strokes=tuple(moved)), dpi=150)).finding
    assert told(finding) == [], finding.sentence
    assert finding.sentence.endswith("No one slip explains it.")


@pytest.mark.parametrize(
    ("part", "seed"), some([(7098, 7111), (7008, 3), (7008, 7008), (7058, 7060)], 1)
)
def test_of_a_sound_gear_of_small_teeth_no_slip_is_told(part: int, seed: int) -> None:
    """Its teeth are so small that they come out otherwise than drawn: as with many a slip."""
    work = work_out(HEAD + parts.part(part)[0])
    finding = look_at_picture(work, scan(drawn_by_hand(work, seed), dpi=150)).finding
    assert told(finding) == [], finding.sentence


@pytest.mark.parametrize(
    ("name", "seed"), some([("OY-073", 0), ("OY-074", 3), ("OY-066", 2), ("OY-073", 1)], 1)
)
def test_nothing_is_called_off_that_is_where_it_belongs(name: str, seed: int) -> None:
    """Neighbours lie a millimetre away, or run into each other: none is taken for another."""
    work, _ = tried(name)
    sheet, _ = drawn(name, seed)
    finding = look_at_picture(work, scan(sheet, dpi=200, seed=seed, turn=1.0)).finding
    assert called_off_in_vain(sheet, finding, work) == []


def called_off_in_vain(sheet: DrawnSheet, finding: Finding, work: Work) -> list[str]:
    """Return what is called off though it was drawn where the plan has it."""
    origin = complex(work.sheet.origin.x, work.sheet.origin.y)
    drawn = defaultdict(list)
    for stroke in sheet.strokes:
        drawn[stroke.piece].append(points(pairs(stroke.places - origin)))
    in_vain = []
    for row in finding.rows:
        planned = LineString(np.array(row.planned) * work.sheet.factor)
        # Of pieces of one name it is the nearest.
        off = min(distance(planned, places).max() for places in drawn[row.name])
        if row.judged == "off" and off + row.place_u < finding.tolerance:
            in_vain.append(row.name)
    return in_vain


def test_a_slip_that_draws_over_itself_is_named() -> None:
    """Tips and roots all the way round, a flank across the teeth."""
    work = work_out(HEAD + parts.part(7058)[0])
    every = hypotheses(work)
    acts = [act for act, step in every.order.steps.items() if step.number == 29]
    slip = next(each for each in every.slips if each.act in acts and each.wrong == 24)
    sheet = drawn_by_hand(work, 7060, [slip], order=every.order)
    finding = look_at_picture(work, scan(sheet, dpi=150)).finding
    assert (29, slip.key) in told(finding), finding.sentence


def test_a_view_that_stands_elsewhere_for_no_slip_is_said_to() -> None:
    work, every = tried("OY-068")
    sheet = drawn_by_hand(work, 7, order=every.order)
    moved = [replace(each, places=each.places + (6 - 4j)) for each in sheet.strokes if each.piece]
    others = [each for each in sheet.strokes if not each.piece]
    picture = scan(replace(sheet, strokes=(*others, *moved)), dpi=150)
    finding = look_at_picture(work, picture).finding
    assert told(finding) == []
    assert abs(complex(*finding.shift) - (6 - 4j)) < 0.5


PLAIN = Frame(100.0, 100.0, 5.0, 5.0, 95.0, 95.0, ())
"""Of a sheet on which nothing is drawn yet, mm."""

MIDDLE = complex(PLAIN.width, PLAIN.height) / 2


def ruled(
    way: float, aside: Sequence[float], per_mm: float = 4.0, noise: float = 0.0
) -> SeenStrokes:
    """Return what is seen of strokes of 0.5 mm side by side, so many degrees from level, within a
    border of 0.7."""
    row, column = np.mgrid[: round(PLAIN.height * per_mm), : round(PLAIN.width * per_mm)]
    places = (column + 0.5) / per_mm + 1j * (PLAIN.height - (row + 0.5) / per_mm)
    across = ((places - MIDDLE) * np.exp(-1j * math.radians(way))).imag
    sides = (places.real - PLAIN.left, places.real - PLAIN.right)
    sides += (places.imag - PLAIN.low, places.imag - PLAIN.high)
    beyond = [np.abs(side) - 0.35 for side in sides] + [np.abs(across - at) - 0.25 for at in aside]
    ink = np.clip(0.5 - per_mm * np.min(beyond, axis=0), 0, 1)
    ink += noise * np.random.default_rng(1).standard_normal(ink.shape)
    straight = Straight(np.clip(ink, 0, 1).astype(np.float32), per_mm, PLAIN)
    ahead = np.exp(1j * math.radians(way))
    along = (1j * np.array(aside)[:, None] + np.linspace(-20, 20, 9)) * ahead
    return SeenStrokes(straight, MIDDLE, along.ravel(), np.zeros(0, complex))


@given(st.floats(0, 180), st.floats(-90, 90))
def test_a_stroke_runs_along_itself_and_along_nothing_else(way: float, askew: float) -> None:
    assume(abs(abs(askew) - math.degrees(ASKEW)) > 3)
    ahead = np.exp(1j * math.radians(way))
    turned = np.full(9, ahead * np.exp(1j * math.radians(askew)))
    along = ruled(way, [0.0]).runs_along(ahead * np.linspace(-20, 20, 9), turned)
    assert set(along) == {abs(askew) < math.degrees(ASKEW)}


@given(st.floats(0, 180), st.floats(-1, 1), st.sampled_from([150 / 25.4, 300 / 25.4]))
def test_a_stroke_is_seen_where_its_middle_is(way: float, aside: float, per_mm: float) -> None:
    seen = ruled(way, [aside], per_mm, noise=0.05)
    back = np.exp(-1j * math.radians(way))
    beside = np.linspace(-30, 30, 50) / back + 1j * (aside + 0.4) / back
    for places in (seen.places, seen.nearest(beside)):
        off = (places * back).imag[np.abs(places * back) < 38] - aside
        assert len(off) >= 50
        assert np.max(np.abs(off)) < 0.05


@given(st.integers(0, 10_000), st.floats(0.8, 5))
def test_a_picture_is_softened_as_by_a_general_filter(seed: int, soft: float) -> None:
    """At its rows as scipy's does; what rises evenly across them rises so between them too."""
    random = np.random.default_rng(seed)
    ink = random.random((60, 3), np.float32)
    rows = np.arange(60.0)
    usual = gaussian_filter1d(ink, soft, axis=0, mode="nearest", radius=math.ceil(FADES * soft))
    assert np.allclose(_softened(ink, rows, soft), usual, atol=1e-5)
    rising = np.repeat(rows[:, None], 3, axis=1).astype(np.float32)
    at = random.uniform(25, 35, 20)
    assert np.allclose(_softened(rising, at, soft), at[:, None], atol=0.02)


@given(st.floats(0, 180), st.floats(0.3, 0.6))
def test_outlines_side_by_side_hide_none_that_lies_alone(way: float, apart: float) -> None:
    beside = [0.0, apart, 8.0, 8.0 + apart, 16.0, 16.0 + apart]
    seen = ruled(way, [*beside, -8.0], 150 / 25.4, noise=0.05)
    alone = np.abs((seen.places * np.exp(-1j * math.radians(way))).imag + 8) < 0.2
    assert np.count_nonzero(alone) > 70


@given(st.floats(0, 180), st.floats(0.55, 2.5), st.floats(-0.4, 0.4), st.floats(-0.4, 0.4))
def test_strokes_side_by_side_are_each_followed_by_itself(
    way: float, apart: float, first: float, second: float
) -> None:
    """However near they run, and by however much a hand was off: told by their free edges where they touch."""
    ahead = np.exp(1j * math.radians(way))
    expected = [1j * share * apart for share in (first, 1 + second)]
    runs = [(aside + np.linspace(-20, 20, 81)) * ahead for aside in (*expected, -8j)]
    drawn = [0.0, apart, -8.0]
    straight = ruled(way, drawn, 150 / 25.4, noise=0.05).straight
    strokes = strokes_along(straight, runs, Among(runs, ACROSS), MIDDLE, LINED)
    for stroke, aside in zip(strokes, drawn, strict=True):
        assert len(stroke.places) > 75
        assert np.abs(np.median((stroke.places / ahead).imag) - aside) < 0.06


def test_of_an_outline_of_which_a_slip_leaves_nothing_nothing_is_laid() -> None:
    """As on a plan of which one line cannot be read, and little is left to line in."""
    _, every = tried("OY-014")
    gone = [replace(piece, there=np.zeros_like(piece.there)) for piece in every.pieces]
    laid = laid_over(outline_of(gone, every.errors, 0), ruled(0.0, [0.0]))
    assert laid.drawn == {}
    assert laid.others > 0, "what is seen belongs to nothing"


SMALL = Lens(pixels=2400)
"""A camera that does, and takes less time."""


@pytest.mark.parametrize(
    "trouble", some(["upside down", "smudge", "coffee", "thumb", "folded corner", "blur"], 3)
)
def test_what_spoils_a_picture_spoils_no_verdict(trouble: str) -> None:
    work, _ = tried("OY-014")
    sheet, named = drawn("OY-014", 9, 3)
    finding = look_at_picture(work, photograph(sheet, SMALL, 4, [trouble])).finding  # type: ignore[list-item]
    assert named in told(finding), finding.sentence


def test_a_sound_sheet_stays_sound_whatever_spoils_its_picture() -> None:
    work, _ = tried("OY-014")
    sound, _ = drawn("OY-014", 10)
    troubles: list[Trouble] = ["smudge", "coffee", "thumb", "folded corner", "upside down"]
    assert look_at_picture(work, photograph(sound, SMALL, 4, troubles)).finding.slips == ()


@examples(4)
@given(st.integers(0, 3), st.floats(1.2, 4.0), st.floats(0.2, 0.8), st.booleans())
def test_a_line_drawn_along_the_border_is_not_taken_for_it(
    side: int, inside: float, long: float, photo: bool
) -> None:
    work, _ = tried("OY-014")
    sheet, _ = drawn("OY-014", 10)
    frame = frame_of(work.sheet, work.drawing.ground)
    assert frame is not None
    start, end = (complex(*frame.corners[(side + k) % 4]) for k in (0, 1))
    ahead = (end - start) / abs(end - start)
    middle = (start + end) / 2 - 1j * ahead * inside
    half = long / 2 * abs(end - start) * ahead
    heavy = max(sheet.strokes, key=lambda stroke: stroke.dark)
    along = replace(heavy, piece="", places=middle + half * np.linspace(-1, 1, 200))
    crossed = replace(sheet, strokes=(*sheet.strokes, along))
    picture = photograph(crossed, SMALL, 4) if photo else scan(crossed, dpi=150, turn=1.0)
    finding = look_at_picture(work, picture).finding
    assert finding.slips == ()
    assert {row.judged for row in finding.rows} == {"within"}


def roughened(work: Work, turn: float, seed: int, colour: bool = False) -> bytes:
    """Rasterise the PDF of a plan by a library of its own, and make it rough by other means than the stand-in."""
    page = pypdfium2.PdfDocument(write_pdf(work.display, construction=False))[0]
    clean = (
        page.render(scale=300 / 72, grayscale=True)
        .to_numpy()
        .reshape(-1, page.render(scale=300 / 72).width)
    )
    random = np.random.default_rng(seed)
    high, wide = clean.shape
    matrix = cv2.getRotationMatrix2D((wide / 3, high / 2), turn, 0.995)
    lain = cv2.warpAffine(clean, matrix, (wide, high), borderValue=250).astype(float)
    down = np.linspace(1.0, 0.82, high)[:, None]
    speckled = lain * down * random.uniform(0.93, 1.0, lain.shape) + random.normal(0, 9, lain.shape)
    grey = np.clip(speckled, 0, 255).astype(np.uint8)
    picture = cv2.merge((grey // 2 + 90, grey // 2 + 110, grey)) if colour else grey
    return bytes(cv2.imencode(".jpg", picture, [cv2.IMWRITE_JPEG_QUALITY, 70])[1])


@pytest.mark.parametrize(
    ("name", "turn", "colour"), [("OY-014", 2.2, False), ("OY-027", -90.0, True)]
)
def test_a_sheet_rendered_by_another_library_is_measured_as_it_is(
    name: str, turn: float, colour: bool
) -> None:
    work, _ = tried(name)
    content = roughened(work, turn % 90, 3, colour)
    if turn == -90:
        picture = cv2.imdecode(
            np.frombuffer(roughened(work, 1.1, 3, colour), np.uint8), cv2.IMREAD_COLOR
        )
        content = bytes(cv2.imencode(".png", np.rot90(picture))[1])
    finding = look_at_picture(work, content).finding
    assert finding.slips == (), finding.sentence
    assert finding.is_within, [
        (row.name, row.told) for row in finding.rows if row.judged != "within"
    ]
    factor = work.sheet.factor
    for row in finding.rows:
        if row.size is not None:
            assert abs(row.size.drawn - row.size.given) * factor < 0.2, row


def test_a_sheet_of_another_plan_is_told() -> None:
    sheet, _ = drawn("OY-014", 2)
    other, _ = tried("OY-027")
    with pytest.raises(PictureError, match=r"this is not OY-027|no title strip"):
        look_at_picture(other, scan(sheet, dpi=150))


def test_a_sheet_whose_rounds_came_out_far_too_large_is_not_another_plans() -> None:
    """Four bolts of R 3.5 swung as R 66: they are where the slip has them, however few places a bolt has."""
    work, every = tried("OY-061")
    slips = [slip for slip in every.slips if slip.wrong == 132.0 and slip.right == 7.0]
    sheet = drawn_by_hand(work, 7, slips[:1], order=every.order)
    finding = look_at_picture(work, scan(sheet, dpi=150)).finding
    assert finding.slips[0].key == slips[0].key
    assert sum(row.judged == "missing" for row in finding.rows) == 0


def test_a_border_that_is_not_all_in_view_is_refused_with_what_to_do() -> None:
    work, _ = tried("OY-014")
    sheet, _ = drawn("OY-014", 2)
    for picture in (
        scan(sheet, dpi=150, troubles=["cut off"]),
        photograph(sheet, troubles=["cut off"]),
    ):
        with pytest.raises(PictureError, match="all four sides"):
            look_at_picture(work, picture)


def png(wide: int, high: int, until: int | None = None) -> bytes:
    out = io.BytesIO()
    Image.new("1", (wide, high)).save(out, "PNG")
    return out.getvalue()[:until]


def pdf(with_picture: bytes | None) -> bytes:
    out = io.BytesIO()
    canvas = Canvas(out)
    if with_picture:
        from reportlab.lib.utils import ImageReader

        canvas.drawImage(ImageReader(io.BytesIO(with_picture)), 0, 0, 595, 420)
    canvas.drawString(10, 10, "a page")
    canvas.save()
    return out.getvalue()


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (b"", "the file is empty"),
        (b"GIF89a" + bytes(40), "no picture the desk can read|a picture of kind GIF|damaged"),
        (b"units mm\nO = datum\n", "no picture the desk can read"),
        (png(9000, 9000), f"more than {MOST_PIXELS // 10**6} million pixels"),
        (png(3000, 2000, 300), "broken off or damaged"),
        (png(200, 100), "only 200 by 100 pixels"),
        (pdf(None), "holds no picture"),
        (b"%PDF-1.4 nothing", "PDF"),
    ],
)
def test_what_is_no_picture_is_told(content: bytes, words: str) -> None:
    with pytest.raises(PictureError, match=words):
        read_picture(content)


def test_a_picture_comes_in_as_tiff_and_in_a_pdf_as_well() -> None:
    sheet, _ = drawn("OY-014", 2)
    content = scan(sheet, dpi=100)
    grey = read_picture(content)
    out = io.BytesIO()
    Image.open(io.BytesIO(content)).save(out, "TIFF")
    assert np.array_equal(read_picture(out.getvalue()), grey)
    assert read_picture(pdf(content)).shape == grey.shape


def test_of_two_sheets_in_one_picture_one_is_looked_at() -> None:
    work, _ = tried("OY-014")
    both = [read_picture(scan(drawn("OY-014", seed)[0], dpi=120, seed=seed)) for seed in (3, 4)]
    content = bytes(cv2.imencode(".png", np.hstack(both))[1])
    finding = look_at_picture(work, content).finding
    assert finding.slips == (), finding.sentence
    assert len(finding.rows) == 6


def test_pieces_of_copies_that_are_called_alike_are_held_against_their_own_neighbours() -> None:
    """Two slots of one name each: no join is told to gape by as much as they stand apart."""
    head = "units mm\nsheet A3 landscape, scale 1:1, border 10\nO = datum, middle of sheet\n"
    work = work_out(head + parts.part(17)[0])
    finding = look_at_picture(work, scan(drawn_by_hand(work, 17), dpi=150)).finding
    assert finding.joins
    assert max(join.miss for join in finding.joins) < 3


COVER = (
    HEAD.replace("A3", "A4")
    + """O = datum, middle of sheet
c = circle, centre O, diameter 44
A = point, 55 right of O
a = circle, centre A, diameter 12
B = point, 55 left of O
b = circle, centre B, diameter 12
bore = line in, c
right = line in, a
left = line in, b
"""
)


def drawn_but_for(name: str, keeps: Callable[[Stroke], bool]) -> DrawnSheet:
    sheet, _ = drawn(name, 1)
    return replace(sheet, strokes=tuple(filter(keeps, sheet.strokes)))


def test_a_sheet_on_which_nothing_is_drawn_is_not_called_right() -> None:
    """Paper, border and title strip alone, as of a sheet that was never begun."""
    work = work_out(COVER)
    sheet = drawn_by_hand(work, 1)
    begun = tuple(stroke for stroke in sheet.strokes if not stroke.piece and stroke.dark > 0.5)
    with pytest.raises(PictureError, match="next to nothing is lined in"):
        look_at_picture(work, scan(replace(sheet, strokes=begun), 150, 1))


@pytest.mark.parametrize(
    ("name", "photo"),
    some([(name, photo) for name in sorted(SAMPLES) for photo in (False, True)], 4),
)
def test_a_sheet_that_is_not_lined_in_is_refused(name: str, photo: bool) -> None:
    """Construction, dimensions and lettering are all there; light lines are no outlines."""
    sheet = drawn_but_for(name, lambda stroke: not stroke.piece)
    picture = photograph(sheet, SMALL, 1) if photo else scan(sheet, 200, 1)
    with pytest.raises(PictureError, match="next to nothing is lined in"):
        look_at_picture(tried(name)[0], picture)


@pytest.mark.parametrize("name", some(["OY-014", "OY-031", "OY-041", "OY-068"], 2))
def test_what_is_not_lined_in_yet_is_told_and_no_slip_is(name: str) -> None:
    names = [row.called for row in tried(name)[1].pieces]
    done = {*names[: len(names) // 2]}
    sheet = drawn_but_for(name, lambda stroke: not stroke.piece or stroke.piece in done)
    finding = look_at_picture(tried(name)[0], scan(sheet, 200, 1)).finding
    assert {row.name for row in finding.rows if row.judged != "missing"} == done
    assert finding.slips == ()
    assert (
        f"{len(names) - len(done)} of {len(names)} pieces are not lined in yet" in finding.sentence
    )
    assert finding.doubt == "not all of it is lined in"
    assert marked(finding, Scheme()).whole < Scheme().whole * 0.7


def test_a_slip_on_a_sheet_that_is_begun_is_told_with_what_is_not_lined_in_yet() -> None:
    work, every = tried("OY-014")
    sheet, named = drawn("OY-014", 5, 5)
    done = {piece.called for piece in every.pieces[:4]}
    strokes = tuple(s for s in sheet.strokes if not s.piece or s.piece in done)
    finding = look_at_picture(work, scan(replace(sheet, strokes=strokes), 200, 1)).finding
    assert named in told(finding), finding.sentence
    assert finding.second == ()
    assert finding.sentence.endswith("; 2 of 6 pieces are not lined in yet.")


def by_a_hard_pencil(stroke: Stroke) -> Stroke:
    return replace(stroke, dark=stroke.dark / 2)


def by_one_pencil(stroke: Stroke) -> Stroke:
    """Dimensions as heavy as outlines; construction stays light."""
    return replace(stroke, dark=0.7, width=0.4) if stroke.dark > 0.5 else stroke


@pytest.mark.parametrize("pencil", [by_a_hard_pencil, by_one_pencil])
@pytest.mark.parametrize("name", some(["OY-027", "OY-031", "OY-041"], 2))
def test_a_sheet_with_a_printed_border_is_looked_at_whatever_the_pencil(
    name: str, pencil: Callable[[Stroke], Stroke]
) -> None:
    work, _ = tried(name)
    printed = [each.places for mark in work.drawing.ground if (each := stroke_of(mark))]
    sheet, _ = drawn(name, 1)
    strokes = tuple(
        stroke
        if any(np.array_equal(stroke.places, border) for border in printed)
        else pencil(stroke)
        for stroke in sheet.strokes
    )
    assert sum(one is other for one, other in zip(strokes, sheet.strokes, strict=True)) >= 4
    finding = look_at_picture(work, scan(replace(sheet, strokes=strokes), 200, 1)).finding
    assert finding.slips == ()
    assert not any(row.judged == "missing" for row in finding.rows)
