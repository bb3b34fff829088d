"""What a follower does, as people write it: sentences of a table, and thousands put together from the ways each part is
said. Nothing is misread in silence."""

from fractions import Fraction
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from entrick.core.rules.brief import read_brief
from examples import examples

TABLE = Path(__file__).with_name("briefs.txt").read_text("utf-8")
"""Two hundred briefs with what they mean."""
ROWS = [
    tuple(row.replace(r"\n", "\n").split(" | "))
    for row in TABLE.splitlines()
    if not row.startswith("#")
]


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
