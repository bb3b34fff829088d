"""Names beside their points: what is placed again after an edit stands as if all had been placed anew."""

from hypothesis import given
from hypothesis import strategies as st

from entrick.core.display.letters import Lettered, lettered, sides, sides_again
from entrick.core.finish.occupied import Occupied, box_of, meets
from entrick.core.geometry import Loop, Point
from entrick.core.geometry.loop import polyline

PLACES = st.builds(Point, st.integers(0, 60).map(float), st.integers(0, 40).map(float))
STATEMENT = st.lists(st.tuples(st.sampled_from(["A", "eye", "c.centre"]), PLACES), max_size=3)
OUTLINE = st.lists(PLACES, min_size=3, max_size=5, unique=True)


def statement(points: list[tuple[str, Point]]) -> Lettered:
    return Lettered([(text, at, 1, 1) for text, at in points], [at for _, at in points])


def standing(corners: list[Point]) -> list[Occupied]:
    loop: Loop = polyline(corners, [str(i) for i in range(len(corners))], closed=True)
    return [Occupied([loop], 1.0)]


@given(
    st.lists(STATEMENT, min_size=1, max_size=6),
    st.lists(
        st.tuples(st.integers(0, 6), STATEMENT, st.sampled_from(["put in", "take out", "change"])),
        max_size=8,
    ),
    st.lists(OUTLINE, min_size=1, max_size=3),
)
def test_after_any_edits_names_stand_as_if_placed_anew(
    first: list[list[tuple[str, Point]]],
    edits: list[tuple[int, list[tuple[str, Point]], str]],
    outlines: list[list[Point]],
) -> None:
    now = [statement(points) for points in first]
    for number, (at, points, how) in enumerate([(0, first[0], "change"), *edits]):
        at = min(at, len(now) - (how != "put in"))
        kept = [] if how == "take out" and len(now) > 1 else [statement(points)]
        now = [*now[:at], *kept, *now[at + (how != "put in") :]]
        # The outline is another every third edit, and the very same in between.
        around = standing(outlines[number // 3 % len(outlines)])
        assert sides_again(now, around) == sides(now, around)


@given(PLACES, st.integers(1, 6))
def test_a_name_goes_where_nothing_stands(at: Point, long: int) -> None:
    """Against the box the letter takes: with only its own dot there, and a wall on one side, it keeps off the wall."""
    wall = Occupied([], 1.0)
    wall.cross(Point(at.x + 2, at.y - 20), Point(at.x + 2, at.y + 20))
    letter = ("M" * long, at, 1, 1)
    ((side,),) = sides([Lettered([letter], [at])], [wall])
    box = box_of(lettered(letter, side))
    assert not meets(box, (at.x + 2, at.y - 20, at.x + 2, at.y + 20))
