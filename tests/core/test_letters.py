"""Names beside their points: what is placed again after an edit stands as if all had been placed anew."""

import shapely
from hypothesis import given
from hypothesis import strategies as st

from entrick.core.display.letters import Lettered, lettered, sides, sides_again
from entrick.core.finish.occupied import Occupied, box_of, cuts, meets
from entrick.core.geometry import Loop, Point
from entrick.core.geometry.box import Box
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


WHOLE = st.integers(-6, 6).map(float)
STROKES = st.lists(st.tuples(WHOLE, WHOLE, WHOLE, WHOLE), min_size=1, max_size=6)
BOXES = st.lists(
    st.tuples(WHOLE, WHOLE, st.integers(1, 5), st.integers(1, 5)).map(
        lambda b: Box(b[0], b[1], b[0] + b[2], b[1] + b[3])
    ),
    min_size=1,
    max_size=6,
)


@given(STROKES, BOXES, BOXES)
def test_what_strokes_and_boxes_cover_is_what_shapely_finds(
    strokes: list[tuple[float, float, float, float]], boxes: list[Box], others: list[Box]
) -> None:
    """In whole millimetres, where touching is exact."""
    lines = [shapely.LineString([each[:2], each[2:]]) for each in strokes]
    areas = [shapely.box(*each) for each in boxes]
    expected = [[bool(shapely.intersects(line, area)) for line in lines] for area in areas]
    assert [[cuts(stroke, box) for stroke in strokes] for box in boxes] == expected
    shared = [
        [area.intersection(shapely.box(*other)).area > 0 for other in others] for area in areas
    ]
    assert [[meets(box, other) for other in others] for box in boxes] == shared
