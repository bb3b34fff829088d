"""Sets for a class: one variant of the same parts for every student, answered on paper, marked with
each slip named."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, replace
from random import Random

from ..desk import Work, work_out
from ..memo import remembered
from ..plan.errors import ClauseError
from ..practice.as_given import givens_of, rows_drawn
from ..practice.ask import questions
from ..practice.other_hand import hand_of
from ..practice.question import Question
from ..practice.vary import variant
from .grades import ANY, at_grade, suits

MOST_STUDENTS, MOST_QUESTIONS, MOST_PLANS = 2_000, 60, 12

LOOKED_AT = 4
"""Variants that are looked at for which questions a plan keeps."""

TURNS = 6
"""Times a student's givens are drawn anew where a question would lose its point."""

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
    """The questions of one student, the givens of each plan they are about, what the student is
    called, where that is known, and of which hand each plan is."""

    student: str
    questions: tuple[Question, ...]
    givens: tuple[str, ...] = ()
    name: str = ""
    hands: tuple[int, ...] = ()


@dataclass(frozen=True, slots=True)
class Set:
    """A set: its title, what each of its plans is called, a paper for every student, and the plans
    themselves, of which the papers show the figure."""

    title: str
    seed: int
    briefs: tuple[str, ...]
    papers: tuple[Paper, ...]
    plans: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Asked:
    """What a set asks: rules, all that can be asked on paper where there are none, and a grade."""

    rules: frozenset[str] = frozenset()
    grade: int = ANY


EVERYTHING = Asked()


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
    texts: Sequence[str], student: int, count: int, seed: int, asked: Asked = EVERYTHING
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
    asked : Asked
        Which rules are tested, and at which grade.

    Raises
    ------
    ClauseError
        Where the plans give no question of the kind.
    """
    wanted = (asked.rules or ON_PAPER) & ON_PAPER
    found: list[Question] = []
    givens: list[str] = []
    hands: list[int] = []
    for number, plan in enumerate(texts):
        text = at_grade(plan, asked.grade)
        kept = in_every_variant(text, seed)
        own = [
            question
            for question in questions(work_out(text), seed)
            if question.rule in wanted
            and question.key in kept
            and is_for_paper(question)
            and suits(question, asked.grade)
        ]
        share = count // len(texts) + (number < count % len(texts))
        picked = _by_lot(own, share, Random(f"{seed} {number}"))
        done = own_variant(text, student, seed) or work_out(text)
        known = {question.key: question for question in questions(done, seed)}
        givens.append(_givens(done))
        hands.append(hand_of(text, done.plan))
        own_order = Random(f"{seed} {number} {student}")
        found += [shuffled(known[question.key], own_order) for question in picked]
    if not found:
        raise ClauseError(
            "these plans give no such question: take another plan, other rules, or another grade"
        )
    return Paper(str(student), tuple(found), tuple(givens), hands=tuple(hands))


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
    words = "; ".join([*givens_of(work), *rows_drawn(work)])
    return f"{brief_of(work)}, {work.solution.unit.value}, at {work.sheet.scale}: {words}"


def make(
    title: str,
    texts: Sequence[str],
    students: int | Sequence[str],
    count: int,
    seed: int,
    asked: Asked = EVERYTHING,
    told: Callable[[int, int], None] = lambda done, of: None,
) -> Set:
    """Make a set.

    Parameters
    ----------
    title : str
    texts : sequence of str
        Plans.
    students : int or sequence of str
        How many, or what they are called.
    count : int
        Questions of a paper.
    seed : int
    asked : Asked
    told : callable, optional
        Told how many papers are made, of how many.

    Raises
    ------
    ClauseError
        In words, where it is too large, or a plan has mistakes.
    """
    names = [""] * students if isinstance(students, int) else list(students)
    if (
        not 1 <= len(names) <= MOST_STUDENTS
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
    for student, name in enumerate(names, 1):
        paper = plan_paper(texts, student, count, seed, asked)
        papers.append(replace(paper, name=name))
        told(student, len(names))
    plans = tuple(at_grade(text, asked.grade) for text in texts)
    return Set(title, seed, briefs_of(texts), tuple(papers), plans)


def briefs_of(texts: Iterable[str]) -> tuple[str, ...]:
    """Return what plans are called."""
    return tuple(brief_of(work_out(text)) for text in texts)


def brief_of(work: Work) -> str:
    """Return what a plan is called."""
    solution = work.solution
    return " ".join(filter(None, (solution.drawing, solution.title))) or "Untitled"
