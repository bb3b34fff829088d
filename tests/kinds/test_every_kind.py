"""Each kind of construction, through the plan, as a drafter writes it."""

import pytest

from desk import HEAD, refused, thing
from entrick.core.desk import work_out
from entrick.core.geometry import Point
from entrick.core.moves import kinds


@pytest.mark.parametrize("kind", list(kinds().values()), ids=lambda kind: kind.name)
def test_every_kind_declares_an_example_that_reads(kind) -> None:  # type: ignore[no-untyped-def]
    """The example of each kind fits its own forms: it fails at most for names that are not there."""
    done = work_out(HEAD + kind.example + "\n")
    for found in done.solution.errors:
        assert "nothing above is called" in found.message or "already the name" in found.message
    assert kind.mistake
    assert kind.summary
    assert not kind.choosing_words & {form.head for form in kind.forms if form.needed}


def test_a_given_as_radius_or_diameter_is_not_taken_for_the_other() -> None:
    done = work_out(
        "given e = Ø40\ngiven f = R15\nO = datum\na = circle, centre O, diameter e\nb = circle, centre O, radius f\nc = circle, centre O, radius e/2\n"
    )
    assert not done.solution.errors
    assert [thing(done, n).radius for n in "abc"] == [20, 15, 20]  # type: ignore[union-attr]


def test_millimetres_and_inches_mix_exactly() -> None:
    done = work_out(
        "units in\ngiven w = 25.4 mm\ngiven v = 1 1/2\nO = datum\nA = point, w + v right of O\n"
    )
    assert thing(done, "A") == Point(2.5, 0)


def test_coincident_points_and_equal_circles_are_refused_clearly() -> None:
    twin = "A = point, 5 right of O\nB = point, 5 right of O\na = circle, centre A, radius 3\nb = circle, centre B, radius 3\n"
    assert "same place" in refused(twin + "l = line, from A to B")
    assert "same line or circle" in refused(twin + "rim = line in, a > b")
    assert "same line or circle" in refused(twin + "P = crossing, of a and b")
    assert "same centre" in refused(twin + "t = line, touching a, touching b")
    assert "all the way round" in refused(twin + "x = arc, radius 9, through A, through B")
