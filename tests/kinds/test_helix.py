"""``helix``."""

import math

import pytest
import shapely
from hypothesis import Phase, given
from hypothesis import strategies as st

from desk import refused, run_of, solved, thing
from entrick.core.geometry import Arc, Loop, Point
from entrick.core.kind.figure import Family
from examples import examples


@given(
    st.integers(10, 60), st.integers(4, 40), st.integers(1, 4), st.sampled_from(["", ", left hand"])
)
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


@given(
    st.integers(20, 60),
    st.integers(8, 30),
    st.integers(1, 5),
    st.sampled_from(["right hand", "left hand"]),
)
def test_the_edges_of_a_wire_keep_its_radius_from_the_middle_of_the_wire(
    wide: int, lead: int, turns: int, hand: str
) -> None:
    done = solved(
        f"h = helix, from O, diameter {wide}, lead {lead}, {turns} turns, {hand}, wire {lead / 5}\n"
    )
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
            assert min(off[len(off) // 4 : -len(off) // 4]) == pytest.approx(
                lead / 10, abs=wide * 4e-4
            )


@given(
    st.integers(24, 60),
    st.floats(0.25, 0.8),
    st.sampled_from([1, 1.25, 1.5, 2.75, 3.3, 4.2]),
    st.sampled_from(["", ", left hand", ", level"]),
)
@examples(15, phases=[Phase.explicit, Phase.reuse, Phase.generate])
def test_a_wire_as_seen_is_what_a_ball_sweeps_in_front_and_what_shows_of_it_behind(
    wide: int, share: float, turns: float, how: str
) -> None:
    """Swept by a general geometry library: the middle line, buffered by half the wire."""
    lead, wire = round(wide / 3, 3), round(wide / 3 * share * 0.5, 3)
    done = solved(
        f"h = helix, from O, diameter {wide}, lead {lead}, {turns:.3f} turns{how}, wire {wire}, as seen\n"
        "rim = line in, h, open\n"
    )
    parts = done.solution.figure.items["h"].parts
    members = thing(done, "h").members
    swept = {
        word: [
            shapely.LineString([(p.x, p.y) for p in _dense(parts[key])]).buffer(wire / 2, 64)
            for key in parts
            if key.startswith(f"{word}.") and key.count(".") == 1
        ]
        for word in ("front", "back")
    }
    coils = [run for run in members if run.gap < 1e-9]
    assert len(coils) == len(swept["front"])
    for coil, ball in zip(coils, swept["front"], strict=True):
        drawn = shapely.Polygon([(p.x, p.y) for p in _dense(coil)])
        assert drawn.symmetric_difference(ball).area < ball.length * wide * 4e-4, (
            "what the arcs may depart"
        )
    front = shapely.union_all(swept["front"])
    shown = shapely.union_all([ball.boundary for ball in swept["back"]]).difference(front)
    lines = [
        shapely.LineString([(p.x, p.y) for p in _dense(run)]) for run in members if run.gap >= 1e-9
    ]
    # Where the wire turns to the back its round end lies on the edge of the coil in front, which bounds it already.
    grown = front.buffer(wide * 2e-3)
    missing = shown.difference(grown).difference(shapely.union_all(lines).buffer(wide * 2e-3))
    assert missing.length < 0.02 * wide
    assert all(line.difference(shown.buffer(wide * 2e-3)).length < 0.02 * wide for line in lines)


def _dense(loop: Loop) -> list[Point]:
    spots = []
    for piece in loop.pieces:
        curve = piece.curve
        if isinstance(curve, Arc):
            spots += [curve.at(curve.start + curve.sweep * k / 12) for k in range(12)]
        else:
            spots.append(piece.entry)
    return [*spots, loop.pieces[-1].exit]


def test_a_wire_as_seen_needs_its_thickness() -> None:
    assert "say  wire" in refused("h = helix, from O, diameter 40, lead 12, 3 turns, as seen\n")
    assert "shorter than the wire" in refused(
        "h = helix, from O, diameter 40, lead 12, 3.02 turns, wire 5, as seen\n"
    )


@given(
    st.integers(20, 60),
    st.integers(0, 90),
    st.integers(6, 30),
    st.integers(1, 4),
    st.sampled_from(["", ", left hand"]),
)
def test_a_helix_on_a_cone_runs_in_as_evenly_as_it_rises(
    wide: int, narrow: int, lead: int, turns: int, hand: str
) -> None:
    """Its radius grows or shrinks by the same at every turn (conical helix of constant pitch, common practice), so that
    seen from the side it goes through points r·cos θ across and lead·θ/2π up."""
    done = solved(
        f"h = helix, from O, diameter {wide}, to diameter {narrow}, lead {lead}, {turns} turns{hand}\n"
    )
    runs = [
        run_of(done, f"h.{side}.{index}")
        for index in range(1, turns + 1)
        for side in ("front", "back")
    ]
    spots = [spot for run in runs for piece in run.pieces for spot in (piece.entry, piece.exit)]
    assert min(spot.y for spot in spots) == pytest.approx(0, abs=1e-9)
    assert max(spot.y for spot in spots) == pytest.approx(lead * turns)
    for spot in spots:
        turned = spot.y / lead
        radius = (wide + (narrow - wide) * turned / turns) / 2
        across = -radius * math.cos(math.tau * turned) * (-1 if hand else 1)
        # The drawn curve keeps to the true one, square to it; across it may be as much more as it is flat.
        assert spot.x == pytest.approx(
            across,
            abs=4e-4 * max(wide, narrow) / 2 * math.hypot(1, math.pi * max(wide, narrow) / lead),
        )
    starts = sorted(round(run.pieces[0].entry.y / lead * 2) for run in runs)
    assert starts == list(range(2 * turns)), "half turn by half turn, in front and behind"
