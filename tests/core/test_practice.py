"""Practice: questions whose slips are diagnosed, variants that are sound, marks and the schedule of what comes next."""

import csv
import io
import json
import re
import time
from dataclasses import replace
from functools import lru_cache
from pathlib import Path
from random import Random

import pytest
from click.testing import CliRunner
from hypothesis import given
from hypothesis import strategies as st
from pypdf import PdfReader

from desk import HEAD, refused, solved
from entrick.cli import main
from entrick.core.classroom.answers import mark_answers, marks_csv, slips_of
from entrick.core.classroom.set_file import read_set, write_set
from entrick.core.classroom.sets import ON_PAPER, Paper, Set, make, own_variant, plan_paper
from entrick.core.desk import Work, work_out
from entrick.core.formats.practice_key import write_key
from entrick.core.formats.practice_paper import write_papers
from entrick.core.measure import Dimension
from entrick.core.moves import kinds
from entrick.core.plan.errors import ClauseError
from entrick.core.practice.as_given import givens_of, rows_drawn
from entrick.core.practice.ask import questions
from entrick.core.practice.ask.hints import says
from entrick.core.practice.keys import answer_of, key_of
from entrick.core.practice.mark import marked
from entrick.core.practice.question import RULES, Question
from entrick.core.practice.record import Learner, called_in_practice
from entrick.core.practice.slips import rounded
from entrick.core.practice.vary import variant
from entrick.core.rules.gear import PREFERRED
from entrick.demo import sample_plans
from examples import IS_DEEP, some

SAMPLES = sorted(sample_plans().items())
LINK = next(text for name, text in SAMPLES if "OY-014" in name)
VARIANTS = 25 if IS_DEEP else 5
"""Variants of every sample; 1,000 of each take some minutes."""


@lru_cache(maxsize=32)
def asked(text: str) -> tuple[Question, ...]:
    return questions(work_out(text))


def said(question: Question, answer: float) -> str:
    """Write a number as it would be read off: to the nearest graduation."""
    return f"{rounded(answer, question.near if question.sort == 'length' else 0.0):.9f}"


@pytest.mark.parametrize(
    ("name", "text"), some(SAMPLES, 9), ids=[name for name, _ in some(SAMPLES, 9)]
)
def test_each_slip_is_diagnosed_and_the_right_answer_is_none(name: str, text: str) -> None:
    found = asked(text)
    assert len(found) >= 6
    for question in found:
        right = marked(question, answer_of(question).removesuffix("°"))
        assert (right.share, right.slips) == (1.0, ()), question
        for slip in question.slips:
            wrong = (
                said(question, slip.answer) if isinstance(slip.answer, float | int) else slip.answer
            )
            mark = marked(question, wrong)
            assert mark.share < 1, (question, slip)
            assert slip.key in [each.key for each in mark.slips], (question, slip)
            assert slip.said in mark.told
        for choice in question.choices if question.sort == "choice" else ():
            assert (marked(question, choice).share == 1.0) == (choice == question.right)


def test_a_blind_guess_is_seldom_named() -> None:
    """No more than about 7 in 100, over everything asked of the samples; a guess is 0.3 to 2.2 of right."""
    random, named, tried = Random(3), 0, 0
    for _, text in SAMPLES:
        for question in asked(text):
            # On a rule a guess that is a figure out is that slip.
            on_rule = question.rule_shown is not None
            if (
                question.sort == "length"
                and not on_rule
                and isinstance(question.right, float | int)
            ):
                for _ in range(60):
                    guess = rounded(random.uniform(0.3, 2.2) * question.right, question.near)
                    if guess > 0 and abs(guess - question.right) > question.near:
                        tried += 1
                        named += bool(marked(question, f"{guess:.6f}").slips)
    assert tried > 4500
    assert named / tried <= 0.075


def test_every_rule_is_asked_about_somewhere() -> None:
    assert {question.rule for _, text in SAMPLES for question in asked(text)} >= set(RULES) - {
        "scale"
    }


def test_around_takes_the_difference_and_the_slip_is_named_with_the_numbers_at_hand() -> None:
    """220 − 66 = 154 at 1:2 is 77; added it would be 143."""
    question = next(
        q
        for q in asked(LINK)
        if q.rule == "locus" and q.sort == "length" and q.right == pytest.approx(77)
    )
    mark = marked(question, "143 mm")
    assert mark.slips[0].key == "sum for difference"
    assert mark.slips[0].said == "You added: an arc that goes around has its centre at R − r = 77"
    assert [slip.key for slip in marked(question, "154").slips] == ["scale forgotten"]
    assert marked(question, "286").slips[0].key == "sum for difference, scale forgotten"
    assert marked(question, "67").share == 0.5, "read from the wrong mark: the method was right"
    assert marked(question, "77.5").share == 0.5
    assert marked(question, "99.5").working == question.working
    for text in ("77", "77 mm", "R77", "3 1/32 in"):
        assert marked(question, text).share == 1, text
    with pytest.raises(ClauseError, match="is no value"):
        marked(question, "a lot")


def test_two_slips_that_give_one_number_are_both_named_one_s_own_first() -> None:
    """At 1:2 a diameter set for the radius is the same number as the scale forgotten."""
    question = next(q for q in asked(LINK) if q.rule == "radius" and q.right == pytest.approx(33))
    both = [slip.key for slip in marked(question, "66").slips]
    assert set(both) == {"diameter for radius", "scale forgotten"}
    often = Learner({"scale forgotten": 9}, {"scale forgotten": 10, "diameter for radius": 10})
    assert marked(question, "66", often).slips[0].key == "scale forgotten"


@given(st.permutations(range(1, 6)))
def test_any_order_that_keeps_what_must_come_first_is_right(order: list[int]) -> None:
    question = next(q for q in asked(LINK) if q.sort == "order")
    done: set[int] = set()
    sound = True
    for number in order:
        sound &= set(question.waits[number - 1]) <= done
        done.add(number - 1)
    assert (marked(question, " ".join(map(str, order))).share == 1) == sound


@pytest.mark.parametrize("answer", ["", "1 2 3", "1 1 2 3 4", "one"])
def test_an_order_that_cannot_be_read_is_told(answer: str) -> None:
    question = next(q for q in asked(LINK) if q.sort == "order")
    with pytest.raises(ClauseError, match="each number"):
        marked(question, answer)


def test_a_planted_slip_shows_and_the_plan_of_it_solves() -> None:
    planted = [q for _, text in SAMPLES for q in asked(text) if q.rule == "planted"]
    assert len(planted) >= 8
    for question in planted:
        shown = work_out(question.shows)
        assert shown.solution.errors == ()
        assert question.right in question.choices


def test_where_all_solutions_are_lettered_none_is_chosen() -> None:
    for question in (q for _, text in SAMPLES for q in asked(text) if q.rule == "candidate"):
        entry = work_out(question.shows).solution.entry(question.line)
        assert entry is not None
        assert [c.letter for c in entry.candidates] == list(question.choices)
        assert not any(c.chosen for c in entry.candidates) or entry.made is not None


def test_a_question_whose_slip_gives_the_right_number_is_not_asked() -> None:
    """Equal eyes: the other eye's radius is the right one; a radius at 1:1 says its own setting."""
    rows = (
        "A = point, 60 right of O\na = circle, centre O, radius 20\nb = circle, centre A, radius 20\n"
        "t = arc, radius 90, around a, around b, above\n"
    )
    for question in questions(solved(rows)):
        assert all(slip.key != "the other eye" for slip in question.slips)
        assert all(
            abs(float(s.answer) - float(question.right)) > question.near
            for s in question.slips
            if isinstance(s.answer, float | int) and isinstance(question.right, float | int)
        )


def choices(work: Work) -> list[tuple[int, int]]:
    """Return how many solutions every statement has, and how many of them are chosen."""
    made = [entry.made.candidates for entry in work.solution.entries if entry.made]
    return [(len(each), sum(candidate.chosen for candidate in each)) for each in made]


@pytest.mark.parametrize(
    ("name", "text"), some(SAMPLES, 8), ids=[name for name, _ in some(SAMPLES, 8)]
)
def test_variants_solve_with_the_same_choices_and_fit_the_sheet(name: str, text: str) -> None:
    own = work_out(text)
    few = VARIANTS if "OY-066" not in name else 3
    made = [done for seed in range(few) if (done := variant(text, seed)) is not None]
    assert len(made) >= few // 2
    # A part with few and small givens has no more than so many variants.
    assert len({done.plan for done in made}) >= min(5, len(made) // 3)
    for done in made:
        assert done.solution.errors == ()
        assert done.sheet.errors == ()
        assert [e.statement.kind for e in done.solution.entries] == [
            e.statement.kind for e in own.solution.entries
        ]
        (low, high), (a, b) = done.sheet.space, done.sheet.room
        assert low.x <= a.x
        assert low.y <= a.y
        assert b.x <= high.x
        assert b.y <= high.y
        # As many solutions of every statement, as many of them chosen: of the other hand others.
        assert choices(done) == choices(own)
    first, again = variant(text, 1), variant(text, 1)
    assert (first.plan if first else None) == (again.plan if again else None)


def test_a_plan_with_a_mistake_has_no_variant() -> None:
    assert refused("c = circle, centre Q, radius 4\n")
    assert variant(HEAD + "c = circle, centre Q, radius 4\n", 1) is None


def test_slips_at_the_board_are_called_as_in_practice() -> None:
    told = "the scale was forgotten: 44 full size is 22 at 1:2"
    assert called_in_practice(told) == "scale forgotten"
    assert called_in_practice("lead was blunt") == ""


@pytest.fixture(scope="module")
def made() -> Set:
    return make("Setting out", [LINK], 4, 8, 5)


def answers_of(made: Set, wrong: bool = False) -> str:
    stream = io.StringIO()
    table = csv.writer(stream)
    table.writerow(["student", *range(1, 9)])
    for paper in made.papers:
        row = []
        for question in paper.questions:
            slip = next((s for s in question.slips if s.answer not in ("", 0)), None)
            if wrong and slip:
                row.append(
                    said(question, slip.answer)
                    if isinstance(slip.answer, float | int)
                    else slip.answer
                )
            else:
                row.append(answer_of(question).removesuffix("°"))
        table.writerow([paper.student, *row])
    return stream.getvalue()


def test_a_set_goes_to_a_file_and_comes_back_and_every_student_has_other_givens(made: Set) -> None:
    assert read_set(write_set(made)) == made
    assert len({paper.givens for paper in made.papers}) == 4
    assert len({tuple(q.key for q in paper.questions) for paper in made.papers}) == 1
    assert {q.rule for paper in made.papers for q in paper.questions} <= ON_PAPER
    assert make("Setting out", [LINK], 4, 8, 5) == made, "the same seed gives the same set"


def test_right_answers_have_full_marks_and_wrong_ones_their_slip(made: Set) -> None:
    right = mark_answers(made, answers_of(made))
    assert [each.total for each in right] == [8.0] * 4
    assert slips_of(right) == []
    wrong = mark_answers(made, answers_of(made, wrong=True))
    table = list(csv.DictReader(io.StringIO(marks_csv(made, wrong))))
    assert [row["student"] for row in table] == ["1", "2", "3", "4"]
    assert all(float(row["total"]) < 8 for row in table)
    assert all(row["slips"] for row in table)
    assert sum(times for _, times, _ in slips_of(wrong)) == sum(
        bool(m.slips) for each in wrong for m in each.marks
    )


@pytest.mark.parametrize(
    ("answers", "words"),
    [
        ("", "first row"),
        ("who,1\n", "first row"),
        ("student,1\n1,77\n01,77\n", "row 3: student 1 stands in row 2 already"),
        ("student,one\n", "numbers of questions"),
        ("student,1\n9,77\n", "row 2: there is no paper for 9"),
    ],
)
def test_answers_that_cannot_be_marked_are_told_with_their_row(
    made: Set, answers: str, words: str
) -> None:
    with pytest.raises(ClauseError, match=words):
        mark_answers(made, answers)


def test_an_answer_that_cannot_be_read_waits_for_the_teacher(made: Set) -> None:
    found = mark_answers(made, "student,1,2\n1,a lot,\n")
    assert [mark.told for mark in found[0].marks][1] == "No answer."
    assert found[0].waits == (1,)
    (row,) = csv.DictReader(io.StringIO(marks_csv(made, found)))
    assert row["1"] == "?"
    assert "a lot" in row["to decide"]


def written(question: Question, random: Random) -> str:
    """A right answer as one of a class may write it."""
    right = answer_of(question)
    if question.sort == "order":
        numbers = right.split()
        letters = [chr(ord("a") + int(each) - 1) for each in numbers]
        ways = [
            " ".join(numbers),
            ", ".join(numbers),
            "-".join(numbers),
            " ".join(letters),
            "".join(letters),
        ]
        return random.choice([*ways, "".join(numbers)] if len(numbers) <= 9 else ways)
    if question.sort == "choice":
        letter = chr(ord("a") + question.choices.index(str(question.right)))
        ways = [
            right,
            right.upper(),
            letter,
            letter.upper(),
            f"{letter})",
            f"({letter})",
            f" {letter}. ",
        ]
        alone = [
            word for word in right.split() if sum(word in c.split() for c in question.choices) == 1
        ]
        return random.choice([*ways, *alone])
    number = f"{float(question.right):.10g}"
    unit = question.unit
    if unit == "°":
        return random.choice([number, f"{number}°", number.replace(".", ","), f"{number} deg"])
    ways = [
        number,
        f"{number} {unit}",
        f"{number}{unit}",
        f"{number} {unit.upper()}.",
        f"{number}{unit}.",
        f" {number}  ",
    ]
    return random.choice([*ways, *(way.replace(".", ",", 1) for way in ways if "." in number)])


@given(st.integers(0, 10_000), st.sampled_from([",", ";", "\t"]))
def test_no_reading_of_a_right_answer_is_nought(made: Set, seed: int, parted: str) -> None:
    random = Random(seed)
    stream = io.StringIO()
    table = csv.writer(stream, delimiter=parted)
    count = max(len(paper.questions) for paper in made.papers)
    table.writerow(["Student", *range(1, count + 1)])
    for paper in made.papers:
        table.writerow(
            [paper.student, *(written(question, random) for question in paper.questions)]
        )
    found = mark_answers(made, stream.getvalue())
    wrong = [
        (question.asks, question.right, mark.told)
        for each, paper in zip(found, made.papers, strict=True)
        for mark, question in zip(each.marks, paper.questions, strict=True)
        if mark.share < 1
    ]
    assert wrong == []


def test_a_row_that_is_shifted_waits_as_a_whole(made: Set) -> None:
    cells = ["46,25", *["1"] * (len(made.papers[0].questions) - 1)]
    head = ",".join(["student", *(str(n) for n in range(1, len(cells) + 1))])
    (found,) = mark_answers(made, f"{head}\n1,{','.join(cells)}\n")
    assert len(found.waits) == len(cells)
    assert "decimal comma" in found.marks[0].told


@pytest.mark.parametrize(
    "text",
    [
        "{",
        "[]",
        '{"entrick_set": 2}',
        '{"entrick_set": 1, "title": "x"}',
        '{"entrick_set": 1, "title": "x", "seed": 1, "briefs": [], "papers": [{}]}',
    ],
)
def test_what_is_no_set_is_told(text: str) -> None:
    with pytest.raises(ClauseError, match="set"):
        read_set(text)


def test_papers_hold_every_question_and_the_key_every_answer(made: Set) -> None:
    for key, content in ((False, write_papers(made)), (True, write_key(made))):
        text = " ".join(page.extract_text() for page in PdfReader(io.BytesIO(content)).pages)
        flat = "".join(text.split())
        for paper in made.papers:
            assert f"student{paper.student}" in flat
            for question in paper.questions:
                assert "".join(question.asks.split()) in flat
        right = "".join(f"= {key_of(made.papers[0].questions[0])}".split())
        assert (right in flat) == key


def test_a_class_of_a_thousand_is_marked_within_ten_seconds(made: Set) -> None:
    paper = made.papers[0]
    students = 1000 if IS_DEEP else 200
    many = tuple(
        replace(paper, student=str(n), questions=(paper.questions * 3)[:20])
        for n in range(1, students + 1)
    )
    whole = read_set(write_set(replace(made, papers=many)))
    row = ",".join(answer_of(q).split()[0].removesuffix("°") for q in many[0].questions)
    answers = f"student,{','.join(map(str, range(1, 21)))}\n" + "".join(
        f"{p.student},{row}\n" for p in many
    )
    start = time.process_time()
    assert len(mark_answers(whole, answers)) == students
    assert time.process_time() - start < 10 * students / 1000


def test_the_shell_makes_prints_and_marks_a_set(tmp_path: Path) -> None:
    plan, file = tmp_path / "p.entrick", tmp_path / "set.json"
    plan.write_text(LINK, "utf-8")
    run = CliRunner().invoke
    assert (
        run(
            main, ["set", "make", str(plan), "-o", str(file), "--students", "2", "--questions", "8"]
        ).exit_code
        == 0
    )
    for command in ("paper", "key"):
        assert (
            run(main, ["set", command, str(file), "-o", str(tmp_path / f"{command}.pdf")]).exit_code
            == 0
        )
    answers = tmp_path / "a.csv"
    answers.write_text(answers_of(read_set(file.read_text("utf-8")), wrong=True), "utf-8")
    done = run(main, ["mark", str(file), str(answers), "-o", str(tmp_path / "m.csv")])
    assert done.exit_code == 0, done.output
    assert "2 papers marked" in done.output
    assert (tmp_path / "m.csv").read_text("utf-8").startswith("student,name,total,of,1,")
    assert (
        run(main, ["mark", str(answers), str(answers), "-o", str(tmp_path / "m.csv")]).exit_code
        == 1
    )
    wrong = run(main, ["set", "make", str(plan), "-o", str(file), "--rule", "anvil"])
    assert wrong.exit_code == 2
    assert "no rule anvil" in wrong.output


@given(st.integers(0, 10_000))
def test_questions_of_variants_keep_their_promises(seed: int) -> None:
    done = variant(LINK, seed)
    assert isinstance(done, Work)
    for question in questions(done, seed):
        assert marked(question, answer_of(question).removesuffix("°")).share == 1
        for slip in question.slips:
            wrong = (
                said(question, slip.answer) if isinstance(slip.answer, float | int) else slip.answer
            )
            assert slip.key in [each.key for each in marked(question, wrong).slips]


def test_a_paper_without_a_question_is_refused() -> None:
    with pytest.raises(ClauseError, match="give no such question"):
        make("x", [HEAD], 1, 5, 1)
    with pytest.raises(ClauseError, match="at most"):
        make("x", [LINK], 0, 5, 1)
    assert Paper("1", ()).givens == ()


@pytest.mark.parametrize("name", some(sorted(sample_plans()), 6))
def test_head_question_and_key_speak_of_one_plan(name: str) -> None:
    """Every question of a paper is one of the student's own plan, with its own numbers; its head says those givens."""
    text = sample_plans()[name]
    for student in range(1, 5):
        try:
            paper = plan_paper([text], student, 12, 3)
        except ClauseError:
            return
        done = own_variant(text, student, 3) or work_out(text)
        own = {question.key: question for question in questions(done, 3)}
        for question in paper.questions:
            mine = own[question.key]
            # What is put in order, or chosen from, stands in another order on every paper.
            assert replace(question, choices=mine.choices, waits=mine.waits) == mine
            assert sorted(question.choices) == sorted(mine.choices)
            assert marked(question, answer_of(question).removesuffix("°")).share == 1
        for row in (*givens_of(done), *rows_drawn(done)):
            assert row in paper.givens[0]


@pytest.mark.parametrize("name", some(sorted(sample_plans()), 6))
def test_a_variant_is_as_sound_a_part_as_the_plan(name: str) -> None:
    text = sample_plans()[name]
    own = work_out(text)
    wrong = {(each.rule, each.line) for each in own.findings if each.weight == "wrong"}
    for seed in range(20 if IS_DEEP else 4):
        done = variant(text, seed)
        if done is None:
            continue
        assert {(each.rule, each.line) for each in done.findings if each.weight == "wrong"} <= wrong
        sizes = [
            (float(a.quantity.value), float(b.quantity.value))
            for a, b in zip(own.solution.givens, done.solution.givens, strict=True)
            if a.quantity
            and b.quantity
            and a.quantity.dimension is Dimension.LENGTH
            and a.quantity.value > 0
        ]
        for index, (a, c) in enumerate(sizes):
            for b, d in sizes[index + 1 :]:
                assert (a < b) == (c < d)
                assert 0.8 <= (a * d) / (b * c) <= 1.25


def test_a_module_comes_from_its_table() -> None:
    text = f"{HEAD}given m = 4\ng = gear, about O, 24 teeth, module m\n"
    for seed in range(12):
        done = variant(text, seed)
        if done is not None:
            assert float(done.solution.givens[0].quantity.value) in PREFERRED


@pytest.mark.parametrize("paper", ["A4", "letter"])
def test_papers_show_a_figure_and_room_for_a_name(made: Set, paper: str) -> None:
    reader = PdfReader(io.BytesIO(write_papers(made, paper)))  # type: ignore[arg-type]
    first = reader.pages[0].extract_text()
    assert "name ____" in first
    assert f"of {len(made.papers[0].questions)}" in first
    assert "Not to scale: the sizes stand above." in first
    assert len(reader.pages[0]["/Resources"]["/XObject"]) == 1
    key = PdfReader(io.BytesIO(write_key(made, paper)))  # type: ignore[arg-type]
    assert "Not to scale" not in key.pages[0].extract_text()


def test_a_set_made_before_figures_were_printed_opens(made: Set) -> None:
    said = json.loads(write_set(made))
    del said["plans"]
    before = read_set(json.dumps(said))
    assert before.papers == made.papers
    assert write_papers(before).startswith(b"%PDF")


def solver(question: Question, head: str) -> Question | None:
    """Answer a question from the words of its paper alone: what is given there, and drawn, is a plan."""
    unit, scale = head.partition(": ")[0].split(", ")[-2:]
    rows = head.partition(": ")[2].split("; ")
    plan = [f"units {unit}", f"sheet A2 landscape, scale {scale.removeprefix('at ')}"]
    plan += [
        row if " = " in row and row.split(" = ")[1].split(",")[0] in kinds() else f"given {row}"
        for row in rows
    ]
    done = work_out("\n".join(row.replace("given chain", "chain") for row in plan) + "\n")
    assert done.solution.errors == (), done.solution.errors
    alike = [each for each in questions(done, 3) if each.asks == question.asks]
    return alike[0] if alike else None


@pytest.mark.parametrize("name", some(sorted(sample_plans()), 6))
def test_a_question_can_be_answered_from_the_words_of_its_paper(name: str) -> None:
    try:
        paper = plan_paper([sample_plans()[name]], 2, 14, 3)
    except ClauseError:
        return
    answered = 0
    for question in paper.questions:
        if question.rule_shown is not None:
            continue
        found = solver(question, paper.givens[0])
        if question.sort in ("length", "angle") and found is not None:
            answered += 1
            assert found.right == pytest.approx(question.right, abs=question.near or 1e-6), (
                question.asks
            )
    assert answered or not any(q.sort == "length" and not q.rule_shown for q in paper.questions)


@pytest.mark.parametrize(
    ("name", "text"), some(SAMPLES, 9), ids=[name for name, _ in some(SAMPLES, 9)]
)
def test_no_answer_stands_in_its_question_or_hints(name: str, text: str) -> None:
    for question in asked(text):
        for hint in question.hints:
            if isinstance(question.right, float | int):
                assert not says(hint, float(question.right)), (question.asks, hint)
                # And by another reading than the desk's own: word by word, but for scales.
                words = re.split(r"[\s;:,°()]+", re.sub(r"\b\d+:\d+\b", "", hint))
                assert f"{float(question.right):g}" not in words, (question.asks, hint)
            elif isinstance(question.right, str):
                assert question.right not in hint.split()
        if isinstance(question.right, float | int) and question.rule_shown is None:
            assert not says(question.asks, float(question.right)), question.asks
            assert len(question.hints) >= 2, question


def test_hints_blank_what_stands_before_a_colon_and_in_fractions() -> None:
    rows = "given d = Ø9/32\nc = circle, centre O, diameter d\nrim = line in, c\n"
    text = f"units in\nsheet A4 landscape, scale 1:1, border 3/8\nO = datum\n{rows}"
    (question,) = [each for each in questions(work_out(text)) if each.rule == "radius"]
    assert question.hints[-1] == "Ø 9/32 ÷ 2 = …: the compass goes by radius"
    assert key_of(question) == "9/64 in, give or take 1/64"
