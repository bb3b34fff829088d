"""``helix``."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from desk import run_of, solved, thing
from entrick.core.geometry import Loop
from entrick.core.kind.figure import Family


@settings(max_examples=20)
@given(st.integers(10, 60), st.integers(4, 40), st.integers(1, 4), st.sampled_from(["", ", left hand"]))
def test_a_helix_keeps_to_its_cylinder_and_rises_from_left_to_right_in_front(
    diameter: int, lead: int, turns: int, hand: str
) -> None:
    done = solved(f"h = helix, from O, diameter {diameter}, lead {lead}, {turns} turns{hand}\n")
    family = thing(done, "h")
    assert isinstance(family, Family)
    assert len(family.members) == 2 * turns
    for index in range(1, turns + 1):
        front, back = run_of(done, f"h.front.{index}"), run_of(done, f"h.back.{index}")
        start, end = front.pieces[0].entry, front.pieces[-1].exit
        assert abs(end.y - start.y) == pytest.approx(lead / 2)
        assert (end.x - start.x) == pytest.approx(diameter * (-1 if hand else 1))
        assert abs(back.pieces[0].entry - end) < 1e-9 or abs(back.pieces[-1].exit - start) < 1e-9
        low, high = front.box
        assert max(-low.x, high.x) <= diameter / 2 * (1 + 1e-3)


@given(st.integers(20, 60), st.integers(8, 30), st.integers(1, 5), st.sampled_from(["right hand", "left hand"]))
@settings(max_examples=30)
def test_the_edges_of_a_wire_keep_its_radius_from_the_middle_of_the_wire(
    wide: int, lead: int, turns: int, hand: str
) -> None:
    done = solved(f"h = helix, from O, diameter {wide}, lead {lead}, {turns} turns, {hand}, wire {lead / 5}\n")
    parts = done.solution.figure.items["h"].parts
    for index in range(1, turns + 1):
        middle = parts[f"front.{index}"]
        for word in ("above", "below"):
            edge = parts[f"{word}.{index}"]
            assert isinstance(edge, Loop)
            assert isinstance(middle, Loop)
            assert all(abs(junction.turn) < 1e-6 for junction in edge.junctions)
            off = [middle.distance(piece.entry) for piece in edge.pieces]
            assert max(off) <= lead / 10 + wide * 4e-4
            # Where an inner edge starts, behind the round end, the end of the wire's middle is nearer still.
            assert min(off) > lead / 10 * 0.8
            assert min(off[len(off) // 4 : -len(off) // 4]) == pytest.approx(lead / 10, abs=wide * 4e-4)
