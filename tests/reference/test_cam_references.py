"""Cams against calculus, closed formulas, dense sampling and a library's splines."""

import math
from functools import partial

import mpmath
import numpy as np
import pytest
import shapely
import shapely.affinity
import sympy
from hypothesis import assume, given
from hypothesis import strategies as st
from scipy.interpolate import CubicSpline

from desk import outline, refused, run_of, solved
from entrick.core.board.schedule import guest_of
from entrick.core.desk import Work, work_out
from entrick.core.drawing.marks import DrawnCircle, Lettering
from entrick.core.geometry import Arc, Line, Loop, Point, polar, rotate
from entrick.core.rules.cam import STEEP, Cam, Event, measured
from entrick.core.rules.motion import MOTIONS, ROUNDED, rounded_by

HEAD = "units mm\nsheet A2 landscape, scale 1:1, border 10\nO = datum\nG = point, 150 right of O\n"
SMOOTH = ["harmonic", "parabolic", "cycloidal", "polynomial", "rounded"]
x = sympy.Symbol("x", real=True)
FORMULAS = {
    "uniform": [(x, 0, 1)],
    "harmonic": [((1 - sympy.cos(sympy.pi * x)) / 2, 0, 1)],
    "parabolic": [
        (2 * x**2, 0, sympy.Rational(1, 2)),
        (1 - 2 * (1 - x) ** 2, sympy.Rational(1, 2), 1),
    ],
    "cycloidal": [(x - sympy.sin(2 * sympy.pi * x) / (2 * sympy.pi), 0, 1)],
    "polynomial": [(10 * x**3 - 15 * x**4 + 6 * x**5, 0, 1)],
}


def remarks(done: Work) -> list[tuple[str, str]]:
    return [(f.weight, f.message) for f in done.findings if f.rule == "cam"]


@pytest.mark.parametrize("name", list(FORMULAS))
def test_peak_factors_follow_from_the_formulas_by_differentiation(name: str) -> None:
    """The factors 1, π/2, 2, 2, 1.875 and ∞, π²/2, 4, 2π, 5.7735 of the handbooks (from memory) are derived."""
    motion = MOTIONS[name]
    peaks = []
    for order in (1, 2):
        most = sympy.Integer(0)
        for formula, low, high in FORMULAS[name]:
            slope = sympy.diff(formula, x, order)
            spots = (
                [
                    low,
                    high,
                    *sympy.solveset(sympy.diff(slope, x), x, sympy.Interval(low, high)).intersect(
                        sympy.Interval(low, high)
                    ),
                ]
                if sympy.diff(slope, x) != 0
                else [low, high]
            )
            most = sympy.Max(most, *(abs(slope.subs(x, spot)) for spot in spots))
            for share in np.linspace(float(low) + 1e-9, float(high) - 1e-9, 7):
                value = float(slope.subs(x, share))
                assert motion.shape(float(share))[order] == pytest.approx(value, abs=1e-6)
        peaks.append(float(most))
    assert motion.velocity == pytest.approx(peaks[0])
    if name == "uniform":
        assert math.isinf(motion.acceleration), "the velocity jumps at both ends"
    else:
        assert motion.acceleration == pytest.approx(peaks[1])


def test_uniform_motion_with_rounded_ends_runs_through_without_a_jump() -> None:
    motion = MOTIONS["rounded"]
    for share in (ROUNDED, 1 - ROUNDED):
        before, after = motion.shape(share - 1e-9), motion.shape(share + 1e-9)
        assert before[0] == pytest.approx(after[0], abs=1e-8)
        assert before[1] == pytest.approx(after[1], abs=1e-6)
    assert motion.shape(0.0)[:2] == (0.0, 0.0)
    assert motion.shape(1.0)[:2] == pytest.approx((1.0, 0.0))
    shares = np.linspace(0, 1, 2001)
    assert np.trapezoid([motion.shape(float(s))[1] for s in shares], shares) == pytest.approx(
        1.0, abs=1e-6
    )


@given(
    st.integers(20, 60), st.integers(4, 40), st.integers(60, 180), st.sampled_from(["cw", "ccw"])
)
def test_the_profile_of_a_harmonic_cam_with_a_knife_edge_is_the_closed_formula(
    least: int, lift: int, angle: int, way: str
) -> None:
    done = solved(
        f"c = cam, about O, least {least}, {way}, rise {angle}° by {lift} harmonic, fall {360 - angle}° by {lift} harmonic\n"
        "rim = line in, c\n"
    )
    rim = run_of(done, "rim")
    assert rim.closed
    sign = 1 if way == "cw" else -1
    for degrees in range(0, 360, 7):
        share, back = degrees / angle, (degrees - angle) / (360 - angle)
        s = (
            lift / 2 * (1 - math.cos(math.pi * share))
            if share <= 1
            else lift / 2 * (1 + math.cos(math.pi * back))
        )
        spot = polar(least + s, math.pi / 2 + sign * math.radians(degrees))
        assert rim.distance(spot) < 1e-4 * (least + lift), "stations run against the rotation"


@given(
    st.integers(40, 80),
    st.integers(5, 20),
    st.integers(100, 200),
    st.sampled_from(SMOOTH[:4]),
    st.sampled_from(["cw", "ccw"]),
)
def test_a_flat_face_touches_the_profile_everywhere_and_never_cuts_it(
    least: int, lift: int, angle: int, motion: str, way: str
) -> None:
    """The profile is the envelope of the face's lines: densely sampled, its reach in every direction is theirs."""
    done = solved(
        f"c = cam, about O, least {least}, {way}, flat, rise {angle}° by {lift} {motion}, "
        f"fall {360 - angle}° by {lift} {motion}\nrim = line in, c\n"
    )
    assume(not any("loses contact" in told for _, told in remarks(done)))
    rim = run_of(done, "rim")
    places = np.array(
        [
            (spot.x, spot.y)
            for piece in rim.pieces
            for spot in (
                piece.entry,
                *(
                    piece.curve.at(piece.curve.start + piece.curve.sweep * k / 24)
                    for k in range(24)
                    if isinstance(piece.curve, Arc)
                ),
            )
        ]
    )
    sign = 1 if way == "cw" else -1
    for degrees in range(0, 360, 5):
        event, share = (
            (0, degrees / angle) if degrees < angle else (1, (degrees - angle) / (360 - angle))
        )
        s = lift * MOTIONS[motion].shape(share)[0]
        s = s if event == 0 else lift - s
        turned = math.pi / 2 + sign * math.radians(degrees)
        reach = (places @ np.array([math.cos(turned), math.sin(turned)])).max()
        assert reach == pytest.approx(least + s, abs=2e-4 * least)


@given(
    st.integers(35, 60),
    st.integers(5, 20),
    st.integers(3, 9),
    st.integers(-8, 8),
    st.sampled_from(SMOOTH[:4]),
    st.sampled_from(["cw", "ccw"]),
)
def test_a_roller_touches_the_profile_at_every_angle_and_never_digs_in(
    least: int, lift: int, roller: int, off: int, motion: str, way: str
) -> None:
    offset = f", offset {abs(off)} {'left' if off < 0 else 'right'}" if off else ""
    done = solved(
        f"c = cam, about O, least {least}, {way}, roller radius {roller}{offset}, rise 150° by {lift} {motion}, "
        f"dwell 40°, fall 170° by {lift} {motion}\nrim = line in, c\n"
    )
    assume(not any(weight == "wrong" for weight, _ in remarks(done)))
    rim = run_of(done, "rim")
    rest = math.sqrt((least + roller) ** 2 - off**2)
    sign = 1 if way == "cw" else -1
    for degrees in (0, 33, 75, 149, 170, 200, 260, 359):
        shape = MOTIONS[motion].shape
        s = (
            lift * shape(degrees / 150)[0]
            if degrees <= 150
            else lift
            if degrees < 190
            else lift * (1 - shape((degrees - 190) / 170)[0])
        )
        turned = rotate(rim, Point(0.0, 0.0), -sign * math.radians(degrees))
        middle = Point(off, rest + s)
        assert turned.distance(middle) == pytest.approx(roller, abs=1e-4 * (least + lift)), degrees


@given(
    st.lists(
        st.tuples(st.integers(20, 90), st.integers(1, 15), st.sampled_from(SMOOTH)),
        min_size=1,
        max_size=3,
    ),
    st.integers(25, 50),
    st.integers(6, 48),
)
def test_every_station_stands_least_distance_plus_lift_from_the_centre(
    rises: list[tuple[int, int, str]], least: int, parts: int
) -> None:
    total, high = sum(angle for angle, _, _ in rises), sum(lift for _, lift, _ in rises)
    words = "".join(f"rise {angle}° by {lift} {motion}, " for angle, lift, motion in rises)
    done = solved(
        f"c = cam, about O, least {least}, {words}dwell 30°, fall {330 - total}° by {high} cycloidal, {parts} parts, "
        "diagram from G, 30° is 10\n"
    )
    item = done.solution.figure.items["c"]
    rim, diagram = run_of(done, "c"), run_of(done, "c.diagram")
    assert rim.closed
    assert (
        max(
            abs(a.exit - b.entry)
            for a, b in zip(rim.pieces, (*rim.pieces[1:], rim.pieces[0]), strict=True)
        )
        < 1e-8
    )
    for k in range(parts):
        spot = item.parts[f"station.{k}"]
        assert isinstance(spot, Point)
        degrees = 360 * k / parts
        ordinate = Line(Point(150 + degrees / 3, 0.0), Point(0.0, 1.0))
        (height,) = {round(m.y, 4) for m in crossings(diagram, ordinate)} or {None}
        assert height is not None
        assert abs(spot) == pytest.approx(least + height, abs=2e-2), (
            "profile and diagram tell the same lift"
        )
    (dwell,) = [piece.curve for piece in rim.pieces if piece.name == "c.dwell1"]
    assert isinstance(dwell, Arc)
    assert dwell.radius == pytest.approx(least + high)
    assert abs(dwell.centre) < 1e-12, "a dwell is an arc about the cam's centre"


def crossings(run: Loop, line: Line) -> list[Point]:
    """Where an upright line meets the drawn curve, by halving over its pieces."""
    wanted = line.through.x
    found = []
    for piece in run.pieces:
        low, high = sorted((piece.entry, piece.exit), key=lambda p: p.x)
        if low.x - 1e-9 <= wanted <= high.x + 1e-9:
            share = 0.0 if high.x == low.x else (wanted - low.x) / (high.x - low.x)
            if isinstance(piece.curve, Arc):
                c, r = piece.curve.centre, piece.curve.radius
                up = math.sqrt(max(r * r - (wanted - c.x) ** 2, 0.0))
                ys = [c.y + up, c.y - up]
                middle = low.y + (high.y - low.y) * share
                found.append(Point(wanted, min(ys, key=lambda y: abs(y - middle))))
            else:
                found.append(Point(wanted, low.y + (high.y - low.y) * share))
    return found[:1]


@given(st.lists(st.floats(0, 30), min_size=4, max_size=36))
def test_measured_lifts_are_joined_by_the_periodic_cubic_spline(lifts: list[float]) -> None:
    count = len(lifts)
    angles = np.linspace(0, math.tau, count + 1)
    events = measured([(float(a), h) for a, h in zip(angles, lifts, strict=False)])
    spline = CubicSpline(angles, [*lifts, lifts[0]], bc_type="periodic")
    cam = Cam(Point(0.0, 0.0), 50.0, True, events)
    for angle in np.linspace(0.01, math.tau - 0.01, 50):
        s, v, a = cam.lift(float(angle))
        assert s == pytest.approx(float(spline(angle)), abs=1e-8)
        assert v == pytest.approx(float(spline(angle, 1)), abs=1e-7)
        assert a == pytest.approx(float(spline(angle, 2)), abs=1e-6 * count**2)


def test_the_pressure_angle_is_that_between_the_follower_and_the_square_to_the_profile() -> None:
    rise = Event("rise1", math.radians(120), 0.0, 28.0, MOTIONS["harmonic"])
    fall = Event("fall1", math.radians(240), 28.0, 0.0, MOTIONS["harmonic"])
    for clockwise in (True, False):
        for offset in (-8.0, 0.0, 8.0):
            cam = Cam(Point(0.0, 0.0), 40.0, clockwise, (rise, fall), "roller", 8.0, offset)
            for share in (0.1, 0.4, 0.7):
                before, after = (cam.pitch(0, share + step)[0] for step in (-1e-6, 1e-6))
                along = (after - before).unit
                square = (
                    along.normal if along.normal.dot(cam.pitch(0, share)[0]) > 0 else -along.normal
                )
                out, _ = cam.frame(math.radians(120) * share)
                wanted = math.degrees(math.acos(min(1.0, square.dot(out))))
                assert abs(cam.pressure(0, share)) == pytest.approx(wanted, abs=1e-3)


@pytest.mark.parametrize(
    ("rows", "weight", "words"),
    [
        ("rise 120° by 20, dwell 60°, fall 90° by 20", "wrong", "90° is missing"),
        (
            "rise 120° by 20, fall 240° by 12",
            "wrong",
            "does not come back: at 360° it is 8 too high",
        ),
        ("rise 180° by 20 uniform, fall 180° by 20 uniform", "look", "the velocity jumps at 180°"),
        (
            "roller radius 5, rise 180° by 20 uniform, fall 180° by 20 uniform",
            "look",
            "comes up to 0.045 short of its lift, most at 180°",
        ),
        ("rise 30° by 20, dwell 100°, fall 230° by 20", "look", f"{STEEP:g}° is the usual limit"),
        (
            "roller radius 20, rise 40° by 14 cycloidal, fall 40° by 14 cycloidal, dwell 280°",
            "wrong",
            "is undercut",
        ),
        (
            "flat, rise 40° by 14 cycloidal, fall 40° by 14 cycloidal, dwell 280°",
            "wrong",
            "the face would lose contact",
        ),
        ("shaft diameter 60, rise 180° by 9, fall 180° by 9", "wrong", "does not clear the shaft"),
    ],
)
def test_what_is_wrong_with_a_cam_is_found(rows: str, weight: str, words: str) -> None:
    found = remarks(solved(f"c = cam, about O, least 25, {rows}\n"))
    assert any(w == weight and words in told for w, told in found), found


def test_an_undercut_is_real_and_the_least_roller_is_not() -> None:
    """The radius below which a roller undercuts is that of the pitch curve itself, measured on the drawn curve."""
    rows = "rise 60° by 12 cycloidal, fall 60° by 12 cycloidal, dwell 240°"
    clean = solved(f"c = cam, about O, least 40, roller radius 6, {rows}\n")
    assert not [told for weight, told in remarks(clean) if weight == "wrong"]
    pitch = run_of(clean, "c.pitch")
    outward = [
        p.curve.radius for p in pitch.pieces if isinstance(p.curve, Arc) and p.curve.sweep > 0
    ]
    least = min(outward)
    rim = run_of(clean, "c")
    drawn = shapely.Polygon([(p.entry.x, p.entry.y) for p in rim.pieces])
    assert drawn.is_valid
    assert least > 6
    bad = solved(f"c = cam, about O, least 12, roller radius 26, {rows}\n")
    assert any("undercut" in told for _, told in remarks(bad))


@pytest.mark.parametrize(
    ("clauses", "words"),
    [
        ("rise 200° by 20, fall 200° by 20", "40° too much"),
        ("dwell 360°", "at least one rise"),
        ("rise 180° by 20, fall 180° by 20, knife, roller radius 4", "not both"),
        ("rise 180° by 20, fall 180° by 20, offset 40 left", "passes the least circle"),
        ("rise 180° by 0, fall 180° by 20", "by more than nought"),
        ("lift 0 at 0°, lift 5 at 120°, lift 2 at 240°", "at least four stations"),
        (
            "lift 0 at 10°, lift 5 at 90°, lift 4 at 180°, lift 2 at 240°",
            "the first station is at 0°",
        ),
        ("lift 0 at 0°, lift 5 at 90°, lift 4 at 80°, lift 2 at 240°", "stations rise"),
        ("lift 0 at 0°, rise 90° by 3", "not both"),
        ("rise 180° by 20, fall 180° by 20, 3 parts", "4 to 72 parts"),
        ("rise 180° by 20, fall 180° by 20, lift scale 1:1000", "between 1:100 and 100:1"),
    ],
)
def test_a_cam_that_cannot_be_is_refused_in_the_trades_words(clauses: str, words: str) -> None:
    done = work_out(f"{HEAD}c = cam, about O, least 25, {clauses}\n")
    assert any(words in error.message for error in done.solution.errors), done.solution.errors
    assert all(
        error.clause is not None or "at least one" in error.message
        for error in done.solution.errors
    )


def test_a_flat_face_opens_the_compass_the_same_wherever_its_stem_stands() -> None:
    rows = "least 40, flat, rise 180° by 9 cycloidal, fall 180° by 9 cycloidal"
    line, aside = (solved(f"c = cam, about O, {rows}{off}\n") for off in ("", ", offset 12 left"))
    for index in range(12):
        places = [
            done.solution.figure.items["c"].parts[f"station.{index}"] for done in (line, aside)
        ]
        assert places[0] == places[1]
    assert "offset" not in aside.solution.figure.items["c"].parts


def test_the_greatest_opening_of_an_offset_follower_is_that_of_its_highest_station() -> None:
    done = solved(
        "c = cam, about O, least 46, roller radius 9, offset 8 right, rise 120° by 28, dwell 60°, fall 180° by 28\n"
    )
    highest = done.solution.figure.items["c"].parts["station.5"]
    assert isinstance(highest, Point)
    made = done.solution.entries[-1].made
    assert made is not None
    assert any(
        row.startswith("greatest opening") and row.endswith(f"= {abs(highest):.3f}")
        for row in made.working
    )


def test_measured_lifts_that_swing_under_the_least_distance_are_told() -> None:
    done = solved(
        "c = cam, about O, least 30, lift 0 at 0°, lift 0 at 90°, lift 20 at 180°, lift 0 at 270°\n"
    )
    cam = measured(
        [(math.radians(a), h) for a, h in ((0, 0.0), (90, 0.0), (180, 20.0), (270, 0.0))]
    )
    lifts = [event.at(k / 500)[0] for event in cam for k in range(501)]
    extremes = [lift for event in cam for lift in event.extremes]
    assert min(extremes) == pytest.approx(min(lifts), abs=1e-4)
    assert max(extremes) == pytest.approx(max(lifts), abs=1e-4)
    assert any("below the least distance" in told for _, told in remarks(done))


solved = partial(solved, head=HEAD)


def test_a_cam_may_begin_with_a_fall() -> None:
    """The same cam told from its top and from its foot, half a turn later: the same profile, turned half round."""
    down = solved(
        "a = cam, about O, least 30, fall 180° by 20 cycloidal, rise 180° by 20 harmonic\n"
    )
    up = solved("a = cam, about O, least 30, rise 180° by 20 harmonic, fall 180° by 20 cycloidal\n")
    one, other = (outline(run_of(done, "a"), 20) for done in (down, up))
    assert one.area == pytest.approx(other.area)
    assert (
        one.symmetric_difference(shapely.affinity.rotate(other, 180, origin=(0, 0))).area
        < 1e-4 * other.area
    )
    assert min(math.hypot(x, y) for x, y in one.exterior.coords) == pytest.approx(30, abs=1e-6)


def test_diagram_and_follower_are_drawn_as_one_wishes() -> None:
    row = "a = cam, about O, least 30, roller radius 6, rise 180° by 20, fall 180° by 20, diagram from G"
    done = solved(f'{row}, titled "LIFT OF THE PADDLE", degrees, with follower, 24 parts\n')
    letters = [mark.text for mark in done.display.marks if isinstance(mark, Lettering)]
    assert "LIFT OF THE PADDLE" in letters
    assert "DISPLACEMENT DIAGRAM" not in letters
    angles = [float(text[:-1]) for text in letters if text.endswith("°")]
    assert set(angles) == {15.0 * k for k in range(25)}, (
        "every station round the cam, and as many as fit below"
    )
    assert angles.count(0.0) == 2
    assert not [f for f in done.findings if f.rule == "lettering"]
    roller = [
        mark for mark in done.display.marks if isinstance(mark, DrawnCircle) and mark.role == "edge"
    ]
    assert [mark.r for mark in roller] == pytest.approx([6])
    assert not done.outlines


def test_heights_are_carried_level_to_the_followers_line() -> None:
    row = "H = point, 150 right of O, {} above\na = cam, about O, least 30, rise 180° by 20, fall 180° by 20, diagram from H, carried across\n"
    steps = [s for s in solved(row.format(30)).steps if s.source]
    acts = [guest_of(act) or act for s in steps for act in s.source.acts]  # type: ignore[union-attr]
    lines = [act.planned for act in acts if "the height carried across" in act.called]  # type: ignore[attr-defined]
    assert len(lines) == 7
    for line in lines:
        end = min((line.at(line.start or 0.0), line.at(line.end or 0.0)), key=lambda spot: spot.x)
        assert end.x == pytest.approx(0)
        lift = (1 - math.cos(math.radians((line.through.x - 150) / (8 / 30)))) / 2 * 20
        assert end.y - 30 == line.through.y - 30 == pytest.approx(lift, abs=1e-9)
    told = work_out(HEAD + row.format(42)).solution.errors[0].message
    assert "set its corner 12 below" in told


@given(st.floats(20, 90), st.floats(5, 60), st.floats(0.02, 0.98))
def test_rounded_ends_of_a_stated_radius_are_arcs_that_the_straight_part_touches(
    wide: float, tall: float, part: float
) -> None:
    radius = (
        part * (wide * wide + tall * tall) / (4 * tall)
    )  # where both arcs meet in the middle (closed form)
    motion = rounded_by(radius, wide, tall)
    assume(motion is not None)
    assert motion is not None
    low, high = motion.breaks
    place = lambda x: (x * wide, motion.shape(x)[0] * tall)  # noqa: E731
    for k in range(9):
        assert math.dist(place(low * k / 8), (0, radius)) == pytest.approx(radius)
        assert math.dist(place(1 - low * k / 8), (wide, tall - radius)) == pytest.approx(radius)
    assert motion.shape(low)[1] == pytest.approx(motion.shape((low + high) / 2)[1]), (
        "the straight part is tangent"
    )
    assert motion.velocity == pytest.approx(motion.shape(0.5)[1])
    for x in (low * 0.3, low * 0.9):
        first = float(mpmath.diff(lambda t: motion.shape(float(t))[0], x, h=1e-6))
        second = float(mpmath.diff(lambda t: motion.shape(float(t))[1], x, h=1e-6))
        assert motion.shape(x)[1:] == pytest.approx((first, second), rel=1e-4)
        assert abs(second) <= motion.acceleration * (1 + 1e-6)


def test_a_radius_too_large_for_an_event_is_refused_and_one_that_fits_is_drawn() -> None:
    row = "c = cam, about O, least 36, rise 180° by 28 rounded, fall 180° by 28 rounded, ends radius {}{}\n"
    assert "too large for the ends of rise1" in refused(row.format(60, ", diagram from O"))
    assert "say  diagram from" in refused(row.format(10, ""))
    done = solved(row.format(10, ", diagram from O"))
    slow = [f for f in done.findings if f.rule == "cam" and f.weight == "wrong"]
    assert not slow
