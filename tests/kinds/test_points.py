"""``points``."""

import pytest

from desk import point_of, refused, solved, thing


def test_places_are_right_and_above_their_origin() -> None:
    done = solved(
        "A = point, 5 right of O, 5 above\nat = points, from A, 10 20, 35 (-15), 0 0\nc = circle, centre at, radius 2\n"
    )
    assert [tuple(point_of(done, f"at.{i}")) for i in (1, 2, 3)] == [(15, 25), (40, -10), (5, 5)]
    assert thing(done, "c.2.centre") == point_of(done, "at.2")


def test_every_place_is_measured_from_the_origin_itself() -> None:
    done = solved("at = points, from O, 10 20, 35 (-15), 0 0\n")
    told = [(s.setting.actual, s.text) for s in done.steps if s.name == "at" and s.setting]
    assert [size for size, _ in told] == [10, 20, 35, 15, 0]
    assert [text.startswith("From O measure to the right") for _, text in told[::2]] == [
        True,
        True,
        False,
    ]
    assert told[3][1] == "From 5 measure down, mark 2"


@pytest.mark.parametrize(("clauses", "told"), [("10", "here are 1"), ("10 20 30", "here are 3")])
def test_a_place_is_two_lengths(clauses: str, told: str) -> None:
    assert told in refused(f"at = points, from O, {clauses}\n")


def test_a_list_wants_a_place() -> None:
    assert "at least one place" in refused("at = points, from O\n")


def test_rows_of_a_table_are_places_too() -> None:
    done = solved('at = points, from O, csv "-20,15; 42.5,15 0,-7.25"\n')
    assert [tuple(point_of(done, f"at.{i}")) for i in (1, 2, 3)] == [
        (-20, 15),
        (42.5, 15),
        (0, -7.25),
    ]
    assert "row 2 of the list, 4, is not two numbers" in refused(
        'at = points, from O, csv "1,2 4"\n'
    )
    assert "row 1 of the list, 1,x," in refused('at = points, from O, csv "1,x"\n')
    many = " ".join(f"{i},{i}" for i in range(201))
    assert "at most 200 places" in refused(f'at = points, from O, csv "{many}"\n')
    for row in ("1e999999999,1", "1/0,1", "nan,1", "1,2,3"):
        assert "is not two numbers" in refused(f'at = points, from O, csv "{row}"\n')
