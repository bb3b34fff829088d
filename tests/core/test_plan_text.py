"""The plan as text: it round-trips, and mistakes are found where they stand."""

import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import edited
from entrick.core.desk import work_out
from entrick.core.kind import Kind
from entrick.core.moves import kinds
from entrick.core.plan import edit
from entrick.core.plan.document import Clause, Given, Line, Plan, Statement, Title, Unread
from entrick.core.plan.forms import match_clause
from entrick.core.plan.reader import read_line, read_plan
from entrick.core.plan.slots import NUMBERS, REFERENCES
from entrick.core.plan.suggestions import suggestions
from entrick.core.plan.suggestions.words import BETWEEN, LITTLE
from entrick.core.plan.terms import Arrow, Binary, Bracket, Call, Name, Negative, Num
from entrick.core.plan.writer import write_line, write_plan
from entrick.core.solve import spoken

names = st.from_regex(r"[A-Za-z][A-Za-z0-9_]{0,6}", fullmatch=True).filter(
    lambda n: (
        n not in ("plan", "drawing", "units", "sheet", "given", "assumed", "R")
        and not re.match(r"R\d", n)
    )
)
numbers = st.one_of(
    st.integers(0, 9999).map(lambda n: Num(str(n))),
    st.tuples(st.integers(1, 99), st.integers(1, 7)).map(lambda t: Num(f"{t[0]} {t[1]}/8")),
    st.sampled_from(["4.25", ".5625", "30°", '3 1/2"', "12 mm"]).map(Num),
)
expressions = st.recursive(
    numbers | names.map(Name),
    lambda inner: st.one_of(
        st.tuples(inner, st.sampled_from("+-")).map(
            lambda t: Bracket(Binary(t[0], t[1], Num("2")))
        ),
        inner.map(lambda e: Bracket(Binary(e, "*", Name("q")))),
        inner.map(lambda e: Call("sqrt", e)),
        inner.map(lambda e: Bracket(Negative(Bracket(e)))),
    ),
    max_leaves=5,
)
clauses = st.lists(st.one_of(expressions, names.map(Name)), min_size=1, max_size=4).map(
    lambda i: Clause(tuple(i))
)
walks = st.lists(names, min_size=1, max_size=5).map(
    lambda ns: Clause(tuple(item for n in ns for item in (Arrow(), Name(n)))[1:])
)
notes = st.from_regex(r"[a-z ,.]{0,12}", fullmatch=True)
contents = st.one_of(
    notes.map(Title),
    st.builds(Given, names, expressions, st.sampled_from(["", "Ø"]), st.booleans(), notes),
    st.builds(
        Statement,
        names,
        names,
        st.lists(st.one_of(clauses, walks), max_size=3).map(tuple),
        st.booleans(),
        notes,
    ),
)


@given(st.lists(st.builds(Line, contents, st.sampled_from(["", "# as given"])), max_size=8))
def test_model_to_text_to_model(lines: list[Line]) -> None:
    """Text written from any model reads back as the same model, and writing it again changes nothing."""
    plan = Plan(tuple(lines))
    text = write_plan(plan)
    read = read_plan(text)
    assert read.lines == plan.lines, text
    assert write_plan(read) == text


@given(st.text(max_size=200))
def test_any_text_at_all_is_read_without_a_fault_and_none_of_it_is_lost(text: str) -> None:
    work_out("units mm\n" + text)
    for row in text.splitlines():
        line = read_line(row)
        if isinstance(line.content, Unread):
            assert line.content.text == row.rstrip()


@pytest.mark.parametrize(
    ("row", "says", "mend"),
    [
        ("given q = 0,5", "decimal point", "given q = 0.5"),
        ("given q = 4-1/4", "4 and 1/4", "given q = 4 1/4"),
        ("given q = 4 1/", "below the line", None),
        ("given q = 11/32 dia", "written Ø in a given", "given q = Ø11/32"),
        ("given q = dia. 11/32", "written Ø in a given", "given q = Ø11/32"),
        ("given q = 9 rad", "written R in a given", "given q = R9"),
        ("given q = 60 degrees", "written °", "given q = 60°"),
        ("given q = 2 x 25", "times is written ×", "given q = 2*25"),
        ("given q 12", "has = between", "given q = 12"),
        ("given q: R9/16", "has = between", "given q = R9/16"),
        ("q = 12", "is a given", "given q = 12"),
        ("given q = 12 pin hole", "in quotes", 'given q = 12 "pin hole"'),
        ("given q = 4 1/4 (overall)", "in quotes", 'given q = 4 1/4 "overall"'),
        ("given pin hole = 12", "one word", "given pin_hole = 12"),
        ("given q = 25.4 ± 0.1", "one size", 'given q = 25.4 "± 0.1"'),
        ("given q = 5;", "without a sign", "given q = 5"),
        ("chain q = 10, 20, 30", "without commas", "chain q = 10 20 30"),
        ("given q = 8 -3", "space after the minus", "given q = 8 - 3"),
        ("given q = a/1/2", "two ways", "given q = a/(1/2)"),
        ("given q = nope*2", "no given is called nope", None),
        ("given q = a*a*a", "multiplies", None),
        ("given q = 1/(a - a)", "divides by nought", None),
        ("given q = 30° + 1 mm", "mixes", None),
        ("given q = 999999*999999", "too large", None),
        ("given a = 3", "already the name", None),
        ("x = circel, centre O, radius 3", "did you mean circle", "x = circle, centre O, radius 3"),
        ("x = hexagon, centred on O", "mean polygon", "x = polygon, 6 sides, centred on O"),
        ("x = Hole, centre O, radius 3", "did you mean circle", "x = circle, centre O, radius 3"),
        ("x = square, centred on O", "did you mean box or polygon", None),
        ("x = least wall, at least 3", "check, wall at least 3", "x = check, wall at least 3"),
        ("x = dim, over O", "did you mean dimension, chain O? But a chain", None),
        ("x = rectangel, 20 by 30", "did you mean box", "x = box, 20 by 30"),
        ("x = circle, O, radius 3", "did you mean centre O?", "x = circle, centre O, radius 3"),
        ("x = circle, centre O, 9", "did you mean radius 9 or diameter 9", None),
        ("x = circle, centre O, a", "did you mean radius a or diameter a", None),
        (
            "x = circle, on centre O, radius 3",
            "did you mean centre O",
            "x = circle, centre O, radius 3",
        ),
        (
            "x = circle, centre O, radius of 3",
            "did you mean radius 3",
            "x = circle, centre O, radius 3",
        ),
        ("x = circle, centre O, radius = 3", "without the =", "x = circle, centre O, radius 3"),
        ("x = circle, centre O, radius: 3", "without the :", "x = circle, centre O, radius 3"),
        ("x = circle, centre O, r 3", "did you mean radius", "x = circle, centre O, radius 3"),
        (
            "x = box, 30 x 20, centred on O",
            "did you mean 30 by 20",
            "x = box, 30 by 20, centred on O",
        ),
        (
            "x = box, 30×20, centred on O",
            "did you mean 30 by 20",
            "x = box, 30 by 20, centred on O",
        ),
        (
            "x = midpoint, O and ring.centre",
            "between O and ring.centre",
            "x = midpoint, between O and ring.centre",
        ),
        (
            "x = line, from O ring.right",
            "from O to ring.right",
            "x = line, from O to ring.right",
        ),
        ("x = turn, ring, 3 about O", "did you mean of ring", "x = turn, of ring, 3 about O"),
        ("x = polygon, 6 sides, widget, side 5", "the clauses of polygon begin with", None),
        ("x = crossing, of ring.right and O.level", "ring.right is a point", None),
        (
            "x = chamfer, between O.level and O.plumb, 5",
            "did you mean 5 each way",
            "x = chamfer, between O.level and O.plumb, 5 each way",
        ),
        (
            "x = chamfer, between O.level and O.plumb, 5 x 45°",
            "did you mean 5 at 45°",
            "x = chamfer, between O.level and O.plumb, 5 at 45°",
        ),
        (
            "x = mirror, of ring, across O.plumb",
            "did you mean about O.plumb",
            "x = mirror, of ring, about O.plumb",
        ),
        (
            "x = line in, ring, O.level, ring, open",
            "have > between them: ring > O.level > ring",
            "x = line in, ring > O.level > ring, open",
        ),
        (
            "x = line, from O, to ring.top",
            "did you mean from O to ring.top",
            "x = line, from O to ring.top",
        ),
        (
            "x = polygon, 6, centred on O, radius 9",
            "did you mean 6 sides",
            "x = polygon, 6 sides, centred on O, radius 9",
        ),
        (
            "x = ellipse, centred on O, 60, 40",
            "did you mean axes 60 and 40",
            "x = ellipse, centred on O, axes 60 and 40",
        ),
        (
            "x = dimension, O, ring.top, plumb",
            "did you mean from O to ring.top",
            "x = dimension, from O to ring.top, plumb",
        ),
        ("x = box, 60, 40, from O", "did you mean 60 by 40", "x = box, 60 by 40, from O"),
        (
            "x = mirror, of ring, O.plumb",
            "did you mean about O.plumb",
            "x = mirror, of ring, about O.plumb",
        ),
        (
            "x = foot, from ring.top, to O.level",
            "did you mean of ring.top on O.level",
            "x = foot, of ring.top on O.level",
        ),
        (
            "x = parallel, to O.level, 8 above",
            "did you mean at 8, above",
            "x = parallel, to O.level, at 8, above",
        ),
        ("x = spaced, 6 round ring", "did you mean 6 on ring", "x = spaced, 6 on ring"),
        (
            "x = turn, of ring, 30° about O",
            "did you mean by 30° about O",
            "x = turn, of ring, by 30° about O",
        ),
        (
            "x = circle, centre 0, radius 3",
            "did you mean centre O",
            "x = circle, centre O, radius 3",
        ),
        (
            "x = fillet, O.level, O.plumb, radius 3",
            "did you mean between O.level and O.plumb",
            "x = fillet, between O.level and O.plumb, radius 3",
        ),
        ("x = circle, centre O, r5", "did you mean radius 5", "x = circle, centre O, radius 5"),
        (
            "x = polygon, 6 sides, centred on O, 30 AF",
            "did you mean 30 across flats",
            "x = polygon, 6 sides, centred on O, 30 across flats",
        ),
        (
            "x = arc, radius 30, touching to ring and O.level",
            "touching ring, touching O.level",
            "x = arc, radius 30, touching ring, touching O.level",
        ),
        ("x = circle, centre O, R15", "did you mean radius 15", "x = circle, centre O, radius 15"),
        (
            "x = circle, centre O, Ø 9/16",
            "did you mean diameter 9/16",
            "x = circle, centre O, diameter 9/16",
        ),
        (
            "x = circle, centre O, Ø1 1/4",
            "did you mean diameter 1 1/4",
            "x = circle, centre O, diameter 1 1/4",
        ),
        ("x = circle, centre O, ⌀60", "diameter as a word", "x = circle, centre O, diameter 60"),
        (
            "x = circle, centre O, 60 dia",
            "did you mean diameter 60",
            "x = circle, centre O, diameter 60",
        ),
        ("x = circle, centre O, dia. 60", "full stop", "x = circle, centre O, diameter 60"),
        (
            "x = arc, radius 90, tangent to ring",
            "did you mean touching ring",
            "x = arc, radius 90, touching ring",
        ),
        (
            "x = keyway, on ring, 6 wide, depth 2, above",
            "did you mean width 6",
            "x = keyway, on ring, width 6, depth 2, above",
        ),
        ("x = spaced, 6 holes on ring", "did you mean 6 on ring", "x = spaced, 6 on ring"),
        (
            "x = ellipse, centred on O, 60 by 40",
            "axes 60 and 40",
            "x = ellipse, centred on O, axes 60 and 40",
        ),
        ("x = line, from O, at 30 degrees", "did you mean at 30°", "x = line, from O, at 30°"),
        ("x = dimension, Ø ring", "did you mean diameter ring", "x = dimension, diameter ring"),
        (
            "x = dimension, O to ring.right",
            "did you mean from O to",
            "x = dimension, from O to ring.right",
        ),
        (
            "x = mirror, ring, about O.level",
            "did you mean of ring",
            "x = mirror, of ring, about O.level",
        ),
        ("x = line, horizontal through O", "a comma is missing", "x = line, level, through O"),
        (
            "x = line, perpendicular to O.level, through O",
            "said square here",
            "x = line, square to O.level, through O",
        ),
        ("x = line in ring", "comma parts line in", "x = line in, ring"),
        ("x = line in, ring, open, O.level", "have > between them: ring > O.level", None),
        ("x = line in, ring, O.level", "have > between them", "x = line in, ring > O.level"),
        (
            "x = arc, radius 60, touching ring and O.level",
            "touching ring, touching O.level",
            "x = arc, radius 60, touching ring, touching O.level",
        ),
        (
            "x = fillet, ring O.level, radius 4",
            "between ring and O.level",
            "x = fillet, between ring and O.level, radius 4",
        ),
        (
            "x = gear, about O, 24 teeth, module 4, bore 20",
            "bore diameter 20",
            "x = gear, about O, 24 teeth, module 4, bore diameter 20",
        ),
        ("x = widget, 20 by 30", "every kind stands in the list", None),
        ("x = circle, center O, radius 3", "did you mean centre", "x = circle, centre O, radius 3"),
        ("x = circle, centre O", "radius or a diameter", None),
        ("x = circle, radius 3", "needs centre", None),
        ("x = circle, centre O, radius 3, radius 4", "twice", None),
        ("x = circle, centre O, radius 0", "more than nought", None),
        (
            "x = circle, centre O, radius d",
            "given as a diameter",
            "x = circle, centre O, diameter d",
        ),
        (
            "x = circle, centre ring, radius 3",
            "ring.centre",
            "x = circle, centre ring.centre, radius 3",
        ),
        ("x = circle, centre P, radius 3", "nothing above is called P", None),
        ("x = point, 30° right of O", "clause wants a length", None),
        ("x = line in, ring > O", "O is a point", "x = line in, ring > O.level"),
        ("x circle", "starts with a name and =", None),
        (
            'x = circle, centre O, radius 3 "note',
            "closing quote",
            'x = circle, centre O, radius 3 "note"',
        ),
        ("x = circle, centre ring.middle, radius 3", "has no part middle", None),
        ("x = line, through O", "needs two conditions", None),
        ("x = line, from O to O", "same place", None),
        ("x = line, through O, horizontal", "did you mean level", "x = line, through O, level"),
        (
            "x = crossing of ring and O.level, left",
            "comma parts crossing",
            "x = crossing, of ring and O.level, left",
        ),
        ("x = circle, center O, dia 8", "centre", "x = circle, centre O, diameter 8"),
    ],
)
def test_a_mistake_says_what_was_expected_and_offers_the_mend(
    row: str, says: str, mend: str | None
) -> None:
    head = "units mm\ngiven a = 12 mm\ngiven d = Ø8\nO = datum\nring = circle, centre O, radius 9\n"
    done = work_out(head + row + "\nafter = circle, centre O, radius 2\n")
    error = next(e for e in done.solution.errors if e.line == 6)
    assert says in error.message
    assert error.mend == mend
    assert done.solution.entries[-1].made is not None, (
        "what does not depend on the mistake still solves"
    )
    if mend:
        assert not any(
            e.line == 6 and says in e.message for e in work_out(head + mend).solution.errors
        )


def test_what_depends_on_a_mistake_says_so_and_the_rest_is_drawn() -> None:
    done = work_out(
        "O = datum\nA = point, x right of O\nc = circle, centre A, radius 4\nd = circle, centre O, radius 4\n"
    )
    assert [e.line for e in done.solution.errors] == [2, 3]
    assert "mistake of its own" in done.solution.errors[1].message
    assert done.solution.entries[3].made is not None


def test_what_is_meant_is_known_where_what_it_names_has_a_mistake_of_its_own() -> None:
    done = work_out(
        "O = datum\nA = point, 9 right of O\nt = line, from O, to A\nf = foot, from A, to t\n"
    )
    assert [error.mend for error in done.solution.errors] == [
        "t = line, from O to A",
        "f = foot, of A on t",
    ]


def test_a_thing_that_is_called_like_a_word_of_its_kind_is_not_taken_for_that_word() -> None:
    head = "O = datum\nTouching = circle, centre O, radius 9\n"
    (error,) = work_out(head + "x = circle, Touching, radius 3\n").solution.errors
    assert error.mend == "x = circle, concentric with Touching, radius 3"


def test_sizes_are_bounded() -> None:
    with pytest.raises(ValueError, match="at most"):
        read_plan("#\n" * 2000)
    with pytest.raises(ValueError, match="characters"):
        read_plan("x" * 200_000)
    assert isinstance(read_line("given a = " + "(" * 60 + "1" + ")" * 60).content, Unread)
    assert isinstance(read_line("given a = " + "-" * 300 + "1").content, Unread)
    deep = work_out(
        "".join(f"given g{i} = {f'g{i - 1}*g{i - 1}' if i else '1/3'}\n" for i in range(40))
    )
    assert any("too fine" in e.message for e in deep.solution.errors)


PLAN = 'given a = 4 "eye"  # as told\nO = datum\nA = point, a right of O, assumed "guess"\nB = point, 2 above O\n'


def test_edits_change_their_line_and_nothing_else() -> None:
    assert (
        edited(PLAN, edit.set_given, 1, "9/16 in").splitlines()[0]
        == 'given a = 9/16 in "eye"  # as told'
    )
    broken = edited(PLAN, edit.set_given, 1, "4 1/")
    assert broken.splitlines()[0] == 'given a = 4 1/ "eye"  # as told'
    assert edited(broken, edit.set_given, 1, "4") == PLAN
    assert (
        edited(PLAN, edit.set_clause, 3, 0, "7 left of O").splitlines()[2]
        == 'A = point, 7 left of O, assumed "guess"'
    )
    assert (
        edited(PLAN, edit.set_clause, 3, 1, "3 above").splitlines()[2]
        == 'A = point, a right of O, 3 above, assumed "guess"'
    )
    assert edited(PLAN, edit.set_clause, 4, 0, "").splitlines()[3] == "B = point"
    assert edited(PLAN, edit.move_line, 4, 3).splitlines()[2] == "B = point, 2 above O"
    assert edited(PLAN, edit.insert_line, 2, "C  =  datum").splitlines()[2] == "C = datum"
    assert edited(PLAN, edit.delete_line, 2).count("\n") == 3
    for wrong in (
        lambda: edited(PLAN, edit.delete_line, 9),
        lambda: edited(PLAN, edit.set_clause, 1, 0, "x"),
    ):
        with pytest.raises(edit.EditError):
            wrong()


def test_line_ends_and_marks_of_other_editors_are_taken() -> None:
    assert write_plan(read_plan('\ufeffplan "x"\r\nunits in\r\n')) == 'plan "x"\nunits in\n'
    assert write_line(read_line("a=point,3*( 2 )left of O")) == "a = point, 3*(2) left of O"


@pytest.mark.parametrize(
    ("key", "said", "rows"),
    [
        ("plan", "Gate", ['plan "Gate"', "units in", "given a = 4", "O = datum"]),
        ("plan", 'Gate 3"', ['plan "Gate 3″"', "units in", "given a = 4", "O = datum"]),
        ("drawing", "OY-7", ["drawing OY-7", "units in", "given a = 4", "O = datum"]),
        ("units", "mm", ["units mm", "given a = 4", "O = datum"]),
        (
            "sheet",
            "A3 portrait, scale 1:5",
            ["units in", "sheet A3 portrait, scale 1:5", "given a = 4", "O = datum"],
        ),
        ("units", "", ["given a = 4", "O = datum"]),
        ("sheet", "", ["units in", "given a = 4", "O = datum"]),
    ],
)
def test_heading_lines_are_changed_written_in_their_place_or_taken_out(
    key: str, said: str, rows: list[str]
) -> None:
    assert (
        edited("units in\ngiven a = 4\nO = datum\n", edit.set_head, key, said).splitlines() == rows
    )


@pytest.mark.parametrize(
    ("typed", "kept"),
    [
        ('given a = 3 "n", assumed', 'given a = 3, assumed "n"'),
        ('chain c = 1 2 "n", assumed', 'chain c = 1 2, assumed "n"'),
        ('A = point, 3 right of O "n", assumed', 'A = point, 3 right of O, assumed "n"'),
        ('O = datum "n", assumed', 'O = datum, assumed "n"'),
    ],
)
def test_a_note_may_stand_before_that_a_size_is_assumed(typed: str, kept: str) -> None:
    assert edit.tidy(typed) == edit.tidy(kept) == kept + "\n"


@pytest.mark.parametrize(
    ("row", "words"),
    [
        ("x = circle, centre O, 9", ["radius 9", "diameter 9"]),
        ("x = circle, O, radius 9", []),
        ("x = square, centred on O", ["box", "polygon"]),
        ("x = mirror, ring, about O.level", []),
        ("x = mirror, of ring, across O.plumb", []),
        ("x = circle, centre O, radius nope", []),
        ("x = circle, center O, radius 9", []),
    ],
)
def test_where_several_things_may_be_meant_each_is_offered_as_a_line(
    row: str, words: list[str]
) -> None:
    head = "units mm\nO = datum\nring = circle, centre O, radius 9\n"
    (error,) = work_out(f"{head}{row}\n").solution.errors
    assert [each.words for each in error.meant] == words
    assert not (error.meant and error.mend)
    for each in error.meant:
        after = work_out(f"{head}{each.line}\n").solution.errors
        assert error not in after


EXAMPLES = [
    (kind, clause)
    for kind in kinds().values()
    if isinstance(statement := read_line(kind.example).content, Statement)
    for clause in spoken(statement)
]


@given(st.sampled_from(EXAMPLES), st.data())
def test_a_clause_with_a_word_too_many_or_too_few_is_known_for_what_it_was(
    example: tuple[Kind, Clause], data: st.DataObject
) -> None:
    """Of every kind's example: with a little word put in, without its first word, without one between two values."""
    kind, clause = example
    match = match_clause(clause, kind.forms)
    assert match is not None
    types = {slot.name: slot.type for slot in match.form.slots}
    said = [
        (value.text, types[name])
        for name, values in match.slots.items()
        for value in values
        if isinstance(value, Name)
    ]
    givens = {text for text, type_ in said if type_ in NUMBERS}
    things = {text.partition(".")[0] for text, type_ in said if type_ in REFERENCES}

    def suits(text: str, _: str) -> bool | None:
        return True if text.partition(".")[0] in things else None

    at = data.draw(st.integers(0, len(clause.items)))
    little = data.draw(st.sampled_from(sorted(LITTLE)))
    longer = Clause((*clause.items[:at], Name(little), *clause.items[at:]))
    if match_clause(longer, kind.forms) is None:
        assert str(clause) in suggestions(longer, kind.forms, givens, suits)
    if 0 < at < len(clause.items) - 1 and clause.items[at] in map(Name, BETWEEN):
        shorter = Clause((*clause.items[:at], *clause.items[at + 1 :]))
        if match_clause(shorter, kind.forms) is None:
            assert str(clause) in suggestions(shorter, kind.forms, givens, suits)
    for meant in suggestions(longer, kind.forms, givens, suits):
        row = read_line(f"x = {kind.name}, {meant}").content
        assert isinstance(row, Statement)
        assert all(match_clause(each, kind.forms) for each in spoken(row)), "what is offered fits"


@pytest.mark.parametrize(
    ("unit", "row", "mend"),
    [
        (
            "in",
            "sheet A4 landscape, scale 2:1, border 10",
            "sheet A4 landscape, scale 2:1, border 10 mm",
        ),
        ("mm", "sheet A4, landscape, scale 1:2", "sheet A4 landscape, scale 1:2"),
        ("mm", "sheet a3 Portrait", "sheet A3 portrait"),
        ("mm", "sheet A3 vertical, scale 1:2", "sheet A3 portrait, scale 1:2"),
        ("mm", "sheet A4 landscape, scale 1/2", "sheet A4 landscape, scale 1:2"),
        ("mm", "sheet A4 landscape, scale half", "sheet A4 landscape, scale 1:2"),
        ("mm", "sheet A4 landscape, scale full size", "sheet A4 landscape, scale 1:1"),
        ("mm", "sheet A4 landscape, 1:5", "sheet A4 landscape, scale 1:5"),
        ("mm", "sheet A4 landscape, margin 10", "sheet A4 landscape, border 10"),
        ("mm", "sheet 297 x 210", "sheet 297 by 210"),
        ("mm", "sheet A4 landscape, border 200", None),
        ("in", "sheet A4 landscape, border 200", None),
        ("mm", "sheet A9", None),
    ],
)
def test_a_sheet_as_drafters_write_it_is_a_press_away(
    unit: str, row: str, mend: str | None
) -> None:
    done = work_out(f"units {unit}\n{row}\nO = datum\nc = circle, centre O, radius 1\n")
    (error,) = done.sheet.errors
    assert (error.line, error.mend) == (2, mend), error.message
    assert done.display.marks, "the view is drawn on the usual sheet meanwhile"
    if mend:
        assert not work_out(
            f"units {unit}\n{mend}\nO = datum\nc = circle, centre O, radius 1\n"
        ).sheet.errors
