"""Gears against published tables, high-precision arithmetic, and gears that are rolled on each other."""

import io
import math
import re
from functools import partial

import ezdxf
import mpmath
import pytest
import shapely
import sympy
from ezdxf.path import make_path
from hypothesis import assume, given
from hypothesis import strategies as st
from scipy.optimize import brentq, minimize_scalar
from shapely import affinity

from desk import outline, refused, run_of, solved
from entrick.core.desk import Work, work_out
from entrick.core.formats import write_cutter_dxf
from entrick.core.geometry import Arc, Circle, Loop, Point, meet, polar
from entrick.core.geometry.shapes import is_drawn_at
from entrick.core.rules.gear import CLOSE, PROPORTIONS, Gear, angle_of_inv, inv, radii

HEAD = "units mm\nsheet A1 landscape, scale 1:1, border 10\nO = datum\n"
ANGLES = [14.5, 20.0, 25.0]
gears = st.builds(
    lambda teeth, angle, which, fillet: Gear(
        teeth, 1.0, math.radians(angle), *PROPORTIONS[which], 0.0, fillet
    ),
    st.integers(8, 120),
    st.sampled_from(ANGLES),
    st.sampled_from(list(PROPORTIONS)),
    st.sampled_from([0.0, 0.2]),
)


def remarks(done: Work) -> list[tuple[str, str]]:
    return [(f.weight, f.message) for f in done.findings if f.rule == "gear"]


@pytest.mark.parametrize(
    ("degrees", "value"), [(14.5, 0.0055448), (20, 0.0149044), (25, 0.0299753)]
)
def test_the_involute_function_is_that_of_the_published_tables(
    degrees: float, value: float
) -> None:
    """Published involute tables, to seven places."""
    assert inv(math.radians(degrees)) == pytest.approx(value, abs=5e-8)
    assert math.degrees(angle_of_inv(inv(math.radians(degrees)))) == pytest.approx(degrees)


@given(st.floats(0.001, 1.2))
def test_the_involute_function_is_undone(angle: float) -> None:
    assert angle_of_inv(inv(angle)) == pytest.approx(angle, rel=1e-9)


@given(gears, st.floats(0, 0.05))
def test_the_span_is_a_common_tangent_of_the_base_circle(gear: Gear, play: float) -> None:
    """A line touching the base circle is square to every flank: over k teeth it is as long as the thread unwound there."""
    gear = Gear(gear.teeth, 1.0, gear.pressure, gear.addendum, gear.dedendum, play, 0.2)
    with mpmath.workdps(40):
        phi = mpmath.mpf(gear.pressure)
        half = (mpmath.pi / 2 - mpmath.mpf(play) / 2) / gear.teeth + mpmath.tan(phi) - phi
        for count in (2, gear.spanned, gear.spanned + 1):
            turn = (count - 1) * 2 * mpmath.pi / gear.teeth + 2 * half
            assert gear.span(count) == pytest.approx(
                float(gear.teeth * mpmath.cos(phi) / 2 * turn), rel=1e-12
            )


@given(gears)
def test_chordal_thickness_and_height_are_measured_on_the_drawn_tooth(gear: Gear) -> None:
    assume(not gear.is_pointed)
    roll = gear.roll(gear.pitch)
    spot = gear.involute(roll)[0]
    wide, high = gear.chordal
    assert wide == pytest.approx(2 * abs(spot.y))
    assert high == pytest.approx(gear.outside - spot.x)
    # The textbook's D·sin(90°/N) (handbook formula), without backlash.
    assert wide == pytest.approx(gear.teeth * math.sin(math.pi / 2 / gear.teeth))


@given(st.integers(12, 80), st.sampled_from(ANGLES))
def test_over_pins_is_the_size_over_pins_that_touch_both_flanks(teeth: int, angle: float) -> None:
    gear = Gear(teeth, 1.0, math.radians(angle), 1.0, 1.25)
    pin = 1.728
    middle = polar(1.0, math.pi / teeth)

    def clear(far: float) -> float:
        """How far a pin on the middle line of a space is off the nearest place of the flank."""

        def away(roll: float) -> float:
            place = gear.involute(roll)[0]
            return abs(Point(place.x, -place.y) - middle * far)

        return (
            float(
                minimize_scalar(
                    away, bounds=(0.0, 3.0), method="bounded", options={"xatol": 1e-11}
                ).fun
            )
            - pin / 2
        )

    far = brentq(clear, gear.pitch - 0.4, gear.pitch + 1.5, xtol=1e-11)
    even = teeth % 2 == 0
    wanted = 2 * far * (1 if even else math.cos(math.pi / 2 / teeth)) + pin
    assert gear.over_pins(pin) == pytest.approx(wanted, rel=1e-8)


def test_pins_that_fall_between_the_teeth_are_told_and_not_measured() -> None:
    assert Gear(24, 2.0, math.radians(20), 1.0, 1.25, 2.8).over_pins(1.0) is None


def test_two_arcs_of_twenty_teeth_come_to_the_taught_radii() -> None:
    """Common practice, no source: 20 teeth, 20°, 4.66 face and 2.51 flank for a diametral pitch of 1."""
    face, flank, off = radii(20, math.radians(20), 1.0, 1.157)
    assert face == pytest.approx(4.66, rel=0.05)
    assert flank == pytest.approx(2.51, rel=0.05)
    assert 0 < off < 0.02


@given(gears)
def test_no_other_arc_through_the_pitch_point_departs_less(gear: Gear) -> None:
    assume(not gear.is_pointed)
    face, flank, off = gear.two_arcs
    for arc, low, high in ((face, gear.pitch, gear.tip), (flank, gear.start, gear.pitch)):
        assert abs(arc.centre) == pytest.approx(gear.base), "its centre lies on the base circle"
        assert (
            abs(abs(gear.involute(gear.roll(gear.pitch))[0] - arc.centre) - arc.radius)
            < 1e-9 * gear.pitch
        )
        least = gear.departure(arc, low, high)
        assert least <= off + 1e-12
        for factor in (0.99, 1.01):
            assert gear.departure(gear.centred(arc.radius * factor), low, high) >= least * (
                1 - 1e-6
            )


def test_a_five_inch_gear_of_twenty_teeth_by_the_older_proportions() -> None:
    """Worked example, common practice: outside 5.5 in, and with 1.157 root 4.4215 in."""
    done = work_out(
        "units in\nO = datum\nw = gear, about O, 20 teeth, diametral pitch 4, pressure 14 1/2°, proportions older\n"
    )
    assert not done.solution.errors
    parts = done.solution.figure.items["w"].parts
    assert 2 * parts["outside"].radius == pytest.approx(5.5)  # type: ignore[union-attr]
    assert 2 * parts["root"].radius == pytest.approx(4.4215)  # type: ignore[union-attr]
    made = done.solution.entries[-1].made
    assert made is not None
    assert "outside D + 2a = 5 + 2 × 1/4 = 5 1/2: on both sides" in made.working
    assert "root D − 2b = 5 − 2 × 0.2893 = 4.4215" in made.working


@pytest.mark.parametrize(
    ("clauses", "teeth"),
    [
        ("24 teeth, module 3", 24),
        ("24 teeth, pitch diameter 72", 24),
        ("module 3, pitch diameter 72", 24),
        ("24 teeth, module 3, pitch diameter 72", 24),
        ("diametral pitch 8, pitch diameter 4 in", 32),
    ],
)
def test_any_sufficient_two_make_the_same_gear(clauses: str, teeth: int) -> None:
    parts = solved(f"w = gear, about O, {clauses}, shown three\n").solution.figure.items["w"].parts
    wide = 72 if "in" not in clauses.split() else 101.6
    assert 2 * parts["pitch"].radius == pytest.approx(wide)  # type: ignore[union-attr]
    assert 2 * parts["outside"].radius == pytest.approx(wide * (teeth + 2) / teeth)  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("clauses", "words"),
    [
        ("24 teeth", "needs two of these"),
        ("24 teeth, module 3, pitch diameter 75", "one of the three is wrong"),
        ("module 3, pitch diameter 71", "not a whole number of teeth"),
        ("24 teeth, module 3, diametral pitch 8", "one of them only"),
        ("24 teeth, module 3, pressure 45°", "between 10° and 35°"),
        ("5 teeth, module 3", "at least 6 teeth"),
        ("24 teeth, module 3, backlash 9", "less than a tooth is thick"),
        ("24 teeth, module 3, bore diameter 70", "inside the root circle"),
        ("24 teeth, module 3, keyway 4 by 2", "say its diameter too"),
        ("24 teeth, module 3, bore diameter 20, keyway 30 by 2", "narrower than the bore"),
        ("24 teeth, module 3, mating 3", "a mate has at least 6"),
        ("6 teeth, module 3, dedendum 3", "deeper than the gear"),
        ("24 teeth, module 0", "more than nought"),
    ],
)
def test_a_gear_that_cannot_be_is_refused_in_the_trades_words(clauses: str, words: str) -> None:
    done = work_out(f"{HEAD}w = gear, about O, {clauses}\n")
    assert any(words in error.message for error in done.solution.errors), done.solution.errors


@pytest.mark.parametrize(
    ("clauses", "weight", "words"),
    [
        ("12 teeth, module 3", "look", "from 18 teeth on they are not"),
        ("8 teeth, module 3, pressure 25°, addendum 1.6", "wrong", "pointed"),
        ("24 teeth, module 3, addendum 1.25, dedendum 1.2", "wrong", "the clearance is"),
        ("24 teeth, module 3, addendum 0.6, mating 24", "look", "contact ratio is"),
        ("12 teeth, module 3, mating 90", "wrong", "they interfere"),
        ("24 teeth, module 2.2", "note", "not in the first series of ISO 54"),
    ],
)
def test_what_is_wrong_with_a_gear_is_found(clauses: str, weight: str, words: str) -> None:
    found = remarks(solved(f"w = gear, about O, {clauses}\n"))
    assert any(w == weight and words in told for w, told in found), found


@given(gears, st.sampled_from(["involute", "arcs", "arc"]))
def test_a_ring_of_teeth_closes_and_its_teeth_are_all_alike(gear: Gear, method: str) -> None:
    ring = gear.ring(method, "w", Point(3.0, 4.0), 0.4, gear.teeth)  # type: ignore[arg-type]
    assert ring.closed
    ends = zip(ring.pieces, (*ring.pieces[1:], ring.pieces[0]), strict=True)
    assert max(abs(a.exit - b.entry) for a, b in ends) < 1e-9 * gear.outside
    drawn = outline(ring, 24)
    assert drawn.is_valid
    assert drawn.area == pytest.approx(ring.area, rel=1e-4)
    turned = affinity.rotate(drawn, 360 / gear.teeth, origin=(3.0, 4.0))
    assert drawn.symmetric_difference(turned).area < 1e-9 * drawn.area
    far = [math.dist((3, 4), spot) for spot in drawn.exterior.coords]
    assert max(far) <= gear.outside * (1 + 1e-9)
    assert min(far) == pytest.approx(gear.root, rel=1e-6)
    space = outline(gear.ring(method, "w", Point(0.0, 0.0), 0.0, 1))  # type: ignore[arg-type]
    assert space.is_valid


@given(gears)
def test_the_drawn_flank_keeps_within_its_stated_tolerance_of_the_involute(gear: Gear) -> None:
    """The involute is r·(cos θ + θ·sin θ), r·(sin θ − θ·cos θ) (definition), in forty figures."""
    ring = gear.ring("involute", "w", Point(0.0, 0.0), 0.0, gear.teeth)
    flank = [p for p in ring.pieces if p.name.startswith("w.tooth1.flank")]
    with mpmath.workdps(40):
        for share in (0.05, 0.3, 0.6, 0.95):
            roll = (
                mpmath.mpf(gear.roll(gear.start)) * (1 - share)
                + mpmath.mpf(gear.roll(gear.tip)) * share
            )
            turned = roll - mpmath.mpf(gear.half_base)
            place = (
                mpmath.mpc(mpmath.cos(turned), mpmath.sin(turned))
                * gear.base
                * mpmath.mpc(1, -roll)
            )
            spot = Point(float(place.real), float(place.imag))
            if (
                abs(spot) < min(abs(piece.entry) for piece in flank[: len(flank) // 2])
                or abs(spot) < gear.base * 1.001
            ):
                continue  # the fillet has taken it
            assert Loop(tuple(flank), False).distance(spot) < CLOSE * 1.5


@given(gears, st.integers(12, 90), st.floats(-0.5, 0.5))
def test_meshed_involutes_touch_on_the_line_of_action_and_roll_without_slipping_apart(
    gear: Gear, teeth: int, share: float
) -> None:
    """Conjugate action: turned by any amount, both flanks have one place and one square in common."""
    mate = gear.mate(teeth)
    assume(gear.teeth >= 12 and not gear.is_pointed and not mate.is_pointed)
    turn = share * math.tau / gear.teeth
    back = turn * gear.teeth / teeth

    def upper(which: Gear, roll: float, turned: float) -> tuple[Point, Point]:
        """A place of the flank on the counter-clockwise side of a tooth, and its direction."""
        place, ahead = which.involute(roll)
        cos, sin = math.cos(turned), math.sin(turned)
        return tuple(Point(p.x * cos + p.y * sin, p.x * sin - p.y * cos) for p in (place, ahead))  # type: ignore[return-value]

    # A flank's square touches the base circle where the thread leaves it: at −φ here, at π − φ on the mate.
    first = turn + gear.half_base + gear.pressure
    second = mate.half_base + gear.pressure - math.pi / teeth - back
    assume(first > 0 and second > 0)
    one, ahead = upper(gear, first, turn)
    two, behind = upper(mate, second, math.pi - math.pi / teeth - back)
    assert abs(one - (Point(gear.distance(mate), 0.0) + two)) < 1e-6
    assert abs(ahead.cross(behind)) < 1e-6
    # Both lie on the line through the pitch point at the pressure angle.
    assert abs((one - Point(gear.pitch, 0.0)).cross(polar(1.0, math.pi / 2 - gear.pressure))) < 1e-6


@pytest.mark.parametrize(("teeth", "other"), [(18, 18), (20, 41), (34, 25)])
@pytest.mark.parametrize("share", [0.0, 0.17, 0.31, 0.5, 0.83])
def test_a_drawn_pair_touches_and_never_overlaps_however_it_is_turned(
    teeth: int, other: int, share: float
) -> None:
    gear = Gear(teeth, 1.0, math.radians(20), 1.0, 1.25, 0.0, 0.2)
    mate = gear.mate(other)
    turn = share * math.tau / teeth
    one = outline(gear.ring("involute", "a", Point(0.0, 0.0), turn, teeth), 12)
    middle = Point(gear.distance(mate), 0.0)
    start = math.pi - math.pi / other - turn * teeth / other
    two = outline(mate.ring("involute", "b", middle, start, other), 12)
    assert one.intersection(two).area < 2e-3
    assert one.distance(two) < 2e-3


@given(gears, st.integers(18, 90))
def test_the_contact_ratio_is_the_path_between_the_outside_circles_over_the_base_pitch(
    gear: Gear, teeth: int
) -> None:
    mate = gear.mate(teeth)
    assume(not gear.is_pointed and not mate.is_pointed)
    line = shapely.LineString(
        [
            (gear.pitch - 50 * math.sin(gear.pressure), -50 * math.cos(gear.pressure)),
            (gear.pitch + 50 * math.sin(gear.pressure), 50 * math.cos(gear.pressure)),
        ]
    )
    both = (
        shapely.Point(0, 0)
        .buffer(gear.outside, 4000)
        .intersection(shapely.Point(gear.distance(mate), 0).buffer(mate.outside, 4000))
    )
    path = line.intersection(both).length
    assert gear.contact_ratio(mate) == pytest.approx(
        path / (math.pi * math.cos(gear.pressure)), rel=1e-4
    )


def test_undercut_begins_at_the_published_least_number_of_teeth() -> None:
    """Handbook values: 18 teeth at 20°, 32 at 14½°, 12 at 25° are the least that a full-depth rack leaves whole."""
    for degrees, least in ((20, 18), (14.5, 32), (25, 12)):
        assert not Gear(least, 1.0, math.radians(degrees)).is_undercut
        assert Gear(least - 1, 1.0, math.radians(degrees)).is_undercut


def test_a_ring_of_120_teeth_is_one_closed_polyline_in_dxf_within_its_tolerance() -> None:
    done = solved("w = gear, about O, 120 teeth, module 3\nrim = line in, w\n")
    text = write_cutter_dxf(done.outlines, done.solution.unit)
    (entity,) = ezdxf.read(io.StringIO(text)).modelspace().query("LWPOLYLINE")
    assert entity.closed
    far = [math.hypot(p.x, p.y) for p in make_path(entity).flattening(0.001)]
    assert max(far) == pytest.approx(183, abs=1e-6)
    assert min(far) == pytest.approx(176.25, abs=1e-3)
    gear = Gear(120, 3.0, math.radians(20), 1.0, 1.25, 0.0, 0.9)
    corners = [
        (x, y) for x, y, *_ in entity.get_points() if 177.5 < math.hypot(x, y) < gear.tip * 0.999
    ]
    assert len(corners) >= 120
    for x, y in corners[::7]:
        radius = math.hypot(x, y)
        tooth = math.tau / 120
        away = abs(math.remainder(math.atan2(y, x) - math.pi / 2, tooth))
        assert away * radius == pytest.approx(gear.half(radius) * radius, abs=CLOSE * 3)


def test_a_bore_with_a_keyway_is_one_closed_outline() -> None:
    done = solved(
        "w = gear, about O, 24 teeth, module 4, bore diameter 25, keyway 8 by 3.3\nbore = line in, w.bore\n"
    )
    bore = done.solution.figure.items["bore"].shape
    assert isinstance(bore, Loop)
    assert bore.closed
    circle = shapely.Point(0, 0).buffer(12.5, 2000)
    slot = shapely.box(-4, 0, 4, 15.8)
    assert abs(bore.area) == pytest.approx(circle.union(slot).area, rel=1e-5)
    assert {round(p.curve.radius, 9) for p in bore.pieces if isinstance(p.curve, Arc)} == {12.5}


@pytest.mark.parametrize(("shown", "count"), [("one", 1), ("three", 3)])
def test_some_teeth_are_shown_and_the_rest_by_their_circles(shown: str, count: int) -> None:
    done = solved(f"w = gear, about O, 24 teeth, module 4, shown {shown}, by arcs\n")
    ring = done.solution.figure.items["w"].shape
    assert isinstance(ring, Loop)
    assert not ring.closed
    assert sum(piece.name.endswith("tip") for piece in ring.pieces) == count
    middle = next(p for p in ring.pieces if p.name == f"w.tooth{count // 2 + 1}.tip").curve
    assert isinstance(middle, Arc)
    assert math.degrees(middle.middle.angle) == pytest.approx(90), "the middle one stands upright"


solved = partial(solved, head=HEAD)


@given(st.integers(12, 60), st.floats(-0.3, 0.6), st.floats(0, 0.3))
def test_a_shifted_profile_by_what_is_drawn_and_by_the_base_pitch(
    teeth: int, shift: float, play: float
) -> None:
    """Thickness πm/2 + 2xm·tan φ, met on the drawn ring by the pitch circle; span (k − 1)·p_b + s_b by definition."""
    x, backlash = round(shift, 3), round(play, 3)
    row = f"w = gear, about O, {teeth} teeth, module 4, profile shift {'(' * (x < 0)}{x}{')' * (x < 0)}, backlash {backlash}, fillet radius 0.2\n"
    done = solved(row)
    gear = Gear(teeth, 4.0, math.radians(20), 1.0, 1.25, backlash, 0.2, x)
    assume(not gear.is_undercut)
    assert gear.thickness == pytest.approx(
        2 * math.pi + 8 * x * math.tan(math.radians(20)) - backlash / 2
    )
    pitch = Circle(Point(0.0, 0.0), gear.pitch)
    met = sorted(
        m.point.angle % math.tau
        for piece in run_of(done, "w").pieces
        if piece.name.startswith("w.tooth1.")
        for m in meet(piece.curve, pitch)
        if is_drawn_at(piece.curve, m.point)
    )
    # Both flanks are drawn with arcs; between the places where these are held against the involute they may be a
    # fifth further off than the 0.0016 aimed at.
    assert (met[-1] - met[0]) * gear.pitch == pytest.approx(gear.thickness, abs=5e-3)
    count = gear.spanned
    assert gear.span(count) == pytest.approx(
        (count - 1) * gear.base_pitch + 2 * gear.base * gear.half_base
    )
    assert gear.outside - gear.root == pytest.approx(9)


def test_the_shift_that_ends_undercut() -> None:
    """x = (17.097 − N)/17.097 at 20° and full depth (handbook rule of 17 teeth, from memory)."""
    for teeth in (9, 12, 15):
        least = (2 / math.sin(math.radians(20)) ** 2 - teeth) / (
            2 / math.sin(math.radians(20)) ** 2
        )
        assert Gear(teeth, 1.0, math.radians(20), shift=least - 0.01).is_undercut
        assert not Gear(teeth, 1.0, math.radians(20), shift=least + 0.01).is_undercut


def test_stated_radii_are_held_against_the_best() -> None:
    """The taught 4.66 and 2.51 for 20 teeth of 20°, per unit diametral pitch (common practice, no source)."""
    entry = solved(
        "w = gear, about O, 20 teeth, module 4, by arcs, radii 18.64 and 10.04\n"
    ).solution.entries[-1]
    assert entry.made is not None
    told = "\n".join(entry.made.working)
    assert "face radius 4.660 × 4 = 18.64, flank radius 2.510 × 4 = 10.04" in told
    assert "stated; the best are" in told
    best = Gear(20, 4.0, math.radians(20)).two_arcs
    assert entry.made.departs is not None
    assert entry.made.departs >= best[2]
    assert "belong to flanks" in refused("w = gear, about O, 20 teeth, module 4, radii 18 and 10\n")
    assert "has a radius over" in refused(
        "w = gear, about O, 20 teeth, module 4, by arcs, radii 18 and 1\n"
    )


def test_over_pins_is_told_where_it_is_asked_for() -> None:
    """The pin touches both flanks of a space: its middle stands where the drawn flanks are half a pin away."""
    done = solved("w = gear, about O, 24 teeth, module 4, over pins 7\n")
    size = Gear(24, 4.0, math.radians(20)).over_pins(7.0)
    assert size is not None
    middle = polar(size / 2 - 3.5, math.pi / 2 + math.pi / 24)
    assert run_of(done, "w").distance(middle) == pytest.approx(3.5, abs=4e-3)
    assert done.solution.entries[-1].made is not None
    assert any(
        row.startswith("over two pins of Ø7:") for row in done.solution.entries[-1].made.working
    )
    assert "take larger ones" in refused("w = gear, about O, 24 teeth, module 4, over pins 1\n")


def test_the_line_of_the_span_computes() -> None:
    """What stands before the last sign of equality comes to what stands behind it, shifted and with backlash."""
    row = "w = gear, about O, 24 teeth, module 4, profile shift 0.25, backlash 0.5\n"
    made = solved(row).solution.entries[-1].made
    assert made is not None
    told = next(line for line in made.working if line.startswith("span"))
    _, numbers, result = told.rsplit(" = ", 2)
    said = re.sub(
        r"(cos|tan) ([\d.]+)°",
        lambda m: str(getattr(math, m[1])(math.radians(float(m[2])))),
        numbers,
    )
    for sign, meant in (("×", "*"), ("÷", "/"), ("−", "-"), ("π", str(math.pi))):
        said = said.replace(sign, meant)
    assert float(sympy.sympify(said)) == pytest.approx(float(result), abs=1e-3)
