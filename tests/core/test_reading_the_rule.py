"""The rule read by its picture, and a pointer set on it: what is right can be seen in the picture."""

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from entrick.core.board.kit import default_kit
from entrick.core.board.kits import STARTERS
from entrick.core.desk import work_out
from entrick.core.display.picture import EDGE, LEFT, rule_picture
from entrick.core.drawing.marks import DrawnLine, Lettering
from entrick.core.measure import RulePiece, Unit, piece_about, read_on_rule
from entrick.core.practice.ask import questions
from entrick.core.practice.drill import drill_question
from entrick.core.practice.mark import marked
from entrick.core.practice.question import Question
from entrick.demo import sample_plans

KITS = [*STARTERS.values(), default_kit(Unit.MM), default_kit(Unit.INCH)]

faces = st.one_of(
    st.tuples(
        st.just(Unit.MM),
        st.sampled_from([Fraction(1), Fraction(1, 2)]),
        st.sampled_from(
            [Fraction(1), Fraction(1, 2), Fraction(1, 5), Fraction(1, 10), Fraction(2)]
        ),
    ),
    st.tuples(
        st.just(Unit.INCH),
        st.sampled_from([Fraction(1, 16), Fraction(1, 32), Fraction(1, 64)]),
        st.sampled_from([Fraction(1), Fraction(1, 2), Fraction(1, 4), Fraction(2)]),
    ),
)


def seen(piece: RulePiece) -> float:
    """Read the pointer of a picture as one reads a drawing: by the figures on both sides of it."""
    marks = rule_picture(piece).marks
    figures = sorted((m.x, float(m.text)) for m in marks if isinstance(m, Lettering))
    (pointer,) = {
        m.x1 for m in marks if isinstance(m, DrawnLine) and m.x1 == m.x2 and m.y2 > EDGE + 4
    }
    (a, low), (b, high) = figures[0], figures[1]
    return low + (pointer - a) / (b - a) * (high - low)


@given(faces, st.integers(1, 600))
def test_the_pointer_stands_at_the_value(
    face: tuple[Unit, Fraction, Fraction], number: int
) -> None:
    unit, graduation, ratio = face
    piece = piece_about(number, unit, graduation / ratio, ratio)
    assert seen(piece) == pytest.approx(float(number * piece.step), abs=1e-6)
    assert piece.first <= number < piece.first + piece.count
    marks = [m for m in rule_picture(piece).marks if isinstance(m, DrawnLine) and m.y1 == EDGE]
    ends = [m.x1 for m in marks if m.x1 == m.x2]
    # Life-size: graduations stand apart on the paper as on the rule.
    assert ends[1] - ends[0] == pytest.approx(float(graduation * unit.mm))
    assert ends[0] == LEFT
    assert len(ends) == piece.count


@given(st.integers(0, 10**6), st.sampled_from(KITS))
def test_what_the_picture_says_is_right_and_what_is_set_as_well(seed: int, kit: object) -> None:
    question = drill_question(kit, seed)  # type: ignore[arg-type]
    piece = question.rule_shown
    assert piece is not None
    right = Fraction(question.right).limit_denominator(1000)  # type: ignore[arg-type]
    told = piece.told(round(right / piece.step))
    if piece.pointer is None:
        at = round(right / piece.step) - piece.first
        assert 0 <= at < piece.count
        assert told in question.asks
        assert marked(question, f"#{at}").share == 1
        assert marked(question, f"#{at + 1}").share < 1
    else:
        assert seen(piece) == pytest.approx(float(right))
        assert told not in question.asks
        assert marked(question, told).share == 1
        beside = marked(question, f"{float(right + piece.step):.6f}")
        assert beside.slips[0].key == "a mark out"
    for hint in question.hints:
        assert told not in hint.split(), hint
    for slip in question.slips:
        mark = marked(question, f"{slip.answer:.9f}")
        assert slip.key in [each.key for each in mark.slips]


@pytest.mark.parametrize("number", ["OY-014", "OY-055"])
def test_a_plan_asks_for_the_sizes_that_are_set(number: str) -> None:
    work = work_out(next(text for name, text in sample_plans().items() if number in name))
    asked: list[Question] = [each for each in questions(work) if each.rule == "reading"]
    assert asked
    kit = work.kit
    settings = [step.setting for step in work.steps if step.setting]
    known = {float(read_on_rule(own.drawn, kit.graduation, kit.unit).value) for own in settings} | {
        round(own.actual, 6) for own in settings
    }
    for question in asked:
        assert any(abs(float(question.right) - each) <= question.near for each in known)  # type: ignore[arg-type]
