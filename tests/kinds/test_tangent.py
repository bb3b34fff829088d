"""``tangent``."""

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from desk import HEAD, led_to, line_of, refused, solved, thing
from entrick.core.desk import work_out
from entrick.core.geometry import Circle, Line, Point

circle_rows = st.tuples(st.floats(-60, 60), st.floats(-60, 60), st.floats(2, 40))


@given(
    circle_rows,
    circle_rows,
    st.sampled_from(["outer", "crossed"]),
    st.sampled_from(["above", "below", "left", "right"]),
)
def test_common_tangents_touch_both(a, b, pair: str, side: str) -> None:  # type: ignore[no-untyped-def]
    apart = math.hypot(a[0] - b[0], a[1] - b[1])
    assume(apart > a[2] + b[2] + 1)
    rows = HEAD + "".join(
        f"{n} = point, {x:.4f} right of O, {y:.4f} above O\nc{n} = circle, centre {n}, radius {r:.4f}\n"
        for n, (x, y, r) in zip("AB", (a, b), strict=True)
    )
    done = work_out(f"{rows}t = line, touching cA, touching cB, {pair}, {side}\n")
    entry = done.solution.entries[-1]
    if (
        entry.made is None
    ):  # both of the pair lie alike on that side: they must then be told apart otherwise
        assert "2 of the 4 lines still fit" in entry.error.message
        for candidate in entry.candidates:
            chosen = f"{rows}t = line, touching cA, touching cB, {', '.join(candidate.words)}\n"
            assert work_out(chosen).solution.entries[-1].made.shape == candidate.shape
        return
    line = entry.made.shape
    assert isinstance(line, Line)
    for name in ("cA", "cB"):
        circle = thing(done, name)
        assert isinstance(circle, Circle)
        assert abs(abs(line.offset_of(circle.centre)) - circle.radius) < 1e-8
        touch = thing(done, f"t.touch.{name}")
        assert isinstance(touch, Point)
        assert abs(abs(touch - circle.centre) - circle.radius) < 1e-8


def test_a_tangent_from_a_point() -> None:
    done = work_out(
        HEAD
        + "A = point, 50 right of O\nc = circle, centre O, radius 30\nt = line, through A, touching c, above\n"
    )
    touch = thing(done, "t.touch.c")
    assert isinstance(touch, Point)
    assert (touch.x, touch.y) == pytest.approx((18, 24))  # 30²/50 and the 3-4-5 triangle
    assert "lie one inside the other" in refused(
        "c = circle, centre O, radius 30\nA = point, 5 right of O\nt = line, through A, touching c"
    )


OVAL = "e = ellipse, centred on O, axes 60 and 40\n"


@given(st.floats(0, 179), st.sampled_from(["level", "plumb", "at", "parallel to w"]), st.booleans())
def test_a_tangent_in_a_direction_keeps_it_and_touches(
    degrees: float, way: str, normal: bool
) -> None:
    """By the line of support of an ellipse: its offset squared is a² sin² + b² cos² of the direction."""
    angle = {"level": 0.0, "plumb": 90.0}.get(way, round(degrees, 2))
    said = f"at {angle}°" if way == "at" else way
    which = (
        "above"
        if (1 < angle < 179 and abs(angle - 90) > 1) or angle < 1 or angle > 179
        else "right"
    )
    done = solved(
        f"{OVAL}w = line, through O, at {round(degrees, 2)}°\nt = tangent, to e, {said}, {which}"
        f"{', normal' if normal else ''}\n"
    )
    line, turn = line_of(done, "t"), math.radians(angle)
    if normal:
        assert abs(line.direction.dot(Point(math.cos(turn), math.sin(turn)))) < 1e-9
    else:
        assert abs(line.direction.cross(Point(math.cos(turn), math.sin(turn)))) < 1e-9
        reach = math.hypot(30 * math.sin(turn), 20 * math.cos(turn))
        assert abs(abs(line.offset_of(Point(0, 0))) - reach) < 1e-9
    led_to(done)


def test_a_tangent_that_cannot_be_drawn_says_why() -> None:
    for said, told in (
        ("from O", "O lies inside"),
        ("level, plumb, above", "say one of them"),
        ("parallel O.level, above", "did you mean parallel to O.level"),
    ):
        assert told in refused(f"{OVAL}t = tangent, to e, {said}\n")
