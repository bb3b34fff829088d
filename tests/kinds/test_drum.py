"""``drum``: the groove of a cylindrical cam, unrolled, held against its roller by shapely."""

import math

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from desk import led_to, refused, run_of, solved
from entrick.core.geometry import Arc, Loop
from entrick.core.rules.motion import MOTIONS

MOVES = st.sampled_from(["harmonic", "cycloidal", "parabolic", "uniform", "rounded"])


def line_of_run(loop: Loop) -> shapely.LineString:
    """A run as many short chords."""
    spots = [tuple(loop.pieces[0].entry)]
    for piece in loop.pieces:
        if isinstance(piece.curve, Arc):
            turns = [piece.curve.start + piece.curve.sweep * k / 24 for k in range(1, 25)]
            spots += [tuple(piece.curve.at(turn)) for turn in turns]
        else:
            spots.append(tuple(piece.exit))
    return shapely.LineString(spots)


@given(
    st.tuples(st.integers(60, 140), st.integers(20, 60), st.integers(60, 140)),
    st.integers(8, 25),
    st.tuples(MOVES, MOVES),
    st.integers(50, 90),
)
def test_the_roller_fits_its_groove_all_along(
    angles: tuple[int, int, int], lift: int, motions: tuple[str, str], size: int
) -> None:
    rise, stand, fall = angles
    done = solved(
        f"c = drum, from O, diameter {size}, roller radius 4, rise {rise}° by {lift} {motions[0]}, dwell {stand}°, "
        f"fall {fall}° by {lift} {motions[1]}, dwell {360 - rise - stand - fall}°\n"
        "u = line in, c.upper, open\nl = line in, c.lower, open\n"
    )
    made = done.solution.entries[1].made
    if any(remark.weight == "wrong" for remark in made.remarks()):
        return
    flanks = [line_of_run(run) for run in (made.parts["upper"], made.parts["lower"])]
    assert not flanks[0].intersects(flanks[1])
    smooth = {"harmonic", "cycloidal", "parabolic", "rounded"} >= set(motions)
    for degrees in range(0, 361, 4):
        gone = 0.0
        if degrees <= rise:
            gone = MOTIONS[motions[0]].shape(degrees / rise)[0]
        elif degrees <= rise + stand:
            gone = 1.0
        elif degrees <= rise + stand + fall:
            gone = 1 - MOTIONS[motions[1]].shape((degrees - rise - stand) / fall)[0]
        spot = shapely.Point(math.pi * size * degrees / 360, lift * gone)
        for flank in flanks:
            off = flank.distance(spot)
            assert off > 4 - 0.02, "nothing of the groove is narrower than the roller"
            if smooth and 12 < degrees < 348:
                assert off < 4 + 0.02, "and it is led on both sides"
    led_to(done)


def test_it_is_as_long_as_the_drum_is_round() -> None:
    done = solved(
        "c = drum, from O, diameter 60, roller radius 6, rise 180° by 30, fall 180° by 30\n"
    )
    assert run_of(done, "c").pieces[-1].exit == pytest.approx((60 * math.pi, 0))
    # Harmonic: s′ is greatest half way, h·π/2 ÷ β; tan⁻¹(30·π/2 ÷ π ÷ 30) = 26.565°.
    assert "= 26.6°, at 90°" in " ".join(done.solution.entries[-1].made.working)


@pytest.mark.parametrize(
    ("rows", "told"),
    [
        ("diameter 60, roller radius 6, fall 0° by 3, rise 360° by 3", "does not drop"),
    ],
)
def test_what_cannot_be_is_said(rows: str, told: str) -> None:
    assert told in refused(f"c = drum, from O, {rows}\n")


def test_a_path_that_bends_too_sharply_is_found() -> None:
    done = solved(
        "c = drum, from O, diameter 60, roller radius 6, rise 30° by 20, dwell 150°, fall 180° by 20\n"
    )
    told = [remark.message for remark in done.solution.entries[-1].made.remarks()]
    assert any("one flank is undercut" in message for message in told)
