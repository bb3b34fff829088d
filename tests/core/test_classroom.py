"""For a class: lists, answer sheets, grades, new parts, papers and keys as pages, weeks."""

import csv
import io
import json
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pypdf import PdfReader
from pypdfium2 import PdfDocument

from entrick.core.classroom.answers import answer_sheet, mark_answers, read_answers, read_names
from entrick.core.classroom.grades import APART, FULL_SIZE, TO_SCALE, TWO_TRAPS, are_apart, suits
from entrick.core.classroom.record import Answer, class_record, record_csv
from entrick.core.classroom.set_file import read_set, write_set
from entrick.core.classroom.sets import Asked, Set, make
from entrick.core.classroom.topics import is_sound, new_part, topics
from entrick.core.desk import work_out
from entrick.core.formats.faces import runs, split_rows, wide
from entrick.core.formats.practice_key import write_key
from entrick.core.formats.practice_paper import page_size, write_papers
from entrick.core.geometry import Circle
from entrick.core.look.played import played
from entrick.core.plan.errors import ClauseError
from entrick.core.plan.reader import read_plan
from entrick.core.plan.writer import write_plan
from entrick.core.practice.ask import questions
from entrick.core.practice.keys import answer_of
from entrick.core.practice.mark import marked
from entrick.core.practice.other_hand import hand_of, hands
from entrick.core.practice.question import RULES
from entrick.core.practice.slips import rounded
from entrick.core.practice.vary import variant
from entrick.core.solve import solve
from entrick.demo import sample_plans
from examples import IS_DEEP, examples, some

LINK = next(text for name, text in sample_plans().items() if "OY-014" in name)
CLASS = ("Ada Wren", "Ben Łąkowski", "Cy Öst")


@pytest.fixture(scope="module")
def made() -> Set:
    return make("Łódź, week 3", [LINK], CLASS, 6, 5)


def answered(made: Set, first: str, order: list[int]) -> str:
    rows = [[first, *range(1, 7)]]
    for n in order:
        paper = made.papers[n]
        who = paper.name.upper() if first == "name" else f"{int(paper.student):02}"
        rows.append([who, *(answer_of(q).removesuffix("°") for q in paper.questions)])
    rows.append(["Total", *["" for _ in range(6)]])
    stream = io.StringIO()
    csv.writer(stream).writerows(rows)
    return stream.getvalue()


@given(st.permutations(range(3)), st.sampled_from(["name", "student", "Nr."]))
def test_a_class_is_marked_by_number_or_name_in_any_order(order: list[int], first: str) -> None:
    made = make("Week", [LINK], CLASS, 6, 5)
    said = answered(made, first, order)
    marks = mark_answers(made, said)
    assert [each.student for each in marks] == [str(n + 1) for n in order]
    assert all(each.total == 6 for each in marks)
    assert read_answers(said).left_out == ("row 5, Total, is no student's and was left out",)


def test_a_blank_answer_sheet_is_filled_in_and_marked(made: Set) -> None:
    rows = list(csv.reader(io.StringIO(answer_sheet(made))))
    assert [row[:2] for row in rows[1:]] == [[str(n), name] for n, name in enumerate(CLASS, 1)]
    stream = io.StringIO()
    csv.writer(stream).writerows(rows)
    assert [each.total for each in mark_answers(made, stream.getvalue())] == [0, 0, 0]


@pytest.mark.parametrize(
    ("text", "names"),
    [
        ("Ada Wren\nBen Ash\n", ("Ada Wren", "Ben Ash")),
        ("1. Ada Wren\r\n2. Ben Ash\r\n\r\n", ("Ada Wren", "Ben Ash")),
        ("no;name\n1;Ada Wren\n2;Ben Ash\n;Total\n", ("Ada Wren", "Ben Ash")),
        ("name,class\nAda Wren,2b\n", ("Ada Wren",)),
        ("Surname;First name;class\nWren;Ada;2b\n", ("Ada Wren",)),
        ("Surname\tName\nWren\tAda\n", ("Ada Wren",)),
    ],
)
def test_a_class_list_is_read_as_it_comes(text: str, names: tuple[str, ...]) -> None:
    assert read_names(text) == names


@pytest.mark.parametrize("text", ["", "1\n2\n", "Ada\nAda\n", "student\n1\n"])
def test_a_class_list_that_names_nobody_or_somebody_twice_is_told(text: str) -> None:
    with pytest.raises(ClauseError):
        read_names(text)


def test_a_set_that_was_changed_is_told_and_one_that_was_only_rewritten_is_not(made: Set) -> None:
    said = json.loads(write_set(made))
    # As a script of a page writes it: whole numbers without a point, fields in another order.
    again = json.loads(
        json.dumps(said, sort_keys=True),
        parse_float=lambda n: int(float(n)) if float(n).is_integer() else float(n),
    )
    assert read_set(json.dumps(again)) == made
    said["papers"][1]["questions"][0]["right"] = "something else"
    with pytest.raises(ClauseError, match="student 2 was changed"):
        read_set(json.dumps(said))


@pytest.mark.parametrize("count", [1, 24, 60] if IS_DEEP else [1, 24])
@pytest.mark.parametrize("paper", ["A4", "letter"])
def test_the_key_is_one_page_and_papers_say_which_page_of_how_many(
    made: Set, count: int, paper: str
) -> None:
    whole = Set(made.title, 1, made.briefs, made.papers[:1] * count, made.plans)
    key = PdfDocument(write_key(whole, paper, workings=False))  # type: ignore[arg-type]
    assert len(key) == 1
    # Nothing runs over the edge: the outermost millimetres of the page are white.
    picture = key[0].render(scale=0.7).to_pil().convert("L")
    edge = 6
    for box in (
        (0, 0, picture.width, edge),
        (0, picture.height - edge, picture.width, picture.height),
        (picture.width - edge, 0, picture.width, picture.height),
    ):
        assert min(picture.crop(box).tobytes()) > 200
    reader = PdfReader(io.BytesIO(write_papers(whole, paper)))  # type: ignore[arg-type]
    texts = [page.extract_text() for page in reader.pages]
    each = len(texts) // count
    assert len(texts) == each * count
    for number, text in enumerate(texts[:each], 1):
        assert f"page {number} of {each}" in text
    assert "name Ada Wren" in texts[0]
    assert "Draw the part here, at 1:2." in texts[each - 1]
    wide_, high = page_size(paper)  # type: ignore[arg-type]
    assert [float(side) for side in reader.pages[0].mediabox[2:]] == pytest.approx(
        [wide_, high], abs=0.01
    )


@given(st.text(st.characters(min_codepoint=32, max_codepoint=0x17F), max_size=60))
def test_every_letter_is_set_in_a_face_that_has_it(text: str) -> None:
    assert "".join(run for _, run in runs(text)) == text
    assert {face for face, _ in runs("Łódź √ φ")} == {"RoutedGothic", "DejaVuSansCondensed"}
    rows = split_rows(text, 9, 120)
    assert "".join(rows).replace(" ", "") == text.replace(" ", "")
    assert all(wide(row, 9) <= 120 or " " not in row for row in rows)


@pytest.mark.parametrize("topic", topics())
def test_new_parts_are_sound_and_no_two_neighbours_alike(topic: str) -> None:
    parts = [new_part(topic, seed) for seed in range(200 if IS_DEEP else 3)]
    for part in parts:
        assert is_sound(part)
        assert len(questions(part)) >= 5
        assert all(finding.weight not in ("wrong", "look") for finding in part.findings)
    assert all(a.plan != b.plan for a, b in pairwise(parts))
    assert write_plan(new_part(topic, 1).plan) == write_plan(parts[1].plan)


@pytest.mark.parametrize("topic", some(sorted(topics()), 4))
def test_a_grade_gives_full_size_a_scale_or_slips_kept_apart(topic: str) -> None:
    assert new_part(topic, 2, FULL_SIZE).sheet.scale.ratio == 1
    graded = new_part(topic, 2, TO_SCALE)
    for question in questions(graded):
        if suits(question, APART) and any(isinstance(s.answer, float) for s in question.slips):
            assert are_apart(question)
        if suits(question, TWO_TRAPS):
            keys = {slip.key for slip in question.slips}
            assert keys & {"scale forgotten", "scale twice"}
            assert len(keys) >= 3


def test_a_set_asks_the_rules_it_is_told_to() -> None:
    asked = make("x", [LINK], 2, 4, 1, Asked(frozenset({"locus"}), TO_SCALE))
    assert {question.rule for paper in asked.papers for question in paper.questions} == {"locus"}


def test_there_is_no_such_topic() -> None:
    with pytest.raises(ClauseError, match="there is no topic spoon"):
        new_part("spoon", 1)


@examples(6)
@given(st.integers(0, 10**6))
def test_the_other_hand_is_the_same_part_mirrored(seed: int) -> None:
    for text in hands(LINK):
        radii = sorted(
            s.radius for _, s in solve(read_plan(text)).figure.things() if isinstance(s, Circle)
        )
        own = sorted(
            s.radius for _, s in solve(read_plan(LINK)).figure.things() if isinstance(s, Circle)
        )
        assert radii == own
    done = variant(LINK, seed)
    assert done is not None
    assert 0 <= hand_of(LINK, done.plan) < len(hands(LINK))


def test_a_wrong_answer_is_played_where_it_ends() -> None:
    work = work_out(LINK)
    radius = next(
        q for q in questions(work) if q.rule == "radius" and "eyeA" in q.asks.split(" = ")[0]
    )
    shown = played(work, radius, 2 * float(radius.right))  # type: ignore[arg-type]
    # The swung circle is as large as was answered, on the paper.
    swing = shown.runs[0]
    middle = (sum(x for x, _ in swing[:-1]) / 89, sum(y for _, y in swing[:-1]) / 89)
    for x, y in swing:
        assert abs(complex(x - middle[0], y - middle[1])) == pytest.approx(
            2 * float(radius.right), rel=0.02
        )  # type: ignore[arg-type]
    assert played(work, radius, float(radius.right)).runs[1:] == ()  # type: ignore[arg-type]
    crossing = next(q for q in questions(work) if q.rule == "crossing")
    assert played(work, crossing, crossing.slips[0].answer).runs


rows_ = st.lists(
    st.builds(
        Answer,
        st.sampled_from(["1", "2", "10", "Ada"]),
        st.sampled_from(["2026-W47", "2026-W48", "2026-W49"]),
        st.sampled_from(sorted(RULES)),
        st.sampled_from([0.0, 0.5, 1.0]),
        st.sampled_from(["", "scale forgotten", "not halved"]),
    ),
    min_size=1,
    max_size=40,
)


@given(rows_)
def test_weeks_tell_every_student_and_whose_slips_are_commonest(answers: list[Answer]) -> None:
    record = class_record(answers)
    assert list(record.weeks) == sorted({each.week for each in answers})
    assert {each.who for each in record.students} == {each.who for each in answers}
    last = [each for each in answers if each.week == record.weeks[-1] and each.slip]
    for common in record.commonest:
        own = [each for each in last if each.slip == common.slip]
        assert common.times == len(own)
        assert set(common.whose) == {each.who for each in own}
    for student in record.students:
        own = [each for each in answers if each.who == student.who]
        for week, share in zip(record.weeks, student.shares, strict=True):
            marks = [each.share for each in own if each.week == week]
            assert share == (sum(marks) / len(marks) if marks else None)
    table = list(csv.DictReader(io.StringIO(record_csv(record))))
    assert {row["student"] for row in table} == {"class", *(each.who for each in answers)}


def test_the_true_slip_is_named_first_in_nine_of_ten_and_another_never_alone() -> None:
    """Weighted as slips are made; over every part by topic, and what is asked of a picture of the rule apart."""
    made = first = alone = 0
    for topic in topics():
        for question in questions(new_part(topic, 5)):
            for slip in question.slips if question.rule_shown is None else ():
                if isinstance(slip.answer, str):
                    mark = marked(question, slip.answer)
                else:
                    grid = question.near if question.sort == "length" else 0.0
                    mark = marked(question, f"{rounded(slip.answer, grid):.9f}")
                named = [each.key for each in mark.slips]
                made += slip.weight
                first += slip.weight * (named[:1] == [slip.key])
                alone += slip.weight * (slip.key not in named)
    assert made > 1000
    assert first / made >= 0.9
    assert alone / made <= 0.005


def test_a_column_of_totals_and_a_comma_in_a_name_are_no_trouble() -> None:
    made = make("Week", [LINK], ("O'Brien Pat", "Zoë Ç"), 3, 3)
    right = [answer_of(q).removesuffix("°") for q in made.papers[0].questions]
    stream = io.StringIO()
    csv.writer(stream).writerows([["Name", "Q1", "2.", "3)", "Total"], ["O'BRIEN, PAT", *right, 9]])
    (marks,) = mark_answers(made, stream.getvalue())
    assert (marks.student, marks.total, marks.waits) == ("1", 3, ())
