"""What a drafter may write next: whole clauses, and parts behind a dot."""

import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from entrick.core.assist.complete import complete
from entrick.core.desk import work_out
from entrick.core.moves import called, kinds

PLAN = "given a = 12\nO = datum\nA = point, 30 right of O\nwheel = gear, about O, 24 teeth, module 4, bore diameter 20\nring = circle, centre O, radius 9\n"
DONE = work_out(PLAN).solution


def adds(row: str, after: int = 9) -> list[str]:
    return [found.adds for found in complete(DONE, after, row)]


def test_a_clause_that_begins_with_a_number_is_offered_before_one_is_typed() -> None:
    assert "20 left of A" in adds("B = point, ")
    assert "6 teeth" in adds("g = gear, about O, ")
    assert "20 by 20" in adds("b = box, ")
    assert "a" in adds("c = circle, centre O, radius ")


def test_parts_behind_a_dot_are_offered_where_they_fit() -> None:
    assert "wheel.centre" in adds("c = circle, centre wheel.")
    assert "wheel.bore" in adds("k = keyway, on wheel.")
    assert "ring.centre" in adds("c = circle, centre ring.ce")
    assert adds("c = circle, centre wheel.", after=2) == [], "nothing from below"


@pytest.mark.parametrize("name", list(kinds()))
def test_what_is_offered_first_can_be_read(name: str) -> None:
    """Every clause offered whole is a clause of the kind: taken as it stands, it is not called a misfit."""
    for found in complete(DONE, 9, f"x = {name}, "):
        if found.about and " " in found.adds and found.adds[0].isdigit():
            errors = work_out(PLAN + found.row.rstrip(", ") + "\n").solution.errors
            assert not any(" takes " in error.message for error in errors), (found.row, errors)


@given(st.sampled_from(list(kinds())), st.text("abcdeO. 0123456789,>", max_size=12))
def test_whatever_is_typed_an_offer_goes_on_from_it(name: str, typed: str) -> None:
    row = f"x = {name}, {typed}"
    for found in complete(DONE, 9, row):
        assert found.row.startswith(f"x = {name}, ")


def test_a_refusal_names_what_may_be_written_and_no_key() -> None:
    for row, told in (
        ("z = keyway, on ring, width 3", "keyway needs depth (length) or (length) over all"),
        ("z = polygon, 6 sides, centred on O", "or (length) across flats or radius (radius)"),
        ("z = point", "point needs"),
    ):
        assert told in work_out(PLAN + row + "\n").solution.errors[0].message
    for kind in kinds().values():
        message = next(
            (e.message for e in work_out(f"{PLAN}z = {kind.name}\n").solution.errors), ""
        )
        assert "is missing" not in message


def test_a_polygon_of_many_sides_is_lined_in_side_by_side() -> None:
    """Digits at the end of a name do not make a curve of straight sides."""
    done = work_out(
        "O = datum\nh = polygon, 14 sides, centred on O, radius 20\nrim = line in, h\ns = spiral, about O, radius 5 to 20, 2 turns\nt = line in, open, s\n"
    )
    told = [step.text for step in done.steps]
    assert sum(text.startswith("Line in the straight ") for text in told) == 1
    assert next(t for t in told if "straight" in t).count("–") >= 3, "side by side, in one go"
    assert "Line in the curve, a stretch at a time" in told
    assert not any(
        finding.rule == "junction" and "s.1" in finding.message for finding in done.findings
    )


@pytest.mark.parametrize("name", list(kinds()))
def test_a_word_of_the_trade_leads_to_its_kind_from_its_beginning_on(name: str) -> None:
    kind = kinds()[name]
    assert kind.also, "nobody knows only our word for it"
    for word in kind.also:
        assert word == word.casefold()
        assert word not in kinds(), "a name is nobody else's other name"
        for said in (word, f" {word.upper()} "):
            assert kind in called(said)
        for length in range(3, len(word) + 1):
            assert name in adds(f"x = {word[:length]}")
        (told,) = [
            error.message for error in work_out(f"O = datum\nx = {word}, at O\n").solution.errors
        ]
        assert re.search(rf"did you mean .*\b{name}\b", told)
