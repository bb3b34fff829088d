"""Points and lines that follow from others, families, and copies."""

import math

import pytest

from desk import line_of, point_of, refused, solved, thing
from entrick.core.geometry import Circle, Loop, Point, Shape
from entrick.core.geometry.shapes import extremes
from entrick.core.kind.figure import Family

FAMILY = "c = circle, centre O, radius 50\nring = spaced, 3 on c, from below\nhole = circle, centre ring, diameter 9\n"


def test_a_statement_given_a_family_makes_a_family() -> None:
    done = solved(
        FAMILY
        + "holes = line in, hole\none = circle, centre ring.2, radius 20\nmid = midpoint, between O and ring\n"
    )
    hole = done.solution.figure.items["hole"].shape
    assert isinstance(hole, Family)
    assert [m.radius for m in hole.members] == [4.5] * 3  # type: ignore[union-attr]
    assert {f"hole.{i}" for i in (1, 2, 3)} <= dict(done.solution.figure.things()).keys()
    one = done.solution.figure.items["one"].shape
    assert isinstance(one, Circle)
    assert one.centre == point_of(done, "ring.2")
    assert abs(point_of(done, "mid.3")) == pytest.approx(25)
    entry = next(e for e in done.solution.entries if e.statement.name == "hole")
    assert entry.made is not None
    assert entry.made.sentence == "3 times: Circle hole about ring, diameter 9."
    gone = [act for s in done.steps if s.name == "holes" and s.source for act in s.source.acts]
    assert len(gone) == 3, "each is lined in, and none drawn lightly before"
    loops = next(
        e.made.loops for e in done.solution.entries if e.made and e.statement.name == "holes"
    )
    assert sum(abs(loop.area) for loop in loops) == pytest.approx(3 * math.pi * 4.5**2)
    assert sum("is closed" in f.message for f in done.findings) == 3
    picks = {m.name for m in done.display.marks if hasattr(m, "name") and m.name}
    assert {"hole.1", "hole.3", "ring.2"} <= picks


def test_families_are_paired_and_unequal_ones_refused() -> None:
    more = "d = circle, centre O, radius 30\nfour = spaced, 4 on d\nthree = spaced, 3 on d\n"
    done = solved(FAMILY + more + "rib = line, from three to ring\n")
    assert len(done.solution.figure.items["rib"].shape.members) == 3  # type: ignore[union-attr]
    assert "3 and 4 members cannot be paired" in refused(
        FAMILY + more + "rib = line, from four to ring\n"
    )
    assert "a family of several" in refused(FAMILY + "rim = line in, hole > c\n")


def test_three_lobes_are_turned_joined_and_closed() -> None:
    """A hand wheel: three bosses on a pitch circle, each pair joined by an arc beside both."""
    done = solved(
        "A = point, 60 above O\nboss = circle, centre A, radius 18\nlobe = turn, of boss, 3 about O\n"
        "ab = arc, radius 45, beside lobe.1, beside lobe.2, left\nbc = arc, radius 45, beside lobe.2, beside lobe.3, below\n"
        "ca = arc, radius 45, beside lobe.3, beside lobe.1, right\nrim = line in, lobe.1 > ab > lobe.2 > bc > lobe.3 > ca\n"
    )
    rim = done.solution.figure.items["rim"].shape
    assert isinstance(rim, Loop)
    assert rim.closed
    assert all(j.is_tangent for j in rim.junctions)
    assert not [f for f in done.findings if f.weight == "wrong"]
    lengths = [p.length for p in rim.pieces]
    assert lengths[0] == pytest.approx(lengths[2]) == pytest.approx(lengths[4])
    assert lengths[1] == pytest.approx(lengths[3]) == pytest.approx(lengths[5])


def test_shifted_things_keep_their_size() -> None:
    done = solved(
        "c = circle, centre O, radius 7\nd = shift, of c, 30 right, 4 below\nl = line, from O to d.centre\nm = shift, of l, 5 above\n"
    )
    d = done.solution.figure.items["d"].shape
    assert isinstance(d, Circle)
    assert (d.centre, d.radius) == (Point(30, -4), 7)
    assert extremes(line_of(done, "m")) == (Point(0, 5), Point(30, 1))


@pytest.mark.parametrize(
    ("rows", "says"),
    [
        ("c = circle, centre O, radius 5\nr = spaced, 1 on c", "at least two"),
        ("c = circle, centre O, radius 5\nr = spaced, 2 1/2 on c", "not a whole number"),
        ("c = circle, centre O, radius 5\nr = spaced, 1000 on c", "not a whole number"),
        ("c = circle, centre O, radius 5\nr = spaced, 3 on c, first towards O", "centre itself"),
        ("l = line, through O, level\nd = divide, of l, in 3", "no ends to divide"),
        ("l = line, through O, level\nM = midpoint, of l", "no ends, so it has no middle"),
        ("l = line, through O, level\np = bisector, of l", "no ends to bisect"),
        ("A = point, 3 right of O\nd = divide, of line O A, in 1", "at least two parts"),
        ("A = point, 3 right of O\nq = bisector, of angle A O A", "straight line"),
        ("A = point, 3 right of O\nq = bisector, of angle A A O", "lead away from A"),
        ("l = line, through O, level\nF = foot, of O on l", "lies on l already"),
        ("l = line, through O, level\nm = parallel, to l, at 0, above", "more than nought"),
        ("l = line, through O, level\nm = parallel, to l, at 4", "2 parallels fit"),
        ("A = point, 3 right of O\nt = turn, of A, 1 about O", "at least two places"),
        ("A = point, 3 right of O\nt = shift, of A, 0 right", "nothing would move"),
        ("M = midpoint", "lies between two points"),
    ],
)
def test_what_cannot_be_is_said(rows: str, says: str) -> None:
    assert says in refused(rows + "\n")


@pytest.mark.parametrize(
    "rows",
    [
        FAMILY,
        "A = point, 30 right of O\nd = divide, of line O A, in 4\n",
        "A = point, 30 right of O\nM = midpoint, between O and A\n",
    ],
)
def test_swings_and_ticks_of_the_steps_lie_where_they_say(rows: str) -> None:
    """Every compass or divider step stands on its needle, and swings at its own setting."""
    done = solved(rows)
    for step in done.steps:
        if step.tool not in ("compass", "dividers") or step.needle is None or step.setting is None:
            continue
        alone = step.source is not None and not step.source.also
        for stroke in step.strokes:
            shape: Shape = stroke.shape
            if hasattr(shape, "radius"):
                assert shape.radius == pytest.approx(step.setting.actual)
                assert not alone or abs(shape.centre - step.needle) < 1e-9


def test_rows_of_rows_have_two_numbers() -> None:
    done = solved(
        "c = circle, centre O, radius 5\nrow = shift, of c, 30 right, 3 times\nall = shift, of row, 25 above, 2 times\n"
        "bore = line in, all\nx = circle, concentric with all.2.1, radius 3\n"
    )
    assert [name for name, _ in done.solution.figure.things() if name.startswith("bore")] == [
        f"bore.{row}.{place}" for row in (1, 2, 3) for place in (1, 2)
    ]
    assert thing(done, "x").centre == thing(done, "all.2.1").centre
    assert len(done.checked.outlines) == 6


BORED = "A = point, 40 right of O\nc = circle, centre A, radius 10\nd = circle, centre O, radius 80\nrim = line in, d\nbore = line in, c\n"


def test_copies_of_what_is_lined_in_are_outlines_cut_once() -> None:
    done = solved(BORED + "t = turn, of bore, 4 about O\n")
    again = solved(BORED + "t = turn, of bore, 4 about O\nmore = line in, t\n")
    for each in (done, again):
        assert [o.name for o in each.checked.outlines] == ["rim", "bore", "t.2", "t.3", "t.4"]
        assert len([mark for mark in each.display.marks if mark.role == "outline"]) == 5
        assert not [
            f for f in each.findings if f.weight in ("wrong", "look") and "cut twice" in f.message
        ]
    plain = solved(BORED + "other = mirror, of c, about O.plumb\n")
    assert [o.name for o in plain.checked.outlines] == ["rim", "bore"]
    mixed = solved(
        BORED
        + "two = mirror, of bore d, about line O A\nthree = shift, of bore, 20 above, 2 times\n"
    )
    assert [o.name for o in mixed.checked.outlines] == ["rim", "bore", "three.1", "three.2"]


def test_an_outline_may_still_be_gone_over_as_hidden() -> None:
    done = solved(BORED + "t = mirror, of bore, about O.plumb\nh = hidden, t\n")
    assert [mark.role for mark in done.display.marks].count("hidden") == 1
