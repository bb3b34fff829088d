"""Expressions against a general computer-algebra library, and the words that choose among several solutions."""

import math
import re
from fractions import Fraction as F

import pytest
import sympy
from hypothesis import assume, given
from hypothesis import strategies as st

from desk import HEAD, refused, solved, thing
from entrick.core.desk import work_out
from entrick.core.geometry import Circle, Point
from entrick.core.kind import Args, ClauseValues, Option, Undecided, choose
from entrick.core.kind.figure import Figure, Item
from entrick.core.measure import Dimension, Quantity, Unit
from entrick.core.plan.document import Given
from entrick.core.plan.errors import ClauseError
from entrick.core.plan.evaluate import evaluate
from entrick.core.plan.reader import read_line

terms = st.recursive(
    st.one_of(
        st.integers(1, 99).map(str),
        st.tuples(st.integers(1, 9), st.integers(1, 15)).map(lambda t: f"({t[0]} {t[1]}/16)"),
    ),
    lambda inner: st.one_of(
        st.tuples(inner, st.sampled_from([" + ", " - ", "*", "/"]), inner).map(
            lambda t: f"({t[0]}{t[1]}{t[2]})"
        ),
        inner.map(lambda t: f"(-{t})"),
    ),
    max_leaves=6,
)


def value_of(text: str, unit: Unit = Unit.MM, **givens: Quantity) -> Quantity:
    content = read_line(f"given x = {text}").content
    assert isinstance(content, Given), content
    return evaluate(content.value, givens, unit)


@given(terms)
def test_sums_and_products_against_exact_algebra(text: str) -> None:
    """sympy works the same text out in exact rationals; ours is the same fraction, not a float near it."""
    exact = sympy.sympify(
        re.sub(r"\((\d) (\d+)/16\)", r"(\1 + Rational(\2, 16))", text), rational=True
    )
    assume(exact.is_finite)
    assume(abs(exact) <= 10**6)
    ours = value_of(text).value
    assert isinstance(ours, F)
    assert ours == F(int(exact.p), int(exact.q))


@pytest.mark.parametrize(
    ("text", "wanted"),
    [
        ("sqrt(2)", math.sqrt(2)),
        ("sqrt(9/16)", F(3, 4)),
        ("sin(30°)", 0.5),
        ("cos(60)", 0.5),
        ("tan(45°)", 1.0),
        ("asin(1/2)", 30.0),
        ("acos(0)", 90.0),
        ("atan(1)", 45.0),
        ("2*pi", math.tau),
        ("a/2 + 3", F(51)),
        ("2×a ÷ 3", F(64)),
        ("a − 1", F(95)),
        ("sqrt(a*a + 28*28)", F(100)),
        ("1 in - 0.4 mm", F(25)),
    ],
)
def test_functions_and_signs(text: str, wanted: float | F) -> None:
    found = value_of(text, a=Quantity(F(96))).value
    assert found == pytest.approx(float(wanted), rel=1e-15)
    assert isinstance(found, F) == isinstance(wanted, F)


@pytest.mark.parametrize(
    ("text", "dimension"),
    [
        ("w", Dimension.LENGTH),
        ("w/2", Dimension.LENGTH),
        ("w/v", Dimension.PLAIN),
        ("w*v", Dimension.AREA),
        ("w*v/w", Dimension.LENGTH),
        ("sqrt(w*w + v*v)", Dimension.LENGTH),
        ("w + 3", Dimension.LENGTH),
        ("30°/2", Dimension.ANGLE),
        ("atan(w/v)", Dimension.ANGLE),
    ],
)
def test_what_a_result_measures_follows_from_what_went_in(text: str, dimension: Dimension) -> None:
    length = Quantity(F(8), Dimension.LENGTH)
    assert value_of(text, w=length, v=length).dimension is dimension


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("w + 30°", "mixes"),
        ("w*v*w", "multiplies"),
        ("30°*30°", "multiplies"),
        ("30°/w", "divides an? angle"),
        ("sqrt(0 - 4)", "below nought"),
        ("asin(2)", "from -1 to 1"),
        ("z", "no given is called z"),
        ("w/0", "divides by nought"),
    ],
)
def test_what_makes_no_sense_is_said(text: str, says: str) -> None:
    length = Quantity(F(8), Dimension.LENGTH)
    with pytest.raises(ClauseError, match=says):
        value_of(text, w=length, v=length)


def args(*words: tuple[str, str]) -> Args:
    return Args(
        "x",
        Unit.MM,
        tuple(ClauseValues(key, index, ((key, word),)) for index, (key, word) in enumerate(words)),
    )


spots = st.builds(Point, st.integers(-50, 50).map(float), st.integers(-50, 50).map(float))


@given(st.lists(spots, min_size=2, max_size=8, unique=True), st.data())
def test_the_words_given_for_a_candidate_choose_it(
    places: list[Point], data: st.DataObject
) -> None:
    """For any spread of up to eight solutions, the words shown beside each letter choose exactly that one."""
    kinds = data.draw(
        st.lists(
            st.sampled_from(["beside", "around", ""]), min_size=len(places), max_size=len(places)
        )
    )
    options = [
        Option(Circle(place, 1.0), place, "arc", frozenset({kind} if kind else ()))
        for place, kind in zip(places, kinds, strict=True)
    ]
    with pytest.raises(Undecided) as undecided:
        choose(options, args(), "arc")
    candidates = undecided.value.candidates
    assert [c.letter for c in candidates] == list("ABCDEFGH")[: len(options)]
    for candidate in candidates:
        keyed = [
            (
                "turn"
                if word
                in ("first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth")
                else "contact"
                if word in ("beside", "around")
                else "where",
                word,
            )
            for word in candidate.words
        ]
        index, again = choose(options, args(*keyed), "arc")
        assert options[index].shape == candidate.shape
        assert [c.letter for c in again if c.chosen] == [candidate.letter]


def test_near_a_point_chooses_the_nearest() -> None:
    done = work_out(
        "O = datum\nc = circle, centre O, radius 10\nA = point, 30 left of O\nP = crossing, of c O.level, near A\n"
    )
    assert done.solution.figure.items["P"].shape == Point(-10, 0)


def test_references_say_what_is_wanted_and_what_was_found() -> None:
    figure = Figure(
        {"c": Item("c", Circle(Point(0, 0), 1), 1, {"centre": Point(0, 0)})}, frozenset({"bad"})
    )
    for text, wanted, says in (
        ("c", "point", "c is a circle; a point is wanted here"),
        ("c.center", "point", "no part center"),
        ("d", "circle", "did you mean c|a circle or arc is wanted"),
        ("bad", "circle", "mistake of its own"),
        ("c", "line", "a line is wanted here"),
    ):
        with pytest.raises(ClauseError, match=says):
            figure.refer(text, wanted)
    assert figure.refer("c.centre", "point").shape == Point(0, 0)


def test_a_number_to_a_length_is_a_pitch() -> None:
    """24 teeth on 3 in are 8 to the inch, in a plan of either unit."""
    gears = [
        solved(
            "given N = 24\ngiven D = 3 in\nw = gear, about O, N teeth, diametral pitch "
            + pitch
            + "\n",
            head,
        )
        for pitch in ("N/D", "8")
        for head in (HEAD, HEAD.replace("units mm", "units in"))
    ]
    assert thing(gears[0], "w.pitch").radius == pytest.approx(38.1)
    assert thing(gears[1], "w.pitch").radius == pytest.approx(1.5)
    assert thing(gears[0], "w") == thing(gears[2], "w")
    assert "wants a radius" in refused(
        "given N = 24\ngiven D = 3 in\nc = circle, centre O, radius N/D\n"
    )


def test_a_given_may_stand_where_an_angle_or_a_point_may() -> None:
    row = "way = slot, about O, radii 40 and 50, from a1 to a2\n"
    assert thing(solved("given a1 = 30\ngiven a2 = 80\n" + row), "way") == thing(
        solved(row.replace("a1", "30°").replace("a2", "80°")), "way"
    )
    assert "a point is wanted" in refused("given a1 = 30\nc = circle, centre a1, radius 3\n")


@pytest.mark.parametrize("centre", ["centre O", "centred on O", "about O"])
@pytest.mark.parametrize(
    "kind", ["circle, {}, radius 30", "box, 20 by 30, {}", "polygon, 6 sides, {}, radius 30"]
)
def test_one_idea_may_be_worded_in_each_of_its_ways(centre: str, kind: str) -> None:
    assert thing(solved(f"x = {kind.format(centre)}\n"), "x")


def test_how_often_may_be_worded_in_each_of_its_ways() -> None:
    rows = "given n = 6\nc = circle, centre O, radius 30\n"
    places = [
        thing(solved(f"{rows}x = spaced, {times}\n"), "x")
        for times in ("6 on c", "n times on c", "6 about c", "n on c")
    ]
    assert all(place == places[0] for place in places)
