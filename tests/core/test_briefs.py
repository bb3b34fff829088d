"""What a follower does, as people write it: sentences of a table, and thousands put together from the ways each part is
said. Nothing is misread in silence."""

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from entrick.core.rules.brief import read_brief
from examples import examples

TABLE = """
rise to 30 mm in 90°, fall to 10 mm in 90°, dwell 90°, fall to 0 in 90° | rise 90° by 30 mm; fall 90° by 20 mm; dwell 90°; fall 90° by 10 mm
rise 30 mm in 29°30', dwell 90°, fall 30 mm in 60°, dwell | rise 29 1/2° by 30 mm; dwell 90°; fall 60° by 30 mm; dwell 180 1/2°
dwell 269° 30', rise 5 mm in 45°, fall in 45°15', dwell | dwell 269 1/2°; rise 45° by 5 mm; fall 45 1/4° by 5 mm; dwell 1/4°
rise 20 mm in 90° with modified uniform velocity, dwell | rise 90° by 20 mm rounded; dwell 270°
rise 20 mm in 90°, uniformly accelerated and retarded, dwell | rise 90° by 20 mm parabolic; dwell 270°
rise 2 in. in 90°. Dwell 90°. Fall 2 in. in 90°. Dwell. | rise 90° by 2 in; dwell 90°; fall 90° by 2 in; dwell 90°
0° to 90° rise 30, 90° to 180° dwell, 180° to 270° fall 30, dwell | rise 90° by 30; dwell 90°; fall 90° by 30; dwell 90°
from 0 to 90° rises 25 mm; from 90° to 180° stands; from 180° to 300° falls; stands | rise 90° by 25 mm; dwell 90°; fall 120° by 25 mm; dwell 60°
rises 20 mm in half a revolution, falls in the rest | rise 180° by 20 mm; fall 180° by 20 mm
rise 20 mm in 1/3 revolution, dwell for 1/6 of a turn, fall | rise 120° by 20 mm; dwell 60°; fall 180° by 20 mm
rise 20 mm in a quarter of a turn, dwell two thirds of a revolution, fall | rise 90° by 20 mm; dwell 240°; fall 30° by 20 mm
moves outwards 20 mm in 90°, holds for 90°, moves inwards in 90°, pauses | rise 90° by 20 mm; dwell 90°; fall 90° by 20 mm; dwell 90°
ascent 20 mm in 90°, no lift for 90°, descent in 90°, dwell | rise 90° by 20 mm; dwell 90°; fall 90° by 20 mm; dwell 90°
rises 24 mm in 90 degrees, dwells 60, falls in 120, dwells | rise 90° by 24 mm; dwell 60°; fall 120° by 24 mm; dwell 90°
advance 20 mm during 120°, dwell 60°, return in 120°, dwell 60° | rise 120° by 20 mm; dwell 60°; fall 120° by 20 mm; dwell 60°
lift of 40 mm in 90° with uniform acceleration, dwell 60°, fall under gravity in 120°, dwell | rise 90° by 40 mm parabolic; dwell 60°; fall 120° by 40 mm parabolic; dwell 90°
rises 30 mm during 120° with S.H.M., remains stationary for 60°, falls with uniform velocity in 120°, remains stationary | rise 120° by 30 mm harmonic; dwell 60°; fall 120° by 30 mm uniform; dwell 60°
The follower rises 20 mm in 90°, then dwells for 90°, then falls 20 mm in 90° and dwells for the remaining 90° | rise 90° by 20 mm; dwell 90°; fall 90° by 20 mm; dwell 90°
rise 12 in 90°, rise 12 in 90°, fall 24 in 180° | rise 90° by 12; rise 90° by 12; fall 180° by 24
rise 1 1/4 in in 90 degrees, dwell 90 degrees, fall to its lowest position in 90°, dwell | rise 90° by 1 1/4 in; dwell 90°; fall 90° by 1 1/4 in; dwell 90°
"""
ROWS = [tuple(row.split(" | ")) for row in TABLE.strip().split("\n")]


@pytest.mark.parametrize(("brief", "clauses"), ROWS)
def test_a_brief_is_read_as_it_is_meant(brief: str, clauses: str) -> None:
    found = read_brief(brief)
    assert found.misread == ()
    assert "; ".join(found.clauses) == clauses


@pytest.mark.parametrize(
    ("brief", "why"),
    [
        ("rise 20 mm in 90°, fall to 30 mm in 90°, dwell", "by no way"),
        ("rise 20 mm 30 mm in 90°, dwell", "several lifts"),
        ("rise 20 mm in 90° in 60°, dwell", "several angles"),
        ("wobbles 20 mm in 90°, dwell", "does not say whether"),
        ("rise 20 mm in 200°, fall in 200°, dwell", "says no angle"),
        ("rise 20 mm in 1/0 revolution, dwell", "over nought"),
        ("rise 20 mm in 90°, dwell 10 s, fall in 90°, dwell", "tells a time"),
        ("rise 20 mm in 3 seconds, dwell 90°", "tells a time"),
    ],
)
def test_what_is_not_understood_is_told_with_the_words_at_fault(brief: str, why: str) -> None:
    (first, *_) = read_brief(brief).misread
    assert why in first.message
    assert "“" in first.message


@pytest.mark.parametrize(
    "table",
    [
        "angle lift\n0 0\n90 12.5\n180 20\n270 8\n360 0",
        "0;0\n90;12,5\n180;20\n270;8",
        "0 0\n90 12,5\n180 20\n270 8",
        "station,lift\n0,0\n90,12.5\n180,20\n270,8\n360,0",
        "0\t0\n90\t12.5\n180\t20\n270\t8",
    ],
)
def test_stations_are_read_however_they_are_parted(table: str) -> None:
    found = read_brief(table)
    assert found.misread == ()
    assert found.clauses[1:] == ("lift 12.5 at 90°", "lift 20 at 180°", "lift 8 at 270°")


def _angle(degrees: int) -> st.SearchStrategy[str]:
    said = [f"{degrees}°", f"{degrees} degrees", f"{degrees} deg", f"{degrees}° 0'"]
    share = Fraction(degrees, 360)
    if share.denominator <= 12:
        said.append(f"{share} of a revolution")
    return st.sampled_from(said)


RISES = ("rise", "rises", "moves up", "ascends", "advance", "outstroke of", "lifts")
FALLS = ("fall", "falls", "moves down", "descends", "return of", "drops")
DWELLS = ("dwell", "dwells", "rests", "holds", "pauses", "remains still", "is stationary")
MOTIONS = {
    "": [""],
    " harmonic": ["with simple harmonic motion", "with SHM"],
    " parabolic": ["with uniform acceleration and retardation", "under gravity motion"],
    " cycloidal": ["with cycloidal motion"],
    " uniform": ["with uniform velocity", "at constant speed"],
    " rounded": ["with modified uniform velocity", "at uniform velocity with rounded ends"],
}


@given(st.data())
@examples(30)
def test_a_brief_put_together_is_read_as_it_was_put(data: st.DataObject) -> None:
    said, meant, left = [], [], 360
    lift, motion = data.draw(st.integers(1, 90)), data.draw(st.sampled_from(sorted(MOTIONS)))
    for verb, words in (("rise", RISES), ("dwell", DWELLS), ("fall", FALLS)):
        degrees = data.draw(st.sampled_from([30, 45, 60, 72, 90]))
        left -= degrees
        angle, word = data.draw(_angle(degrees)), data.draw(st.sampled_from(words))
        if verb == "dwell":
            said.append(f"{word} for {angle}")
            meant.append(f"dwell {degrees}°")
        else:
            how = data.draw(st.sampled_from(MOTIONS[motion]))
            said.append(f"{word} {lift} mm in {angle} {how}".strip())
            meant.append(f"{verb} {degrees}° by {lift} mm{motion}")
    said.append(data.draw(st.sampled_from(DWELLS)))
    meant.append(f"dwell {left}°")
    joint = data.draw(st.sampled_from([", ", "; ", ". ", ", then ", "\n"]))
    found = read_brief(joint.join(said))
    assert found.misread == (), joint.join(said)
    assert list(found.clauses) == meant
