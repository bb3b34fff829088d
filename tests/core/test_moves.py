"""Each kind of construction, through the plan, as a drafter writes it."""

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from desk import HEAD, edited, refused, thing
from entrick.core.desk import work_out
from entrick.core.geometry import Arc, Circle, Line, Loop, Point, Shape
from entrick.core.moves import kinds
from entrick.core.plan.edit import choose_candidate


@pytest.mark.parametrize("kind", list(kinds().values()), ids=lambda kind: kind.name)
def test_every_kind_declares_an_example_that_reads(kind) -> None:  # type: ignore[no-untyped-def]
    """The example of each kind fits its own forms: it fails at most for names that are not there."""
    done = work_out(HEAD + kind.example + "\n")
    for found in done.solution.errors:
        assert "nothing above is called" in found.message or "already the name" in found.message
    assert kind.mistake
    assert kind.summary
    assert not kind.choosing_words & {form.head for form in kind.forms if form.needed}


def test_points_by_offsets_and_by_angle() -> None:
    done = work_out(
        HEAD + "A = point, 30 right of O\nB = point, 10 left of A, 5 above O\nC = point, 20 from O, at 30°\n"
        "D = point, 12 above A, 3 right\n"
    )
    assert thing(done, "A") == Point(30, 0)
    assert thing(done, "B") == Point(20, 5)
    assert thing(done, "D") == Point(33, 12)
    c = thing(done, "C")
    assert isinstance(c, Point)
    assert (c.x, c.y) == pytest.approx((10 * math.sqrt(3), 10))
    more = work_out(HEAD + "A = point, 20 from O at 30°\nB = point, 20 right, 10 above of O\n")
    assert thing(more, "A") == c
    assert thing(more, "B") == Point(20, 10)
    assert "same direction twice" in refused("A = point, 3 right of O, 4 left of O")
    assert "measured from" in refused("A = point, 3 right")
    assert "also needs its angle" in refused("A = point, 3 from O")


def test_diameters_are_halved_exactly_and_the_working_says_so() -> None:
    done = work_out("units in\nO = datum\nc = circle, centre O, diameter 9/16\n")
    made = done.solution.entries[1].made
    assert made is not None
    assert made.working == ("Ø 9/16 ÷ 2 = 9/32: the compass goes by radius",)
    step = done.steps[-1]
    assert step.setting is not None
    assert (step.tool, step.setting.reading) == ("circle template", "Ø9/16 in"), "a template goes by diameter"
    larger = work_out("units in\nO = datum\nc = circle, centre O, diameter 3 9/16\n").steps[-1]
    assert larger.setting is not None
    assert (larger.tool, larger.setting.reading, larger.setting.error) == ("compass", "1 25/32 in", 0)


def test_lines_level_plumb_at_an_angle_parallel_and_square() -> None:
    done = work_out(
        HEAD + "A = point, 30 right of O\nl = line, through A, level\np = line, through A, plumb\n"
        "s = line, through O, at 30°\nq = line, through A, parallel to s\nr = line, through A, square to s\n"
        "t = line, from O to A\nu = line, through O, through A\nX = crossing, of s and p\n"
    )
    directions = {n: thing(done, n).direction for n in "lpsqrtu"}  # type: ignore[union-attr]
    assert directions["l"] == Point(1, 0)
    assert directions["p"] == Point(0, 1)
    assert directions["q"] == directions["s"]
    assert abs(directions["r"].dot(directions["s"])) < 1e-12
    assert directions["t"] == directions["u"]
    x = thing(done, "X")
    assert isinstance(x, Point)
    assert (x.x, x.y) == pytest.approx((30, 30 * math.tan(math.radians(30))))


def test_a_line_may_be_said_in_several_ways() -> None:
    rows = "A = point, 30 right of O, 4 above\n" + "".join(
        f"l{i} = line, {said}\n"
        for i, said in enumerate(
            ("from O to A", "O A", "O to A", "through O and A", "through O A", "through O, through A")
        )
    )
    done = work_out(HEAD + rows + "m = line, from O, level\nn = line, through O, level\n")
    assert not done.solution.errors
    assert len({thing(done, f"l{i}") for i in range(6)}) == 1
    assert thing(done, "m") == thing(done, "n")
    pair = HEAD + TWO + "s = line, touching a, touching b, outer, above\nt = line, touching a and b, outer, above\n"
    assert thing(work_out(pair), "s") == thing(work_out(pair), "t")
    assert "nothing more" in refused(TWO + "t = line, touching a and b, level")


circle_rows = st.tuples(st.floats(-60, 60), st.floats(-60, 60), st.floats(2, 40))


@given(
    circle_rows,
    circle_rows,
    st.sampled_from(["outer", "crossed"]),
    st.sampled_from(["above", "below", "left", "right"]),
)
def test_common_tangents_touch_both(a, b, pair: str, side: str) -> None:  # type: ignore[no-untyped-def]
    apart = math.hypot(a[0] - b[0], a[1] - b[1])
    assume(apart > a[2] + b[2] + 1)
    done = work_out(
        HEAD
        + "".join(
            f"{n} = point, {x:.4f} right of O, {y:.4f} above O\nc{n} = circle, centre {n}, radius {r:.4f}\n"
            for n, (x, y, r) in zip("AB", (a, b), strict=True)
        )
        + f"t = line, touching cA, touching cB, {pair}, {side}\n"
    )
    entry = done.solution.entries[-1]
    if entry.made is None:  # both of the pair lie alike on that side: they must then be told apart otherwise
        assert len(entry.candidates) == 4
        return
    line = entry.made.shape
    assert isinstance(line, Line)
    for name in ("cA", "cB"):
        circle = thing(done, name)
        assert isinstance(circle, Circle)
        assert abs(abs(line.offset_of(circle.centre)) - circle.radius) < 1e-8
        touch = thing(done, f"t.touch.{name}")
        assert isinstance(touch, Point)
        assert abs(abs(touch - circle.centre) - circle.radius) < 1e-8


def test_a_tangent_from_a_point() -> None:
    done = work_out(
        HEAD + "A = point, 50 right of O\nc = circle, centre O, radius 30\nt = line, through A, touching c, above\n"
    )
    touch = thing(done, "t.touch.c")
    assert isinstance(touch, Point)
    assert (touch.x, touch.y) == pytest.approx((18, 24))  # 30²/50 and the 3-4-5 triangle
    assert "lie one inside the other" in refused(
        "c = circle, centre O, radius 30\nA = point, 5 right of O\nt = line, through A, touching c"
    )


TWO = "A = point, 70 left of O\nB = point, 70 right of O\na = circle, centre A, radius 30\nb = circle, centre B, radius 20\n"


@pytest.mark.parametrize("conditions", [
    ("around a", "around b"), ("beside a", "beside b"), ("around a", "beside b"), ("through A", "through B"),
    ("beside a", "through B"), ("touching m", "around b"), ("touching l", "through B"), ("touching l", "touching m"),
    ("centred on l", "around a"), ("centred on a", "through B"), ("touching a", "touching l"), ("inside c", "beside b"),
    ("inside c", "touching l"), ("centred on l", "touching m"),
], ids=" and ".join)  # fmt: skip
def test_any_two_conditions_can_be_met_and_each_candidate_meets_them(conditions: tuple[str, str]) -> None:
    size = 115.0
    rows = TWO + "l = line, through O, level\nm = line, through A, at 40°\nc = circle, centre O, radius 300\n"
    text = HEAD + rows + f"x = arc, radius {size}, {', '.join(conditions)}\n"
    entry = work_out(text).solution.entries[-1]
    letters = [c.letter for c in entry.candidates]
    assert len(letters) in (2, 4, 8) or entry.made is not None
    for candidate in entry.candidates:
        chosen = work_out(edited(text, choose_candidate, entry.line, candidate.words, frozenset()))
        made = chosen.solution.entries[-1].made
        assert made is not None, (candidate, chosen.solution.errors)
        assert made.shape == candidate.shape, "the words of a candidate choose that candidate"
        assert isinstance(made.shape, Arc | Circle)
        for condition in conditions:
            word, _, name = condition.rpartition(" ")
            check_contact(word, thing(chosen, name), made.shape.centre, size)


def check_contact(word: str, target: Shape | Loop, centre: Point, size: float) -> None:
    match target:
        case Point():
            assert abs(centre - target) == pytest.approx(size, abs=1e-9)
        case Line():
            apart = abs(target.offset_of(centre))
            assert apart == pytest.approx(0 if word == "centred on" else size, abs=1e-9)
        case Circle():
            apart = abs(centre - target.centre)
            wanted = {
                "around": [size - target.radius],
                "beside": [size + target.radius],
                "inside": [target.radius - size],
                "centred on": [target.radius],
                "touching": [size + target.radius, abs(size - target.radius)],
            }[word]
            assert min(abs(apart - w) for w in wanted) < 1e-9


@pytest.mark.parametrize(("rows", "says"), [
    ("x = arc, radius 30, around a, around b", "must be larger than its radius 30"),
    ("x = arc, radius 25, around a, around b", "must be larger"),
    ("x = arc, radius 90, inside a, beside b", "must be smaller"),
    ("x = arc, radius 10, beside a, beside b", "swings of 40 and 30 cannot meet across 140: the radius must be at least 45"),
    ("x = arc, radius 60, around a, around b", "swings of 30 and 40 cannot meet across 140: the radius must be at least 95"),
    ("x = arc, radius 85, beside a, around b2", "share their centre"),
    ("x = arc, radius 85, beside a, beside a", "all the way round"),
    ("x = arc, radius 5, touching l, beside a", "the radius must be at least"),
    ("x = arc, radius 85, beside l, beside a", "a circle or arc is wanted here"),
    ("x = arc, radius 85, beside a", "needs two conditions and has 1"),
    ("x = arc, beside a, beside b", "needs radius"),
    ("x = arc, radius 12, touching l, touching l2", "no radius would do"),
])  # fmt: skip
def test_what_cannot_be_is_explained_with_the_limit(rows: str, says: str) -> None:
    more = (
        "b2 = circle, centre A, radius 20\nC = point, 60 above O\nl = line, through C, level\nD = point, 90 above O\n"
    )
    assert says in refused(TWO + more + "l2 = line, through D, level\n" + rows)


@given(st.integers(60, 200), st.integers(5, 28), st.integers(5, 28), st.integers(120, 400))
def test_choices_are_kept_when_a_given_changes(between: int, r1: int, r2: int, radius: int) -> None:
    """The blend said to lie above lies above whatever the sizes, and its centre below."""
    assume(radius > (between + r1 + r2) / 2 + 1)
    # A blend beside that dips past the line of centres belongs to no part: its ends are above, its middle below.
    assume(min(r1, r2) > radius - math.sqrt(max(0.0, radius**2 - between**2 / 4)))
    rows = (
        f"given w = {between}\nA = point, w/2 left of O\nB = point, w/2 right of O\na = circle, centre A, radius {r1}\n"
        f"b = circle, centre B, radius {r2}\ntop = arc, radius {radius}, around a, around b, above\n"
        f"low = arc, radius {radius}, beside a, beside b, below\nrim = line in, a > top > b > low\n"
    )
    done = work_out(HEAD + rows)
    assert not done.solution.errors
    top = thing(done, "top")
    assert isinstance(top, Arc)
    assert top.middle.y > 0 > top.centre.y
    rim = thing(done, "rim")
    assert isinstance(rim, Loop)
    assert rim.closed
    assert all(j.is_tangent for j in rim.junctions)


def test_an_undecided_arc_lists_its_candidates_with_letters_and_words() -> None:
    done = work_out(HEAD + TWO + "x = arc, radius 90, touching a, touching b\n")
    entry = done.solution.entries[-1]
    assert entry.made is None
    assert [c.letter for c in entry.candidates] == list("ABCDEFGH")[: len(entry.candidates)]
    assert len({c.words for c in entry.candidates}) == len(entry.candidates)
    assert all(letter in entry.error.message for letter in "ABCD")  # type: ignore[union-attr]


def test_long_takes_the_other_part_of_the_arc() -> None:
    rows = TWO + "s = arc, radius 90, beside a, beside b, below\nl = arc, radius 90, beside a, beside b, below, long\n"
    done = work_out(HEAD + rows)
    short, long = thing(done, "s"), thing(done, "l")
    assert isinstance(short, Arc)
    assert isinstance(long, Arc)
    assert abs(short.sweep) + abs(long.sweep) == pytest.approx(math.tau)


def test_a_mirrored_blend_closes_the_outline() -> None:
    rows = TWO.replace("radius 20", "radius 30") + (
        "top = arc, radius 120, beside a, beside b, above\naxis = line, through O, level\n"
        "low = mirror, of top, about axis\nlow2 = mirror, of top, about line A B\nrim = line in, a > top > b > low\n"
    )
    done = work_out(HEAD + rows)
    assert not done.solution.errors
    assert thing(done, "low") == thing(done, "low2")
    rim = thing(done, "rim")
    assert isinstance(rim, Loop)
    assert rim.closed
    assert "its mirror image is itself" in refused("P = mirror, of O, about O.level")


def test_crossings_are_chosen_by_words() -> None:
    rows = "c = circle, centre O, radius 10\nP = crossing, of c and O.plumb, upper\nQ = crossing, of c O.level, left\nN = crossing, of c O.level, near Q\n"
    done = work_out(HEAD + rows)
    assert thing(done, "P") == Point(0, 10)
    assert thing(done, "Q") == thing(done, "N") == Point(-10, 0)
    assert "miss by 5" in refused(
        "c = circle, centre O, radius 10\nA = point, 15 above O\nl = line, through A, level\nP = crossing, of c and l"
    )


def test_a_given_as_radius_or_diameter_is_not_taken_for_the_other() -> None:
    done = work_out(
        "given e = Ø40\ngiven f = R15\nO = datum\na = circle, centre O, diameter e\nb = circle, centre O, radius f\nc = circle, centre O, radius e/2\n"
    )
    assert not done.solution.errors
    assert [thing(done, n).radius for n in "abc"] == [20, 15, 20]  # type: ignore[union-attr]


def test_millimetres_and_inches_mix_exactly() -> None:
    done = work_out("units in\ngiven w = 25.4 mm\ngiven v = 1 1/2\nO = datum\nA = point, w + v right of O\n")
    assert thing(done, "A") == Point(2.5, 0)


def test_loci_that_only_touch_give_the_single_right_answer() -> None:
    """At the limiting radius the two swings touch: one arc, no letters to choose from."""
    done = work_out(HEAD + TWO + "x = arc, radius 45, beside a, beside b\ny = arc, radius 95, around a, around b\n")
    assert not done.solution.errors
    x, y = thing(done, "x"), thing(done, "y")
    assert isinstance(x, Arc | Circle)
    assert isinstance(y, Arc | Circle)
    assert (x.centre.x, x.centre.y) == pytest.approx((5, 0))
    assert (y.centre.x, y.centre.y) == pytest.approx((-5, 0))
    assert not done.solution.entries[-1].candidates


def test_coincident_points_and_equal_circles_are_refused_clearly() -> None:
    twin = "A = point, 5 right of O\nB = point, 5 right of O\na = circle, centre A, radius 3\nb = circle, centre B, radius 3\n"
    assert "same place" in refused(twin + "l = line, from A to B")
    assert "same line or circle" in refused(twin + "rim = line in, a > b")
    assert "same line or circle" in refused(twin + "P = crossing, of a and b")
    assert "same centre" in refused(twin + "t = line, touching a, touching b")
    assert "all the way round" in refused(twin + "x = arc, radius 9, through A, through B")
