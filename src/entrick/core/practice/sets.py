"""Sets for a class: one variant of the same parts for every student, answered on paper, marked with
each slip named."""

from __future__ import annotations

import csv
import io
import json
import re
from collections import Counter
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import asdict, dataclass, replace
from fractions import Fraction
from random import Random
from typing import get_args

from ..desk import Work, work_out
from ..measure import RulePiece, Unit, spell
from ..memo import remembered
from ..outside import Said, read_json, read_number
from ..plan.document import MOST_CHARACTERS, MOST_LINES
from ..plan.errors import ClauseError
from ..spreadsheet import write_table
from .as_given import givens_of, rows_drawn
from .ask import questions
from .mark import Mark, marked
from .question import RULES, Question, Slip, Sort
from .vary import variant

VERSION = 1
MOST_STUDENTS, MOST_QUESTIONS, MOST_PLANS = 2_000, 60, 12
LONGEST_SET = 128 * 2**20
LONGEST_ANSWER = 200
LONGEST_NAME, LONGEST_TEXT = 200, 4_000
"""Characters of a name and of a sentence in a set."""

MOST_MARKS, MOST_SHOWN = 10**6, 2_000
"""Graduations of a rule, and of a piece of one that is shown."""

MOST_CHOICES, MOST_SLIPS = 400, 200
LARGEST_ANSWER = 1e9
LARGEST_SEED = 2**40
LONGEST_CELL = 4_000
"""Characters of a cell of the answers; more than that is not what somebody wrote on paper."""


LOOKED_AT = 4
"""Variants that are looked at for which questions a plan keeps."""

TURNS = 6
"""Times a student's givens are drawn anew where a question would lose its point."""

_NUMBER = re.compile(r"[0-9]{1,4}")

ON_PAPER = frozenset(
    {
        "locus",
        "radius",
        "scale",
        "reading",
        "crossing",
        "parts",
        "stations",
        "chain",
        "template",
        "order",
        "place",
        "wheel",
        "direction",
        "thread",
        "keyway",
        "flats",
    }
)
"""What can be asked without the drawing in front of one."""


@dataclass(frozen=True, slots=True)
class Paper:
    """The questions of one student, and the givens of each plan they are about."""

    student: str
    questions: tuple[Question, ...]
    givens: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Set:
    """A set: its title, what each of its plans is called, a paper for every student, and the plans
    themselves, of which the papers show the figure."""

    title: str
    seed: int
    briefs: tuple[str, ...]
    papers: tuple[Paper, ...]
    plans: tuple[str, ...] = ()


def shuffled(question: Question, random: Random) -> Question:
    """Return a question with its choices in another order, so that neighbours have other
    letters."""
    count = len(question.choices)
    order = random.sample(range(count), count)
    choices = tuple(question.choices[n] for n in order)
    waits = (
        tuple(tuple(sorted(order.index(before) for before in question.waits[n])) for n in order)
        if question.waits
        else ()
    )
    return replace(question, choices=choices, waits=waits)


def plan_paper(
    texts: Sequence[str], student: int, count: int, seed: int, rules: frozenset[str] = frozenset()
) -> Paper:
    """Make the paper of one student.

    Parameters
    ----------
    texts : sequence of str
        Plans without mistakes.
    student : int
        From 1; with the seed it decides the givens.
    count : int
        Questions.
    seed : int
        Decides which questions all papers of a set ask.
    rules : frozenset of str
        Of `RULES`, those that are tested; all that can be asked on paper where it is empty.

    Raises
    ------
    ClauseError
        Where the plans give no question of the kind.
    """
    wanted = (rules or ON_PAPER) & ON_PAPER
    asked: list[Question] = []
    givens: list[str] = []
    for number, text in enumerate(texts):
        kept = in_every_variant(text, seed)
        own = [
            question
            for question in questions(work_out(text), seed)
            if question.rule in wanted and question.key in kept and is_for_paper(question)
        ]
        share = count // len(texts) + (number < count % len(texts))
        picked = _by_lot(own, share, Random(f"{seed} {number}"))
        done = own_variant(text, student, seed) or work_out(text)
        known = {question.key: question for question in questions(done, seed)}
        givens.append(_givens(done))
        own_order = Random(f"{seed} {number} {student}")
        asked += [shuffled(known[question.key], own_order) for question in picked]
    if not asked:
        raise ClauseError("these plans give no such question: take another plan, or other rules")
    return Paper(str(student), tuple(asked), tuple(givens))


def is_for_paper(question: Question) -> bool:
    """Tell whether a question can be asked on paper: a pointer is set on a screen only."""
    return question.rule_shown is None or question.rule_shown.pointer is not None


def _by_lot(pool: Sequence[Question], count: int, random: Random) -> list[Question]:
    """Choose so many questions; no rule fills a paper alone as long as there are others."""
    left = list(pool)
    random.shuffle(left)
    picked: list[Question] = []
    rules: Counter[str] = Counter()
    while left and len(picked) < count:
        question = min(left, key=lambda each: rules[each.rule])
        left.remove(question)
        rules[question.rule] += 1
        picked.append(question)
    return picked


@remembered()
def in_every_variant(text: str, seed: int) -> frozenset[str]:
    """Return the keys of the questions that a plan keeps when its givens are others: a variant may
    lose the point of one, and a paper never mixes the numbers of two plans."""
    kept = {question.key for question in questions(work_out(text), seed)}
    for student in range(1, LOOKED_AT + 1):
        other = variant(text, _seed_of(student, seed, 0))
        if other is not None:
            kept &= {question.key for question in questions(other, seed)}
    return frozenset(kept)


def own_variant(text: str, student: int, seed: int) -> Work | None:
    """Return a plan with the givens one student of a set has, in which every question of the set
    can be asked; None where the set leaves them as they are."""
    wanted = in_every_variant(text, seed)
    for turn in range(TURNS):
        done = variant(text, _seed_of(student, seed, turn))
        if done is not None and wanted <= {each.key for each in questions(done, seed)}:
            return done
    return None


def _seed_of(student: int, seed: int, turn: int) -> int:
    return seed * 100_003 + student + turn * 7_919_021


def _givens(work: Work) -> str:
    """Return what a plan is given and draws, in a row."""
    said = "; ".join([*givens_of(work), *rows_drawn(work)])
    return f"{brief_of(work)}, {work.solution.unit.value}, at {work.sheet.scale}: {said}"


def make(
    title: str,
    texts: Sequence[str],
    students: int,
    count: int,
    seed: int,
    rules: frozenset[str] = frozenset(),
    told: Callable[[int, int], None] = lambda done, of: None,
) -> Set:
    """Make a set.

    Raises
    ------
    ClauseError
        In words, where it is too large, or a plan has mistakes.
    """
    if (
        not 1 <= students <= MOST_STUDENTS
        or not 1 <= count <= MOST_QUESTIONS
        or not 1 <= len(texts) <= MOST_PLANS
    ):
        told_of = (
            f"at most {MOST_STUDENTS} students, {MOST_QUESTIONS} questions and {MOST_PLANS} plans"
        )
        raise ClauseError(f"a set has {told_of}, and one of each at least")
    for text in texts:
        errors = work_out(text).solution.errors
        if errors:
            raise ClauseError(
                f"a plan of the set has a mistake in line {errors[0].line}: {errors[0].message}"
            )
    papers = []
    for student in range(1, students + 1):
        papers.append(plan_paper(texts, student, count, seed, rules))
        told(student, students)
    return Set(title, seed, briefs_of(texts), tuple(papers), tuple(texts))


def briefs_of(texts: Iterable[str]) -> tuple[str, ...]:
    """Return what plans are called."""
    return tuple(brief_of(work_out(text)) for text in texts)


def brief_of(work: Work) -> str:
    """Return what a plan is called."""
    solution = work.solution
    return " ".join(filter(None, (solution.drawing, solution.title))) or "Untitled"


def write_set(made: Set) -> str:
    """Write a set as JSON: everything that marking needs, so that it takes no time."""
    said = {
        "entrick_set": VERSION,
        "title": made.title,
        "seed": made.seed,
        "briefs": list(made.briefs),
        "plans": list(made.plans),
        "papers": [
            {
                "student": paper.student,
                "givens": list(paper.givens),
                "questions": [asdict(q) for q in paper.questions],
            }
            for paper in made.papers
        ],
    }
    # Fractions of a rule's graduations are written as they are said, 1/32.
    return json.dumps(said, ensure_ascii=False, separators=(",", ":"), default=str) + "\n"


def read_set(text: str) -> Set:
    """Read a set from JSON.

    Raises
    ------
    ClauseError
        In words, naming what is wrong.
    """
    if len(text) > LONGEST_SET:
        raise ClauseError("this is larger than a set may be")
    said = read_json(text, "set")
    if not isinstance(said, dict) or said.get("entrick_set") != VERSION:
        raise ClauseError(f'this is no set: it begins with  "entrick_set": {VERSION}')
    whole = Said(said)
    try:
        papers = tuple(
            Paper(
                paper.text("student", LONGEST_NAME),
                tuple(map(_question, paper.each("questions", MOST_QUESTIONS))),
                paper.texts("givens", MOST_PLANS, LONGEST_TEXT),
            )
            for paper in whole.each("papers", MOST_STUDENTS)
        )
        briefs = whole.texts("briefs", MOST_PLANS, LONGEST_TEXT)
        seed = whole.whole("seed", 0, LARGEST_SEED)
        # Sets made before figures were printed have no plans in them.
        has_plans = "plans" in said
        plans = whole.texts("plans", MOST_PLANS, MOST_CHARACTERS) if has_plans else ()
        return Set(whole.text("title", LONGEST_NAME), seed, briefs, papers, plans)
    except ClauseError as error:
        raise ClauseError(f"this set is not whole: {error.message}") from error


def _question(said: Said) -> Question:
    sort, rule = said["sort"], said["rule"]
    if sort not in get_args(Sort) or rule not in RULES:
        raise ClauseError(f"{said.where} is no question")
    choices = said.texts("choices", MOST_CHOICES, LONGEST_TEXT)
    waits = said.wholes("waits", MOST_CHOICES, MOST_CHOICES)
    right: float | str | tuple[str, ...]
    if sort == "order":
        right = said.texts("right", MOST_CHOICES, LONGEST_TEXT)
        if sorted(right) != sorted(choices) or len(waits) != len(choices):
            raise ClauseError(f"{said.where}.right puts other things in order than its choices")
        if any(wait >= len(choices) for each in waits for wait in each):
            raise ClauseError(f"{said.where}.waits names more than its choices")
    elif sort == "choice":
        right = said.text("right", LONGEST_TEXT)
        if right not in choices:
            raise ClauseError(f"{said.where}.right is none of its choices")
    else:
        right = said.number("right", LARGEST_ANSWER)
        if sort == "length" and said["unit"] not in list(Unit):
            raise ClauseError(f"{said.where}.unit is neither mm nor in")
    return Question(
        said.text("key", LONGEST_NAME),
        rule,
        said.text("asks", LONGEST_TEXT),
        sort,
        said.whole("line", 0, MOST_LINES),
        right,
        said.whole("step", 0, LARGEST_SEED),
        said.text("unit", LONGEST_NAME),
        said.number("near", LARGEST_ANSWER),
        choices=choices,
        slips=tuple(map(_slip, said.each("slips", MOST_SLIPS))),
        hints=said.texts("hints", MOST_CHOICES, LONGEST_TEXT),
        working=said.texts("working", MOST_CHOICES, LONGEST_TEXT),
        waits=waits,
        shows=said.text("shows", MOST_CHARACTERS),
        setting=said.text("setting", LONGEST_NAME),
        # Sets made before rules were shown have none.
        rule_shown=_piece(said.value.get("rule_shown"), said.where),
    )


def _piece(value: object, where: str) -> RulePiece | None:
    if value is None:
        return None
    said = Said.of(value, f"{where}.rule_shown")
    unit = said.text("unit", LONGEST_NAME)
    if unit not in list(Unit):
        raise ClauseError(f"{said.where}.unit is neither mm nor in")
    step, ratio = (read_number(said.text(name, LONGEST_NAME)) for name in ("step", "ratio"))
    if not 0 < step <= LARGEST_ANSWER or not 0 < ratio <= LARGEST_ANSWER:
        raise ClauseError(f"{said.where} is no rule: its step and ratio are more than nought")
    pointer = None if said["pointer"] is None else said.whole("pointer", 0, MOST_MARKS)
    first, count = said.whole("first", 0, MOST_MARKS), said.whole("count", 1, MOST_SHOWN)
    return RulePiece(Unit(unit), step, ratio, first, count, pointer)


def _slip(said: Said) -> Slip:
    is_text = isinstance(said["answer"], str)
    return Slip(
        said.text("key", LONGEST_NAME),
        said.whole("weight", 0, 100),
        said.text("answer", LONGEST_TEXT) if is_text else said.number("answer", LARGEST_ANSWER),
        said.text("said", LONGEST_TEXT),
    )


@dataclass(frozen=True, slots=True)
class Marked:
    """A student's paper, marked: what came of every answer; one that could not be read is none."""

    student: str
    marks: tuple[Mark, ...]

    @property
    def total(self) -> float:
        """The sum of all marks that are given."""
        return sum(mark.share for mark in self.marks)

    @property
    def waits(self) -> tuple[int, ...]:
        """The questions whose answers could not be read, from 1: the teacher decides."""
        return tuple(number for number, mark in enumerate(self.marks, 1) if mark.waits)


def mark_answers(made: Set, answers: str) -> tuple[Marked, ...]:
    """Mark the answers of a class.

    Parameters
    ----------
    made : Set
    answers : str
        CSV: ``student,1,2,…`` in the first row, then a row for each student, named as on the
        papers.

    Raises
    ------
    ClauseError
        In words, with the row, where a student is on no paper or the columns are others.
    """
    rows = _table(answers)
    if not rows or not rows[0] or rows[0][0].strip().casefold() != "student":
        raise ClauseError("the first row of the answers is  student,1,2,3 …")
    papers = {paper.student: paper for paper in made.papers}
    head = [name.strip() for name in rows[0][1:]]
    if any(_NUMBER.fullmatch(name) is None for name in head):
        raise ClauseError(
            f"the columns behind  student  are numbers of questions; {', '.join(head)} are not"
        )
    found = []
    for number, row in enumerate(rows[1:], 2):
        if not any(cell.strip() for cell in row):
            continue
        paper = papers.get(row[0].strip())
        if paper is None:
            raise ClauseError(
                f"row {number}: there is no paper for {row[0].strip() or 'nobody'} in this set"
            )
        said = {int(name): cell for name, cell in zip(head, row[1:], strict=False)}
        shifted = len([cell for cell in row if cell.strip()]) > len(head) + 1
        marks = (
            _shifted(said.get(n, "")) if shifted else _marked(question, said.get(n, ""))
            for n, question in enumerate(paper.questions, 1)
        )
        found.append(Marked(paper.student, tuple(marks)))
    return tuple(found)


def _shifted(said: str) -> Mark:
    """Return an answer of a row that has more cells than there are columns: which is whose nobody
    knows."""
    told = "the row has more answers than columns; is a decimal comma in it without quotes?"
    return Mark(0.0, told=f"Not read: {said.strip()[:LONGEST_ANSWER]}; {told}", waits=True)


def _table(text: str) -> list[list[str]]:
    """Return the cells of a table, whatever ends its rows and parts its cells: as its first row
    has it."""
    rows = text.lstrip("\ufeff").replace("\r\n", "\n").replace("\r", "\n")
    head = rows.lstrip("\n").partition("\n")[0]
    parted = max(",;\t", key=head.count)
    try:
        found = list(csv.reader(io.StringIO(rows), delimiter=parted, strict=True))
    except csv.Error as error:
        raise ClauseError(f"the answers are no table: {error}") from error
    for number, row in enumerate(found, 1):
        if any(len(cell) > LONGEST_CELL for cell in row):
            raise ClauseError(f"row {number}: a cell has more than {LONGEST_CELL} characters")
    return found


def _marked(question: Question, said: str) -> Mark:
    if not said.strip():
        return Mark(0.0, told="No answer.")
    try:
        return marked(question, said[:LONGEST_ANSWER])
    except ClauseError as error:
        return Mark(0.0, told=f"Not read: {error.message}.", waits=True)


def marks_csv(made: Set, marks: Iterable[Marked]) -> str:
    """Write marks as CSV: student, total, out of, a column for every question with its mark, the
    slips named, and what could not be read, with a question mark for its mark."""
    count = max((len(paper.questions) for paper in made.papers), default=0)
    rows: list[Sequence[object]] = []
    columns = [f"{n}" for n in range(1, count + 1)]
    rows.append(["student", "total", "of", *columns, "slips", "to decide"])
    for each in marks:
        slips = [
            f"{n}: {' or '.join(slip.key for slip in mark.slips)}"
            for n, mark in enumerate(each.marks, 1)
            if mark.slips
        ]
        rows.append(
            [
                each.student,
                f"{each.total:g}",
                len(each.marks),
                *("?" if mark.waits else f"{mark.share:g}" for mark in each.marks),
                *("" for _ in range(count - len(each.marks))),
                "; ".join(slips),
                "; ".join(
                    f"{n}: {mark.told}" for n, mark in enumerate(each.marks, 1) if mark.waits
                ),
            ]
        )
    return write_table(rows)


def slips_of(marks: Iterable[Marked]) -> list[tuple[str, int, int]]:
    """Return every slip of a class, how often it was made and by how many, most first; of two that
    fit, the likelier counts."""
    times: Counter[str] = Counter()
    who: dict[str, set[str]] = {}
    for each in marks:
        for mark in each.marks:
            if mark.slips:
                times[mark.slips[0].key] += 1
                who.setdefault(mark.slips[0].key, set()).add(each.student)
    return [(slip, count, len(who[slip])) for slip, count in times.most_common()]


def answer_of(question: Question) -> str:
    """Write the right answer as it stands in a key."""
    if question.sort == "order":
        assert isinstance(question.right, tuple)
        return " ".join(str(question.choices.index(text) + 1) for text in question.right)
    if isinstance(question.right, float | int):
        return f"{question.right:.4f}".rstrip("0").rstrip(".") + (
            question.unit if question.unit == "°" else f" {question.unit}"
        )
    return str(question.right)


def key_of(question: Question) -> str:
    """Write the right answer as a key has it: with the graduation it may be off, or what an order
    has to keep."""
    said = answer_of(question)
    if question.sort == "length":
        near = spell(Fraction(question.near).limit_denominator(1000), Unit(question.unit))
        return f"{said}, give or take {near}"
    if question.sort == "choice":
        return f"{chr(ord('a') + question.choices.index(said))}) {said}"
    if question.sort == "order":
        kept = [
            f"{before + 1} before {after + 1}"
            for after, waits in enumerate(question.waits)
            for before in waits
            if not any(before in question.waits[other] for other in waits)
        ]
        return f"such as {said}: any order with {', '.join(kept)}" if kept else "any order"
    return said


def rows_of(question: Question, number: int, key: bool = False) -> Iterator[str]:
    """Yield a question as it is printed; with its answer and working for a key."""
    yield f"{number}.  {question.asks}"
    if question.sort == "order":
        for n, choice in enumerate(question.choices, 1):
            yield f"      {n})  {choice}"
    else:
        for n, choice in enumerate(question.choices):
            yield f"      {chr(ord('a') + n)})  {choice}"
    if key:
        yield f"      = {key_of(question)}"
        yield from (f"      {row}" for row in question.working)
    else:
        unit = f" {question.unit}" if question.unit else ""
        yield f"      ______________{unit}"
