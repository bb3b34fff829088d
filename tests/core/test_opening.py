"""Steps opened up: the same by compass, straight edge and dividers, and it comes out where the step does."""

import pytest

from desk import HEAD, solved
from entrick.core.board.opening import opened, opens
from entrick.core.board.order import acts_of
from entrick.core.board.steps import opened_steps
from entrick.core.desk import work_out
from entrick.core.geometry import Line, Point
from entrick.core.rehearsal.carry_out import carry_out
from entrick.core.rehearsal.hand import NONE
from entrick.core.rehearsal.many import Hands
from entrick.demo import sample_plans
from examples import some

TOOLS = (
    "compass",
    "beam compass",
    "circle template",
    "dividers",
    "straightedge",
    "pencil",
    "rule",
    "T-square",
)


@pytest.mark.parametrize(
    "text", some(sorted(sample_plans().values()), 8), ids=lambda text: text.splitlines()[1]
)
def test_every_step_that_opens_up_is_carried_out_to_what_the_step_leaves(text: str) -> None:
    done = work_out(text)
    things, acts, count = {}, [], 0
    for own in acts_of(done.solution, done.sheet):
        things |= {thing.key: thing for thing in own.left}
        for act in own.acts:
            more = opened(act, things, done.sheet)
            count += bool(more)
            acts += more or (act,)
    assert count >= 1
    board = carry_out(acts, Hands(NONE, 1, 0, 1.0))
    size = max(done.sheet.width, done.sheet.height) / done.sheet.factor
    for thing in things.values():
        if isinstance(getattr(thing, "line", None), Line):
            drawn = board.line(thing.key)
            through, ahead = complex(drawn.at[0]), complex(drawn.ahead[0])
            spot = Point(through.real, through.imag)
            assert abs(thing.line.offset_of(spot)) < 1e-8 * size, thing.called
            assert abs(thing.line.direction.cross(Point(ahead.real, ahead.imag))) < 1e-7


@pytest.mark.parametrize("degrees", range(0, 180, 5))
def test_any_direction_is_constructed_without_set_squares_or_protractor(degrees: int) -> None:
    done = solved(f"l = line, through O, at {degrees}°\n")
    own = [step for step in done.steps if step.name == "l"]
    found = [
        each for step in own for each in opened_steps(step, done.solution, done.kit, done.sheet)
    ]
    assert bool(found) == (degrees % 90 != 0), "along the datum's own lines nothing is drawn anew"
    assert all(each.tool in TOOLS for each in found)
    assert any("chord" in each.text for each in found) == (degrees % 15 != 0)
    assert not any("as it was worked out" in each.text for each in found)


@pytest.mark.parametrize(
    ("rows", "words"),
    [
        (
            "l = line, through O, at 20°\nP = point, 5 right of O, 40 above\nf = foot, of P on l\n",
            "past the line, swing",
        ),
        (
            "l = line, through O, at 20°\nm = parallel, to l, at 12, above\n",
            "the corner of the rhombus",
        ),
        (
            "l = line, through O, at 20°\nP = point, 40 above O\nm = line, through P, square to l\n",
            "past the line",
        ),
        ("l = line, through O, at 20°\nm = line, through O, square to l\n", "about twice that"),
        ("m = line, through O, at 75°\n", "the crossing between the arms"),
        ("m = line, through O, at 37°\n", "the chord of the angle"),
        ("l = line, through O, at 20°\nm = parallel, to l, at 12, above\n", "Step off from O"),
    ],
)
def test_steps_open_into_the_construction_that_stands_behind_them(rows: str, words: str) -> None:
    done = solved(rows)
    texts = [
        f"{each.text} {each.check}"
        for step in done.steps
        if step.source is not None and step.source.act is not None and opens(step.source.act)
        for each in opened_steps(step, done.solution, done.kit, done.sheet)
    ]
    assert any(words in text for text in texts), texts


def test_settings_of_an_opened_step_are_at_the_scale_of_the_sheet() -> None:
    done = solved("l = line, through O, at 40°\n", HEAD.replace("1:1", "1:2"))
    found = opened_steps(done.steps[-1], done.solution, done.kit, done.sheet)
    settings = [each.setting for each in found if each.setting and not each.setting.is_angle]
    assert settings[0].reading == "about 40 mm", (
        "a handy opening on paper, said roundly: it is free"
    )
    assert settings[1].reading == "just under 27.5 mm", "2 × 40 × sin 20° = 27.36"


def test_which_of_two_crossings_is_meant_is_said_where_both_are_drawn() -> None:
    rows = "A = point, 40 right of O\na = circle, centre O, radius 30\nb = circle, centre A, radius 25\n"
    texts = [
        solved(f"{rows}P = crossing, of a and b, {side}\n").steps[-1].text
        for side in ("upper", "lower")
    ]
    assert [text.rpartition(", ")[2] for text in texts] == ["the upper one", "the lower one"]
    only = (
        solved(
            "A = point, 40 right of O\na = swing, from O, radius 30, towards A\nl = line, from O to A\n"
            "P = crossing, of a and l, right\n"
        )
        .steps[-1]
        .text
    )
    assert "one" not in only.rpartition("cross")[2]
