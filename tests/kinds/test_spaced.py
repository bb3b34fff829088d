"""``spaced``."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import point_of, solved


@given(st.integers(2, 40), st.floats(1, 100), st.sampled_from(["above", "below", "left", "right"]))
def test_spaced_points_lie_on_the_circle_a_chord_apart(
    count: int, radius: float, side: str
) -> None:
    """Chord 2R·sin(180°/n): rules of plane geometry, found in any handbook's table of chords (from memory)."""
    done = solved(
        f"c = circle, centre O, radius {radius:.4f}\nring = spaced, {count} on c, from {side}\n"
    )
    spots = [point_of(done, f"ring.{i}") for i in range(1, count + 1)]
    r = round(radius, 4)
    chord = 2 * r * math.sin(math.pi / count)
    for first, second in zip(spots, [*spots[1:], spots[0]], strict=True):
        assert abs(first) == pytest.approx(r)
        assert abs(second - first) == pytest.approx(chord)
    start = {"above": (0, r), "below": (0, -r), "left": (-r, 0), "right": (r, 0)}[side]
    assert (spots[0].x, spots[0].y) == pytest.approx(start, abs=1e-9)


@pytest.mark.parametrize(
    ("count", "chord"),
    [(3, 1.7320508), (5, 1.1755705), (6, 1.0), (7, 0.8677675), (8, 0.7653669), (12, 0.5176381)],
)
def test_chords_against_the_published_table(count: int, chord: float) -> None:
    """Length of chords for spacing off the circumference of a circle of diameter 2 (machinist's handbook table, from memory)."""
    done = solved(f"c = circle, centre O, radius 1\nring = spaced, {count} on c\n")
    settings = [s.setting.actual for s in done.steps if s.tool == "dividers" and s.setting]
    opened = [s.setting.actual for s in done.steps if "Step off" in s.text and s.setting]
    assert opened == pytest.approx([chord], abs=5e-8), "one setting for all of them"
    assert settings == ([] if count == 6 else opened), "six: the compass as it is"
