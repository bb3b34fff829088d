"""``slot``."""

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from desk import run_of, solved, thing
from entrick.core.acts.act import Prick
from entrick.core.acts.names import plain
from entrick.core.geometry import Arc, Circle, Line, Point


@given(st.integers(-40, 40), st.integers(-40, 40), st.integers(1, 30))
def test_a_straight_slot_is_smooth_and_its_area_is_the_handbooks(
    x: int, y: int, width: int
) -> None:
    """Two half circles and a rectangle: π(w/2)² + w·l (common practice, no source)."""
    length = math.hypot(x, y)
    assume(length > 1)
    slot = run_of(
        solved(f"A = point, {x} right of O, {y} above O\ns = slot, from O to A, width {width}\n"),
        "s",
    )
    assert slot.closed
    assert all(junction.is_tangent for junction in slot.junctions)
    assert abs(slot.area) == pytest.approx(math.pi * width**2 / 4 + width * length)


def test_a_slot_by_its_length_over_all_takes_the_width_off() -> None:
    done = solved(
        "s = slot, centred on O, length 50, width 12, level\nt = slot, centred on O, 38 between centres, width 12, plumb\n"
    )
    low, high = run_of(done, "s").box
    assert (high.x - low.x, high.y - low.y) == pytest.approx((50, 12))
    low, high = run_of(done, "t").box
    assert (high.x - low.x, high.y - low.y) == pytest.approx((12, 50))


@given(st.integers(10, 50), st.integers(2, 18), st.integers(0, 300), st.integers(20, 250))
def test_a_curved_slot_between_two_angles(inner: int, wide: int, start: int, turn: int) -> None:
    """Half circles on the middle radius: a ring sector of the angle between centres and two half discs."""
    outer = inner + wide
    assume(turn < 330)
    slot = run_of(
        solved(f"s = slot, about O, radii {inner} and {outer}, from {start}° to {start + turn}°\n"),
        "s",
    )
    ends = math.pi * wide**2 / 4
    sector = math.radians(turn) / 2 * (outer**2 - inner**2)
    assert slot.closed
    assert all(j.is_tangent for j in slot.junctions)
    assert abs(slot.area) == pytest.approx(sector + ends)


def test_a_slot_bounded_by_circles_has_ends_that_aim_at_the_centre() -> None:
    done = solved(
        "pitch = circle, centre O, radius 60\nat = spaced, 3 on pitch, from above\nc = circle, centre at, radius 14\n"
        "s = slot, about O, radii 52 and 68, between c.1 and c.2\nf = slot, about O, radii 52 and 68, between c.2 and c.3, ends following\n"
    )
    slot = run_of(done, "s")
    for name in ("first_end", "second_end"):
        end = thing(done, f"s.{name}")
        assert isinstance(end, Line)
        assert abs(end.offset_of(Point(0, 0))) < 1e-9, "it aims at the centre"
    assert len(slot.pieces) == 4
    following = [p.curve for p in run_of(done, "f").pieces]
    assert sum(isinstance(c, Arc) and abs(c.radius - 14) < 1e-9 for c in following) == 2
    for p in slot.pieces:
        for ring in ("1", "2"):
            clear = thing(done, f"c.{ring}")
            assert isinstance(clear, Circle)
            assert abs(p.entry - clear.centre) >= 14 - 1e-6, (
                "the slot stays clear of the circles that bound it"
            )


@pytest.mark.parametrize("angle", range(0, 360, 15))
def test_sides_keep_their_names_at_every_angle(angle: int) -> None:
    done = solved(f"s = slot, centred on O, length 60, width 12, at {angle}°\n")
    middle = {
        name: thing(done, f"s.{name}").at(24.0) for name in ("upper", "lower", "left", "right")
    }
    assert middle["upper"].y >= middle["lower"].y - 1e-9
    assert middle["left"].x <= middle["right"].x + 1e-9
    assert len({thing(done, f"s.{name}") for name in middle}) == 2


WASHER = (
    "pitch = circle, centre O, radius 75\nat = spaced, 2 on pitch, from above\nclear = circle, centre at, radius 20\n"
    "long = slot, about O, radii 70 and 80, between clear.1 and clear.2{}\n"
)


@pytest.mark.parametrize(("words", "radius"), [(", on inner", 70), (", on outer", 80), ("", 75)])
def test_a_bounding_circle_cuts_where_it_is_said_to(words: str, radius: int) -> None:
    """By the triangle of the two centres and the crossing: 75² + r² − 2·75·r·cos = 20² (law of cosines)."""
    done = solved(WASHER.format(words))
    entry = done.solution.entries[-1]
    assert entry.made is not None
    off = math.degrees(math.acos((75**2 + radius**2 - 20**2) / (2 * 75 * radius)))
    assert math.degrees(thing(done, "long.outer").start) == pytest.approx(90 + off)
    assert any("as nothing is said" in row for row in entry.made.working) == (words == "")
    assert {"inner": "inner side", "outer": "outer side"}.get(
        words[5:], "middle line"
    ) in entry.made.sentence
    pricked = [
        act
        for step in done.steps
        if step.name == "long" and step.source
        for act in step.source.acts
        if isinstance(act, Prick) and "clear" in plain(act.told)
    ]
    marked = [stroke.shape for act in pricked for stroke in act.strokes]
    assert [abs(spot) for spot in marked if isinstance(spot, Point)] == pytest.approx(
        [radius, radius]
    )


def test_the_middles_of_a_curved_slots_ends_are_named() -> None:
    done = solved("s = slot, about O, radius 26, width 8, from 60° to 120°\n")
    for name, angle in (("first", 60), ("second", 120)):
        spot = thing(done, f"s.{name}")
        assert (abs(spot), math.degrees(spot.angle)) == pytest.approx((26, angle))
        assert spot == pytest.approx(thing(done, f"s.{name}_end").centre)


def test_a_slot_with_a_length_is_straight_however_its_centre_is_said() -> None:
    slots = [
        run_of(solved(f"s = slot, {centre} O, length 40, width 12\n"), "s")
        for centre in ("centred on", "about", "centre")
    ]
    assert slots[0] == slots[1] == slots[2]
