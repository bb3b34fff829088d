"""Helices by a writer of its own: polylines through r·cos(2πh/lead) come back as diameter, lead, turns and hand."""

import io
import math

import ezdxf
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from entrick.core.desk import work_out
from entrick.core.readback import read_back, read_profile

Spots = list[tuple[float, float]]


def wave(
    radius: float, lead: float, halves: int, left: bool, level: bool, up: float = 0.0
) -> Spots:
    """Return places of a helix seen from the side, forty to a half turn, from the lower left of its axis on."""
    found = []
    for k in range(40 * halves + 1):
        turn = math.pi * k / 40
        side, height = (1 if left else -1) * radius * math.cos(turn), lead * turn / math.tau + up
        found.append((height, -side) if level else (side, height))
    return found


def drawn(*runs: Spots) -> bytes:
    document = ezdxf.new()
    document.units = 4
    for run in runs:
        document.modelspace().add_lwpolyline(run)
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode()


@settings(max_examples=6, deadline=None)
@given(st.integers(8, 60), st.integers(6, 40), st.integers(1, 5), st.booleans(), st.booleans())
def test_what_is_seen_of_a_helix_comes_back_as_one(
    radius: int, lead: int, halves: int, left: bool, level: bool
) -> None:
    found = read_back(read_profile(drawn(wave(radius, lead, halves, left, level)), "helix.dxf"))
    turns = {1: "1/2", 2: "1", 3: "1 1/2", 4: "2", 5: "2 1/2"}[halves]
    more = f"{', left hand' if left else ''}{', level' if level else ''}"
    assert f"diameter {2 * radius}, lead {lead}, {turns} turns{more}\n" in found.text, found.text
    (outline,) = work_out(found.text).outlines
    spots = wave(radius, lead, halves, left, level)
    ends = {round(abs(b[0] - a[0]) + abs(b[1] - a[1]), 6) for a, b in [(spots[0], spots[-1])]}
    entry, exit_ = outline.pieces[0].entry, outline.pieces[-1].exit
    assert round(abs(exit_.x - entry.x) + abs(exit_.y - entry.y), 6) in ends


def test_the_near_halves_of_a_screw_come_back_one_by_one() -> None:
    runs = [wave(20, 24, 1, False, False, 24.0 * k) for k in range(4)]
    found = read_back(read_profile(drawn(*runs), "screw.dxf"))
    assert found.text.count("= helix, from ") == 4
    assert found.text.count("front.1, open") == 4


@pytest.mark.parametrize("power", [1.0, 3.0])
def test_waves_of_another_kind_are_no_helix(power: float) -> None:
    """A zigzag, and a wave with flatter ends."""
    spots = [
        (
            20 * math.copysign(abs(math.cos(t)) ** power, math.cos(t))
            if power > 1
            else 20 - 40 * (t / math.pi),
            6 * t,
        )
        for t in (math.pi * k / 40 for k in range(41))
    ]
    found = read_back(read_profile(drawn(spots), "wave.dxf"))
    assert "helix" not in found.text
