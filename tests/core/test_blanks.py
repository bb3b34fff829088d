"""Rows begun with blanks, what goes into them, and the mends of rows that fit no form."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import HEAD
from entrick.core.assist.blanks import BLANK, filled, usual_clauses, wanted_at
from entrick.core.assist.complete import complete
from entrick.core.assist.follow import follow
from entrick.core.assist.glossary import WORDS
from entrick.core.assist.lessons import lessons
from entrick.core.assist.row import begin, picked
from entrick.core.desk import work_out
from entrick.core.moves import kinds
from entrick.core.plan.foreign import foreign
from entrick.core.plan.slots import REFERENCES
from entrick.core.rules.brief import read_brief
from entrick.demo import sample_plans

EYES = work_out(
    HEAD + "A = point, 60 right of O\nbig = circle, centre O, radius 22\nl = line, from O to A\n"
)


@pytest.mark.parametrize("kind", list(kinds().values()), ids=lambda kind: kind.name)
def test_every_blank_of_a_row_begun_is_known_and_no_row_with_blanks_is_a_statement(kind) -> None:  # type: ignore[no-untyped-def]
    row = begin(EYES.solution, kind.name)
    places = [i for i, sign in enumerate(row) if sign == BLANK]
    assert all(wanted_at(row, place) for place in places if row[place - 1] != '"')
    assert bool(places) == bool(usual_clauses(kind)) or kind.name == "datum"
    if any(row[place - 1] != '"' for place in places):
        assert work_out(f"{HEAD}{row}\n").solution.errors, "a blank is no value"


@pytest.mark.parametrize(
    ("kind", "name", "wanted"),
    [
        ("circle", "A", "centre A, diameter …"),
        ("arc", "big", "radius …, around big, around …"),
        ("point", "big", "… … of big.centre"),
        ("midpoint", "l", "between … and … l"),
    ],
)
def test_what_is_picked_goes_to_the_blank_it_fits(kind: str, name: str, wanted: str) -> None:
    assert picked(EYES.solution, begin(EYES.solution, kind), name).endswith(wanted)


@given(
    st.sampled_from(sorted(kinds())),
    st.sampled_from(["O", "A", "big", "l", "O.level"]),
    st.integers(0, 60),
)
def test_a_pick_fills_one_blank_and_leaves_the_rest_of_the_row(
    kind: str, name: str, near: int
) -> None:
    row = begin(EYES.solution, kind)
    after = filled(EYES.solution.figure, row, name, near)
    if after is not None:
        place = next(i for i, (a, b) in enumerate(zip(row, after, strict=False)) if a != b)
        assert wanted_at(row, place) in REFERENCES
        assert after.count(BLANK) == row.count(BLANK) - 1


def test_values_used_last_and_givens_are_offered_where_a_number_is_wanted() -> None:
    done = work_out(
        HEAD + "given r = 9\nbig = circle, centre O, radius 22\nc = circle, centre O, radius r\n"
    )
    row = "d = circle, centre O, radius …"
    found = complete(done.solution, 99, row, row.index(BLANK))
    assert [offer.adds for offer in found] == ["r", "r", "22"]
    assert all(offer.row.startswith("d = circle, centre O, radius ") for offer in found)


@pytest.mark.parametrize(
    ("row", "mend"),
    [
        ("A = point, 66 left 38 above O", "A = point, 66 left of O, 38 above"),
        ("c = circle, centre O radius 5", "c = circle, centre O, radius 5"),
        ("g = gear, about O 24 teeth module 4", "g = gear, about O, 24 teeth, module 4"),
    ],
)
def test_a_missing_comma_is_told_with_its_mend(row: str, mend: str) -> None:
    (error,) = work_out(f"{HEAD}{row}\n").solution.errors
    assert any(told in error.message for told in ("a comma is missing", "did you mean"))
    assert error.mend == mend
    assert not work_out(f"{HEAD}{mend}\n").solution.errors
    told = [f for f in work_out(f"{HEAD}{row}\n").findings if f.rule == "mistake"]
    assert [f.mend and f.mend.text for f in told] == [mend]


@pytest.mark.parametrize(
    ("text", "clauses"),
    [
        (
            "rises 24 mm in 90°, dwells 60°, falls in 120°, dwells",
            ("rise 90° by 24 mm", "dwell 60°", "fall 120° by 24 mm", "dwell 90°"),
        ),
        (
            "rises in 90° and falls 12 in 90°, dwells",
            ("rise 90° by 12", "fall 90° by 12", "dwell 180°"),
        ),
        (
            "rise 1 1/2 in in 100°; fall 3/4 in in 60°; fall in 100°; dwell",
            ("rise 100° by 1 1/2 in", "fall 60° by 3/4 in", "fall 100° by 3/4 in", "dwell 100°"),
        ),
        (
            "rise 20 mm with uniform acceleration and retardation in 90°, then fall",
            ("rise 90° by 20 mm parabolic", "fall 270° by 20 mm"),
        ),
    ],
)
def test_what_a_brief_leaves_out_is_worked_out_from_the_rest(
    text: str, clauses: tuple[str, ...]
) -> None:
    assert read_brief(text).clauses == clauses
    row, _ = follow(EYES, 0, text)
    assert row == f"cam1 = cam, about …, least …, {', '.join(clauses)}"


def test_a_fraction_over_nought_is_told_and_not_worked_out() -> None:
    for text in ("rise 1/0 in 90°, fall", "rise 2 in 90/00°, fall 2 in 90°, dwell"):
        assert "over nought" in read_brief(text).misread[0].message


@pytest.mark.parametrize(
    "text", ["rise 20, dwell, fall", "fall in 90°, dwell", "rise 20 in 200°, fall in 200°, dwell"]
)
def test_what_follows_from_nothing_is_asked_for(text: str) -> None:
    assert "says no" in read_brief(text).misread[0].message


@pytest.mark.parametrize("key", lessons())
@pytest.mark.parametrize("own", [False, True])
def test_a_lesson_is_done_task_by_task_in_whatever_names(key: str, own: bool) -> None:
    lesson = lessons()[key]
    text = lesson.start
    for number, task in enumerate(lesson.tasks):
        work = work_out(text)
        assert lesson.at(work) == number
        row = task.row.format_map(lesson.names(work))
        line = task.line(work)
        if line:
            text = "".join(
                f"{row}\n" if at == line else f"{each}\n"
                for at, each in enumerate(text.splitlines(), 1)
            )
        else:
            text += f"mine{number} ={row.partition('=')[2]}\n" if own else f"{row}\n"
    done = work_out(text)
    assert lesson.at(done) == len(lesson.tasks)
    assert not done.solution.errors
    assert not [f for f in done.findings if f.weight in ("wrong", "look")]


@pytest.mark.parametrize(
    ("text", "called"),
    [
        ("0\nSECTION\n2\nHEADER\n", "a DXF drawing"),
        ("  0\r\nSECTION\r\n", "a DXF drawing"),
        ('<?xml version="1.0"?>\n<svg xmlns="x">', "an SVG drawing"),
        ("<!doctype html><p>", "markup, of a web page or the like"),
        ("%PDF-1.7\n", "a PDF"),
        ("%\nO0001\nG21 G90\n", "a program for a machine (ISO 6983)"),
        ('{"a": 1}', "JSON"),
        ("1,2\n3,4\n5,6\n", "a table of numbers"),
    ],
)
def test_a_file_of_another_kind_is_told_by_how_it_begins(text: str, called: str) -> None:
    assert foreign(text) == called


def test_no_plan_is_taken_for_a_file_of_another_kind() -> None:
    plans = [*sample_plans().values(), "", "O = datum\n", "# a note\n", "given r = 9\n"]
    assert not any(foreign(text) for text in plans)


def test_every_word_explained_is_said_somewhere_on_the_desk() -> None:
    said = (
        " ".join(
            f"{e.made.sentence} {' '.join(e.made.working)} {' '.join(s.text for s in done.steps)} {e.statement.kind}"
            for done in map(work_out, sample_plans().values())
            for e in done.solution.entries
            if e.made
        ).lower()
        + " ".join(
            f"{k.mistake} {k.summary} {' '.join(f.example for f in k.forms)}"
            for k in kinds().values()
        ).lower()
    )
    assert [word for word in WORDS if word not in said] == []
