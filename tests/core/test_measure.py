"""Numbers are read exactly or refused, never misread."""

from fractions import Fraction as F

import pytest
from hypothesis import given
from hypothesis import strategies as st

from entrick.core.board.kit import default_kit
from entrick.core.measure import MeasureError, Scale, Unit, read_number, read_on_rule, spell
from entrick.core.measure.number import spell_fraction


@pytest.mark.parametrize(
    ("text", "inches"),
    [
        ("4 1/4", F(17, 4)),
        ('4-1/4"', F(17, 4)),
        ("4-1/4 in", F(17, 4)),
        ("4¼", F(17, 4)),
        ("½", F(1, 2)),
        ("9/16", F(9, 16)),
        (".5625", F(9, 16)),
        ("0.5625", F(9, 16)),
        ("9/16″", F(9, 16)),
        ("25.4 mm", F(1)),
        ("2.54cm", F(1)),
        ("3", F(3)),
    ],
)
def test_every_usual_spelling_is_read_exactly(text: str, inches: F) -> None:
    assert read_number(text, Unit.INCH).value == inches


@pytest.mark.parametrize(
    "text", ["0,5", "4-1/4", "1/0", "4 1/", "1e5", "", "1.2.3", "9999999999", "--3"]
)
def test_what_can_be_taken_two_ways_or_none_is_refused(text: str) -> None:
    with pytest.raises(MeasureError):
        read_number(text, Unit.MM)


def test_a_refused_spelling_comes_with_one_that_is_understood() -> None:
    with pytest.raises(MeasureError) as comma:
        read_number("0,5", Unit.MM)
    assert comma.value.mend == "0.5"
    with pytest.raises(MeasureError) as hyphen:
        read_number("4-1/4", Unit.MM)
    assert read_number(hyphen.value.mend or "", Unit.MM).value == F(17, 4)


def test_degrees_and_minutes() -> None:
    assert read_number("22° 30'", Unit.MM).value == F(45, 2)


@given(st.fractions(min_value=0, max_value=500, max_denominator=64))
def test_a_fraction_survives_being_spelt_and_read(value: F) -> None:
    assert read_number(spell_fraction(value), Unit.INCH).value == value


@given(st.floats(0.01, 900), st.sampled_from([F(1, 64), F(1, 32), F(1, 16), F(1, 2), F(1)]))
def test_a_reading_is_the_nearest_graduation_and_says_the_side(
    length: float, graduation: F
) -> None:
    read = read_on_rule(length, graduation, Unit.MM)
    assert read.value % graduation == 0
    assert abs(read.error) <= float(graduation) / 2 + 1e-9
    if "under" in read.text:
        assert read.value > length
    elif "over" in read.text:
        assert read.value < length
    else:
        assert abs(float(read.value) - length) < 1e-6


def test_nine_sixteenths_and_its_half() -> None:
    """Common practice, no source: 0.5625 reads 9/16, its half 9/32, on a rule in sixteenths just under 5/16."""
    given_ = read_number("0.5625", Unit.INCH).value
    assert spell(given_, Unit.INCH) == "9/16"
    assert read_on_rule(given_ / 2, F(1, 32), Unit.INCH).text == "9/32"
    assert read_on_rule(given_ / 2, F(1, 16), Unit.INCH).text == "just under 5/16"


@pytest.mark.parametrize(
    ("scale", "recommended"),
    [
        ((1, 2), True),
        ((1, 50), True),
        ((10, 1), True),
        ((1, 3), False),
        ((3, 4), False),
        ((1, 1), True),
    ],
)
def test_recommended_scales(scale: tuple[int, int], recommended: bool) -> None:
    """ISO 5455:1979, table 1 (from memory): 1, 2 and 5 and their decades, either way."""
    assert Scale(*scale).is_recommended is recommended


@pytest.mark.parametrize(
    ("degrees", "tool"),
    [
        (0, "T-square"),
        (90, "T-square and set square"),
        (45, "45° set square"),
        (120, "30/60 set square"),
        (75, "both set squares together"),
        (22.5, "protractor"),
        (180, "T-square"),
    ],
)
def test_set_squares_make_every_multiple_of_fifteen(degrees: float, tool: str) -> None:
    """Common practice, no source."""
    assert default_kit(Unit.MM).angle_tool(degrees) == tool


def test_a_fraction_and_its_decimal_are_written_differently_whichever_came_first() -> None:
    """They are equal to Python, and anything kept from one call to the next must not mix them up."""
    assert spell(4.25, Unit.INCH) == "4.25"
    assert spell(F(17, 4), Unit.INCH) == "4 1/4"
    assert spell(4.25, Unit.INCH) == "4.25"
