"""``line in``: walks that go along the same pieces again and again."""

import math

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st
from shapely import affinity

from desk import led_to, outline, refused, run_of, solved

DISC = "c = circle, centre O, radius 50\n"


@given(st.integers(2, 40), st.floats(0.1, 0.9), st.floats(1, 20), st.booleans())
def test_notches_all_round_are_walked_like_one(
    count: int, share: float, depth: float, inward: bool
) -> None:
    """Area by the shoelace and segments: disc less or more n notches; the outline comes back on itself when turned."""
    width = round(share * 100 * math.sin(math.pi / count), 6)
    depth = round(depth + 50 - math.sqrt(2500 - width**2 / 4), 6)
    way = "inward, " if inward else ""
    done = solved(
        f"{DISC}n = keyway, on c, width {width:.6f}, depth {depth:.6f}, {way}above\nrim = line in, c > n, {count} about O\n"
    )
    rim = run_of(done, "rim")
    assert rim.closed
    assert len(rim.pieces) == 4 * count
    half = math.asin(width / 100)
    floor = next(abs(p.curve.foot(type(p.entry)(0, 0))) for p in rim.pieces if p.name == "n.floor")  # type: ignore[union-attr]
    segment = 2500 * (half - math.sin(half) * math.cos(half))
    notch = width * (50 * math.cos(half) - floor) + segment
    assert abs(rim.area) == pytest.approx(math.pi * 2500 - count * notch, rel=1e-9)


def test_a_ratchet_is_one_tooth_said() -> None:
    done = solved(
        "T = point, 50 from O, at 90°\nB = point, 42 from O, at 75°\nC = point, 50 from O, at 75°\n"
        "tooth = run, from T, to B, to C\nrim = line in, tooth, 24 about O\n"
    )
    rim = outline(run_of(done, "rim"))
    step = math.radians(15)
    corners = [
        (r * math.cos(a), r * math.sin(a))
        for k in range(24)
        for r, a in ((50, math.pi / 2 - k * step), (42, math.pi / 2 - (k + 1) * step))
    ]
    area = (
        abs(
            sum(
                a[0] * b[1] - b[0] * a[1]
                for a, b in zip(corners, [*corners[1:], corners[0]], strict=True)
            )
        )
        / 2
    )
    assert rim.area == pytest.approx(area)
    assert not [f for f in done.findings if f.weight == "wrong"]


def test_what_cannot_turn_is_said() -> None:
    notch = DISC + "n = keyway, on c, width 5, depth 6, inward, above\n"
    assert "closes: it is not open" in refused(notch + "rim = line in, c > n, 6 about O, open\n")
    assert "does not turn" in refused(notch + "rim = line in, c > n upper, 6 about O\n")
    assert "at least twice" in refused(notch + "rim = line in, c > n, 1 about O\n")
    hole = DISC + "A = point, 50 above O\nb = box, 8 by 8, centred on A\n"
    assert "is closed: name the piece" in refused(hole + "rim = line in, c > b, 6 about O\n")


@given(
    st.integers(3, 9),
    st.floats(0.1, 0.3),
    st.sampled_from(["s1 > e > s2", "s2 > e > s1"]),
    st.floats(-60, 60),
)
def test_a_stepping_wheel_is_the_same_whichever_side_of_its_slot_is_named_first(
    count: int, share: float, order: str, place: float
) -> None:
    """By shapely: a disc with slots cut away; by the board: every place of it is led to, those of the copies too."""
    width, foot = round(share * 100 * math.sin(math.pi / count), 4), 25.0
    done = solved(
        f"{DISC}b = point, {foot} from O, at {place:.3f}°\nm = point, 50 from O, at {place:.3f}°\n"
        f"axis = line, from O to m\ne = circle, centre b, radius {width / 2}\n"
        f"s1 = parallel, to axis, at {width / 2}, above\ns2 = parallel, to axis, at {width / 2}, below\n"
        f"rim = line in, c > {order}, {count} about O\n"
    )
    rim = run_of(done, "rim")
    assert len(rim.pieces) == 4 * count
    disc = shapely.Point(0, 0).buffer(50, 256)
    slot = shapely.LineString([(foot, 0), (60, 0)]).buffer(width / 2, 256)
    cut = [
        affinity.rotate(slot, place + 360 * number / count, origin=(0, 0))
        for number in range(count)
    ]
    want = disc.difference(shapely.unary_union(cut))
    assert outline(rim, 64).symmetric_difference(want, grid_size=1e-7).area < 2e-3 * want.area
    led_to(done)
