"""Profiles cut off where a roller or a face cannot be followed, held against what the follower sweeps: shapely for
outlines, the follower turned round the standing cam. Sudden drops; least radii and pressure angles told."""

import math
from dataclasses import replace

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from desk import led_to, outline, run_of, solved
from entrick.core.desk import Work, work_out
from entrick.core.geometry import Loop, Point, piece_of
from entrick.core.rules.cam import Cam, Event
from entrick.core.rules.envelope import Envelope, envelope
from entrick.core.rules.motion import MOTIONS

CLOSE = 0.02
"""Millimetres: what chords of the outline and places of the follower leave between them."""

MOVES = st.sampled_from(["uniform", "harmonic", "parabolic", "cycloidal", "rounded"])


@st.composite
def cams(draw: st.DrawFn) -> Cam:
    """Stock exercises: rise, dwell, fall, dwell; many with a roller too large, or a face that loses contact."""
    rise, stand, fall = (
        draw(st.integers(30, 150)),
        draw(st.integers(10, 60)),
        draw(st.integers(30, 140)),
    )
    lift, flat = draw(st.integers(5, 30)), draw(st.booleans())
    events = (
        Event("rise1", math.radians(rise), 0, lift, MOTIONS[draw(MOVES)]),
        Event("dwell1", math.radians(stand), lift, lift),
        Event("fall1", math.radians(fall), lift, 0, MOTIONS[draw(MOVES)]),
        Event("dwell2", math.radians(360 - rise - stand - fall), 0, 0),
    )
    least = draw(st.integers(15, 45))
    roller = 0.0 if flat else float(draw(st.integers(3, 12)))
    offset = 0.0 if flat else float(draw(st.sampled_from([0, 0, 4, -5])))
    kind = "flat" if flat else "roller"
    return Cam(Point(0, 0), float(least), draw(st.booleans()), events, kind, roller, offset)


def drawn(cam: Cam) -> tuple[Envelope, shapely.Polygon]:
    found = envelope(cam)
    pieces = tuple(piece_of(curve, str(number)) for number, (_, curve) in enumerate(found.curves))
    gaps = [abs(a.exit - b.entry) for a, b in zip(pieces, (*pieces[1:], pieces[0]), strict=True)]
    assert max(gaps) < 1e-6, "end to end and closed"
    return found, outline(Loop(pieces, True), per_turn=1440)


def kept_off(cam: Cam, shape: shapely.Polygon) -> list[float]:
    """How far the outline stays off the follower, place by place: below nought it is cut into."""
    found = []
    for index, share in cam.places(4):
        out, _ = cam.frame(cam.starts[index] + cam.events[index].angle * share)
        if cam.follower == "flat":
            rests = max(x * out.x + y * out.y for x, y in shape.exterior.coords)
            found.append(cam.least + cam.events[index].at(share)[0] - rests)
        else:
            spot = cam.pitch(index, share)[0]
            found.append(shape.exterior.distance(shapely.Point(spot.x, spot.y)) - cam.roller)
    return found


@given(cams())
def test_a_profile_is_what_the_follower_leaves(cam: Cam) -> None:
    found, shape = drawn(cam)
    if found.lost:
        return
    assert shape.is_valid, "it does not cross itself"
    off = kept_off(cam, shape)
    assert min(off) > -CLOSE, "the follower cuts nothing away that is drawn"
    if cam.follower == "flat":
        assert max(off) == pytest.approx(found.lag, abs=CLOSE + 0.02 * found.lag)
    if not found.corners:
        assert max(off) < CLOSE, "where nothing is cut off it follows everywhere"


def remarks(done: Work) -> list[tuple[str, str]]:
    made = next(e.made for e in done.solution.entries if e.statement.name == "c")
    assert made is not None
    return [(remark.weight, remark.message) for remark in made.remarks()]


def test_uniform_motion_with_a_roller_is_an_ordinary_exercise() -> None:
    """The outer corners leave a gap of 0.037, the hollow ones none (an outline turned under its follower)."""
    done = solved(
        "c = cam, about O, least 40, roller radius 8, rise 120° by 30 uniform, dwell 60°, "
        "fall 120° by 30 uniform, dwell 60°\nr = line in, c\n"
    )
    told = remarks(done)
    assert {weight for weight, _ in told} == {"look"}
    assert any("comes up to 0.037 short of its lift" in message for _, message in told)
    assert shapely.is_valid(outline(run_of(done, "c")))
    led_to(done)


@pytest.mark.parametrize(
    "follower", ["knife", "flat", "roller radius 6", "roller radius 6, offset 5 right"]
)
@pytest.mark.parametrize("diagram", ["", "diagram from G, "])
@pytest.mark.parametrize(
    "events",
    [
        "rise 300° by 20 uniform, dwell 60°, fall 0° by 20",
        "fall 0° by 20, rise 300° by 20 harmonic, dwell 60°",
        "rise 120° by 20 harmonic, fall 0° by 8, dwell 60°, fall 180° by 12 cycloidal",
    ],
)
def test_a_sudden_drop_is_drawn_and_is_no_fault(follower: str, diagram: str, events: str) -> None:
    done = solved(
        f"G = point, 90 right of O\nc = cam, about O, least 40, {follower}, {diagram}{events}\nr = line in, c\n"
    )
    told = remarks(done)
    assert any("drops" in message for _, message in told)
    assert {weight for weight, _ in told} == {"look"}
    shape = outline(run_of(done, "c"), per_turn=1440)
    assert shape.is_valid
    if follower == "knife":
        size = 20 if "by 8" not in events else 8
        walls = [piece for piece in run_of(done, "c").pieces if piece.name == "c.fall1"]
        assert [piece.length for piece in walls] == [pytest.approx(size)]
        assert walls[0].curve.direction.cross(walls[0].entry.unit) == pytest.approx(0, abs=1e-9)
    led_to(done)


def test_what_is_said_of_a_drop_that_cannot_be() -> None:
    errors = work_out(
        "units mm\nO = datum\nc = cam, about O, least 40, rise 0° by 20, fall 360° by 20\n"
    ).solution.errors
    assert "only a fall may be sudden" in errors[0].message


@given(cams())
def test_pressure_angles_and_the_sharpest_bulge_are_told_apart(cam: Cam) -> None:
    """By differences along the outline itself, not by the formulas of the cam."""
    going = cam.steepest_going
    if cam.follower != "flat":
        for way, sign in (("rise", 1), ("fall", -1)):
            most = 0.0
            for index, event in enumerate(cam.events):
                if event.lift * sign <= 0:
                    continue
                for k in range(1, 400):
                    share = k / 400
                    here, there = (cam.pitch(index, share + d)[0] for d in (-1e-6, 1e-6))
                    out, _ = cam.frame(cam.starts[index] + event.angle * share)
                    across = (there - here).unit.normal
                    most = max(most, math.degrees(math.acos(min(1.0, abs(across.dot(out))))))
            assert going[way][0] == pytest.approx(most, abs=0.2)
    radius, where = cam.tightest()
    if not 0.5 < radius < 1000:
        return
    index, share = cam.where(math.radians(where))
    share = min(max(share, 0.002), 0.998)
    a, b, c = (cam.profile(index, share + d)[0] for d in (-1e-3, 0.0, 1e-3))
    area = abs((b - a).cross(c - a)) / 2
    if area > 0 and not any(abs(share - at) < 2e-3 for at in cam.events[index].breaks):
        assert abs(b - a) * abs(c - b) * abs(c - a) / (4 * area) == pytest.approx(radius, rel=0.05)


FOLLOWERS = st.sampled_from(["roller radius 8", "roller radius 5", "knife", "flat"])
SWINGS = st.sampled_from(["harmonic", "cycloidal", "parabolic", "uniform"])


@given(
    st.tuples(st.integers(60, 140), st.integers(20, 60), st.integers(60, 140)),
    st.integers(6, 28),
    st.tuples(SWINGS, SWINGS),
    FOLLOWERS,
    st.sampled_from(["", ", ccw"]),
    st.sampled_from(["", ", right"]),
    st.tuples(st.integers(70, 100), st.integers(-30, 40)),
)
def test_a_cam_under_an_arm_is_what_the_arm_leaves(
    angles: tuple[int, int, int],
    swing: int,
    motions: tuple[str, str],
    follower: str,
    way: str,
    side: str,
    place: tuple[int, int],
) -> None:
    """The arm turned round the standing cam by rotations alone: its end keeps off the outline by the roller, its face
    touches it and cuts nothing."""
    rise, stand, fall = angles
    x, y = place
    apart = math.hypot(x, y)
    arm = "" if follower == "flat" else f"arm {round(apart) - 4}, "
    done = solved(
        f"P = point, {x} right of O, {abs(y)} {'above' if y >= 0 else 'below'}\n"
        f"c = rocker, about O, pivot P, {arm}least 32, {follower}{way}{side}, rise {rise}° by {swing}° {motions[0]}, "
        f"dwell {stand}°, fall {fall}° by {swing}° {motions[1]}, dwell {360 - rise - stand - fall}°\nr = line in, c\n"
    )
    told = remarks(done)
    if any("no profile does that" in message for _, message in told):
        return
    loop = run_of(done, "c")
    shape = outline(loop, per_turn=1440)
    assert shape.is_valid
    cut = any("cut off" in message for _, message in told)
    size = {"roller radius 8": 8.0, "roller radius 5": 5.0}.get(follower, 0.0)
    turns, lean = (1 if not way else -1), (-1 if side else 1)
    long = round(apart) - 4
    out = 32 + size
    rests = (
        math.asin(32 / apart)
        if follower == "flat"
        else math.acos((apart**2 + long**2 - out**2) / (2 * apart * long))
    )
    for degrees in range(0, 360, 5):
        moved = degrees - rise - stand
        if degrees <= rise:
            gone = MOTIONS[motions[0]].shape(degrees / rise)[0]
        elif moved <= 0:
            gone = 1.0
        else:
            gone = 1 - MOTIONS[motions[1]].shape(min(moved / fall, 1.0))[0]
        at = math.atan2(y, x) + turns * math.radians(degrees)
        pivot = Point(apart * math.cos(at), apart * math.sin(at))
        along = at + math.pi + lean * (rests + math.radians(swing) * gone)
        ahead = Point(math.cos(along), math.sin(along))
        if follower == "flat":
            square = ahead.normal * lean
            rests_on = max(
                (cx - pivot.x) * square.x + (cy - pivot.y) * square.y
                for cx, cy in shape.exterior.coords
            )
            assert rests_on < CLOSE
            assert cut or rests_on > -CLOSE
        else:
            end = pivot + ahead * long
            off = shape.exterior.distance(shapely.Point(end.x, end.y)) - size
            assert off > -CLOSE
            assert cut or off < CLOSE
    led_to(done)


@pytest.mark.parametrize(
    ("rows", "told"),
    [
        ("arm 20, least 30, knife", "longer than 50 and shorter than 110"),
        ("least 30, flat, arm 60", "a flat face has no arm"),
        ("least 90, flat", "inside the least circle"),
        ("arm 76, least 30, roller radius 8, flat", "a roller or something else"),
    ],
)
def test_an_arm_that_cannot_be_is_told(rows: str, told: str) -> None:
    text = (
        f"units mm\nO = datum\nP = point, 80 right of O\nc = rocker, about O, pivot P, {rows}, rise 120° by 20°, "
        "dwell 60°, fall 180° by 20°\n"
    )
    assert told in work_out(text).solution.errors[0].message


@given(cams())
def test_a_groove_holds_its_roller_all_round(cam: Cam) -> None:
    if cam.follower == "flat":
        return
    flanks = [drawn(replace(cam, outer=side)) for side in (False, True)]
    if any(found.lost for found, _ in flanks):
        return
    (_, inner), (_, outer) = flanks
    assert outer.is_valid
    assert outer.contains(inner)
    for index, share in cam.places(4):
        spot = cam.pitch(index, share)[0]
        room = outer.exterior.distance(shapely.Point(spot.x, spot.y))
        assert room > cam.roller - CLOSE, "the roller goes through"
        assert flanks[1][0].corners or room < cam.roller + CLOSE, "and touches on both sides"


def test_a_groove_is_drawn_beside_its_rollers() -> None:
    done = solved(
        "c = cam, about O, least 40, roller radius 8, groove, rise 120° by 25 harmonic, dwell 60°, "
        "fall 120° by 25 uniform, dwell 60°\nr = line in, c\ns = line in, c.outer\n"
    )
    led_to(done)
