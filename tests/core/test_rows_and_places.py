"""What the desk does for whoever writes: rows begun and picked into, places of a clause, events, givens, layers."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import edited
from entrick.core.assist.clauses import matched, said_in_place, set_place
from entrick.core.assist.follow import Event, add_event, events_of, set_event
from entrick.core.assist.row import FIRST, begin, doubt, picked, usually_next
from entrick.core.desk import work_out
from entrick.core.drawing.marks import moved
from entrick.core.memo import Memo, number_of, remembered
from entrick.core.moves import kinds
from entrick.core.plan import edit
from entrick.core.plan.document import Statement
from entrick.core.plan.reader import read_plan
from entrick.core.plan.terms import Num
from entrick.demo import sample_plans

SAMPLES = sorted(sample_plans().values())
CAM = (
    "O = datum\nc = cam, about O, least 30, rise 90° by 20 cycloidal, dwell 180°, fall 90° by 20\n"
)
STATEMENTS = [
    (text, number, line.content, index)
    for text in SAMPLES
    for number, line in enumerate(read_plan(text).lines, 1)
    if isinstance(line.content, Statement)
    for index in range(len(line.content.clauses))
]


@pytest.mark.parametrize("kind", sorted(kinds()))
def test_a_row_begins_with_a_name_that_is_free_and_the_kind(kind: str) -> None:
    solution = work_out(
        "O = datum\nrim = point, 3 right of O\narc1 = point, 4 right of O\n"
    ).solution
    name, _, rest = begin(solution, kind).partition(" = ")
    assert rest.partition(",")[0] == kind
    assert name not in solution.taken


def test_what_is_picked_comes_into_a_walk_as_its_next_piece_and_elsewhere_at_the_end() -> None:
    solution = work_out("").solution
    row = "rim = line in, "
    for name in ("a", "top", "b"):
        row = picked(solution, row, name)
    assert row == "rim = line in, a > top > b"
    assert picked(solution, "rim = line in, open,", "a") == "rim = line in, open, a"
    assert picked(solution, "back = hidden, a >", "b") == "back = hidden, a > b"
    assert (
        picked(solution, "t = arc, radius 9, touching", "a.b") == "t = arc, radius 9, touching a.b"
    )


def test_a_row_that_can_become_nothing_is_told_so_and_others_are_not() -> None:
    assert "starts with a name and =" in doubt("circle centre O")
    for row in ("", "  ", "given r", "chain t", "# a remark", "c = circ", 'plan "x"'):
        assert doubt(row) == ""


def test_a_plan_begun_as_usual_is_offered_the_usual_next_line() -> None:
    text = 'plan "x"\ngiven r = 4\n'
    for row in FIRST:
        assert usually_next(read_plan(text)) == row
        text = edited(text, edit.append, row)
    assert usually_next(read_plan(text)) == ""
    assert usually_next(read_plan("Q = datum\n")) == ""


@given(st.sampled_from(STATEMENTS), st.data())
def test_a_place_of_a_clause_is_changed_and_nothing_else(
    where: tuple[str, int, Statement, int], data: st.DataObject
) -> None:
    text, line, statement, index = where
    match = matched(statement.kind, statement.clauses[index])
    assert match is not None
    places = list(said_in_place(match))
    if not places:
        return
    slot, said = data.draw(st.sampled_from(places))
    assert edited(text, set_place, line, index, slot.name, said) == edited(
        text, edit.move_line, line, line
    )
    if slot.takes_one:
        changed = (
            read_plan(edited(text, set_place, line, index, slot.name, "elsewhere"))
            .lines[line - 1]
            .content
        )
        assert isinstance(changed, Statement)
        again = matched(changed.kind, changed.clauses[index])
        assert again is not None
        told = {other.name: words for other, words in said_in_place(again)}
        assert told == {other.name: words for other, words in places} | {slot.name: "elsewhere"}


def test_a_place_that_is_not_there_is_refused() -> None:
    for line, clause, place in ((2, 0, "nothing"), (2, 9, "centre"), (1, 0, "centre")):
        with pytest.raises(edit.EditError):
            edited(CAM, set_place, line, clause, place, "O")


def test_events_of_a_follower_are_read_changed_and_added() -> None:
    events = events_of(read_plan(CAM).lines[1].content)  # type: ignore[arg-type]
    assert events is not None
    assert [(e.event, e.angle, e.lift, e.motion) for e in events.rows] == [
        ("rise", "90°", "20", "cycloidal"),
        ("dwell", "180°", "", ""),
        ("fall", "90°", "20", ""),
    ]
    for event in events.rows:
        assert edited(CAM, set_event, 2, event) == CAM
    assert "dwell 180°" not in edited(CAM, set_event, 2, Event(3, "rise", "180", "5", "uniform"))
    assert edited(CAM, set_event, 2, Event(3, "rise", "180", " ", "")) == CAM, (
        "half written: left as it was"
    )
    assert edited(CAM, add_event, 2).endswith("fall 90° by 20, dwell 30°\n")
    assert events_of(read_plan("c = circle, centre O, radius 4\n").lines[0].content) is None  # type: ignore[arg-type]
    with pytest.raises(edit.EditError, match="does not jump"):
        edited(CAM, set_event, 2, Event(2, "jump", "9", "9", ""))


def test_a_new_given_stands_below_the_others_or_above_the_first_statement() -> None:
    assert (
        edited("units mm\nO = datum\n", edit.new_given, "r=4")
        == "units mm\ngiven r = 4\nO = datum\n"
    )
    assert (
        edited("given a = 1\nO = datum\n", edit.new_given, 'given  b = Ø9 "pin"')
        == 'given a = 1\ngiven b = Ø9 "pin"\nO = datum\n'
    )
    assert edited("", edit.new_given, "r = 4 1/") == "given r = 4 1/\n", (
        "what cannot be read is kept as typed"
    )
    for text in ("r 4", "r: 4", "given r 4", "r =4"):
        assert edited("O = datum\n", edit.new_given, text) == "given r = 4\nO = datum\n"
    for text in ("", "4", "r", "= 4", "r =", "x y = 4"):
        with pytest.raises(edit.NotUnderstood, match="write a letter"):
            edited("O = datum\n", edit.new_given, text)
    with pytest.raises(edit.NotUnderstood, match="one word, such as pin_hole"):
        edited("O = datum\n", edit.new_given, "pin hole = 12")


@given(st.sampled_from(SAMPLES))
def test_layers_put_together_are_the_display_list(text: str) -> None:
    drawing = work_out(text).drawing
    dx, dy = drawing.origin
    laid = [
        moved(mark, dx, dy, mark.line, mark.step)
        for layer in drawing.layers
        for mark in layer.marks
    ]
    assert (*drawing.ground, *laid) == drawing.display.marks
    keys = [layer.key for layer in drawing.layers]
    assert len(set(keys)) == len(keys)


def test_an_edit_that_moves_the_view_leaves_the_layers_of_what_it_did_not_touch() -> None:
    text = "units mm\nsheet A3, scale 1:1\nO = datum\nA = point, 20 right of O\nc = circle, centre A, radius 9\nB = point, 60 above O\n"
    before, after = work_out(text).drawing, work_out(text.replace("60 above", "70 above")).drawing
    assert before.origin != after.origin
    same = {layer.key for layer in before.layers} & {layer.key for layer in after.layers}
    assert {mark.line for layer in after.layers if layer.key in same for mark in layer.marks} >= {5}
    assert {
        mark.line for layer in after.layers if layer.key not in same for mark in layer.marks
    } >= {6}


def test_what_was_not_asked_for_lately_is_let_go_first() -> None:
    memo: Memo[str] = Memo(10)
    memo.put(1, "one", 4)
    memo.put(2, "two", 4)
    memo.put(3, "three", 4)  # too much by now: one and two are old
    assert memo.get(1) == "one", "asked for, it is young again"
    memo.put(4, "four", 4)
    assert [memo.get(key) for key in (1, 2, 3)] == ["one", None, "three"]


def test_a_serial_number_is_of_one_thing_and_never_given_again() -> None:
    numbers = set()
    for _ in range(1000):
        thing = Num("7")
        assert thing.serial == thing.serial
        numbers.add(thing.serial)
    assert len(numbers) == 1000
    assert Num("7") == Num("7")
    assert number_of(("a", 1)) == number_of(("a", 1)) != number_of(("a", 2))


def test_a_remembered_function_tells_its_arguments_apart_by_which_they_are_and_by_name() -> None:
    asked = []

    @remembered()
    def look(one: Num, more: tuple[Num, ...] = (), limit: float = 1.0) -> str | None:
        asked.append((one, more, limit))
        return None

    first, second = Num("7"), Num("7")
    for _ in range(2):
        look(first)
        look(second)
        look(first, (second,))
        look(first, limit=2.0)
        look(first, limit=3.0)
    assert len(asked) == 5
