"""Sets as files: JSON, everything that marking needs, each paper sealed by a digest."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Mapping
from dataclasses import asdict
from typing import Any, get_args

from ..measure import RulePiece, Unit
from ..outside import Fields, read_json, read_number
from ..plan.document import MOST_CHARACTERS, MOST_LINES
from ..plan.errors import ClauseError
from ..practice.question import RULES, Question, Slip, Sort
from .sets import MOST_PLANS, MOST_QUESTIONS, MOST_STUDENTS, Paper, Set

VERSION = 2
BEFORE_DIGESTS = 1
LONGEST_SET = 128 * 2**20
LONGEST_NAME, LONGEST_TEXT = 200, 4_000
"""Characters of a name and of a sentence in a set."""

LONGEST_BRIEF = 40_000
"""Characters of all that a plan of a paper gives and draws."""

MOST_MARKS, MOST_SHOWN = 10**6, 2_000
"""Graduations of a rule, and of a piece of one that is shown."""

MOST_CHOICES, MOST_SLIPS = 400, 200
LARGEST_ANSWER = 1e9
LARGEST_SEED = 2**40


def write_set(made: Set) -> str:
    """Write a set as JSON: everything that marking needs, so that it takes no time."""
    said = {
        "entrick_set": VERSION,
        "title": made.title,
        "seed": made.seed,
        "briefs": list(made.briefs),
        "plans": list(made.plans),
        "papers": [_sealed(paper) for paper in made.papers],
    }
    # Fractions of a rule's graduations are written as they are said, 1/32.
    return json.dumps(said, ensure_ascii=False, separators=(",", ":"), default=str) + "\n"


def _sealed(paper: Paper) -> dict[str, Any]:
    said = {
        "student": paper.student,
        "name": paper.name,
        "givens": list(paper.givens),
        "hands": [list(paper.hands)],
        "questions": [asdict(q) for q in paper.questions],
    }
    plain = json.loads(json.dumps(said, default=str))
    return {**plain, "digest": _digest(plain)}


def _digest(paper: Mapping[str, Any]) -> str:
    """Return the digest of a paper, whatever order its fields stand in, and however its numbers are
    written."""
    text = json.dumps(_plain(paper), sort_keys=True, separators=(",", ":"), ensure_ascii=False)
    return hashlib.sha256(text.encode("utf-8", "surrogatepass")).hexdigest()[:32]


def _plain(value: Any) -> Any:
    """Return what JSON says, whole numbers as such: other programs write 60.0 as 60."""
    if isinstance(value, dict):
        return {key: _plain(each) for key, each in value.items()}
    if isinstance(value, list):
        return [_plain(each) for each in value]
    return int(value) if isinstance(value, float) and value.is_integer() else value


def read_set(text: str) -> Set:
    """Read a set from JSON.

    Raises
    ------
    ClauseError
        In words, naming what is wrong, or which paper was changed after it was made.
    """
    if len(text) > LONGEST_SET:
        raise ClauseError("this is larger than a set may be")
    read = read_json(text, "set")
    version = read.get("entrick_set") if isinstance(read, dict) else None
    if version not in (VERSION, BEFORE_DIGESTS):
        raise ClauseError(f'this is no set: it begins with  "entrick_set": {VERSION}')
    whole = Fields(read)
    try:
        papers = tuple(
            _paper(paper, sealed=version == VERSION)
            for paper in whole.each("papers", MOST_STUDENTS)
        )
        briefs = whole.texts("briefs", MOST_PLANS, LONGEST_TEXT)
        seed = whole.whole("seed", 0, LARGEST_SEED)
        # Sets made before figures were printed have no plans in them.
        has_plans = "plans" in read
        plans = whole.texts("plans", MOST_PLANS, MOST_CHARACTERS) if has_plans else ()
        return Set(whole.text("title", LONGEST_NAME), seed, briefs, papers, plans)
    except ClauseError as error:
        raise ClauseError(f"this set is not whole: {error.message}") from error


def _paper(fields: Fields, sealed: bool) -> Paper:
    student = fields.text("student", LONGEST_NAME)
    if sealed:
        plain = {key: value for key, value in fields.value.items() if key != "digest"}
        if fields["digest"] != _digest(plain):
            raise ClauseError(
                f"the paper of student {student} was changed after it was made, and would be "
                "marked wrong: take the set from the register"
            )
    return Paper(
        student,
        tuple(map(_question, fields.each("questions", MOST_QUESTIONS))),
        fields.texts("givens", MOST_PLANS, LONGEST_BRIEF),
        fields.text("name", LONGEST_NAME) if "name" in fields.value else "",
        next(iter(fields.wholes("hands", MOST_PLANS, 3)), ()) if "hands" in fields.value else (),
    )


def _question(fields: Fields) -> Question:
    sort, rule = fields["sort"], fields["rule"]
    if sort not in get_args(Sort) or rule not in RULES:
        raise ClauseError(f"{fields.where} is no question")
    choices = fields.texts("choices", MOST_CHOICES, LONGEST_TEXT)
    waits = fields.wholes("waits", MOST_CHOICES, MOST_CHOICES)
    right: float | str | tuple[str, ...]
    if sort == "order":
        right = fields.texts("right", MOST_CHOICES, LONGEST_TEXT)
        if sorted(right) != sorted(choices) or len(waits) != len(choices):
            raise ClauseError(f"{fields.where}.right puts other things in order than its choices")
        if any(wait >= len(choices) for each in waits for wait in each):
            raise ClauseError(f"{fields.where}.waits names more than its choices")
    elif sort == "choice":
        right = fields.text("right", LONGEST_TEXT)
        if right not in choices:
            raise ClauseError(f"{fields.where}.right is none of its choices")
    else:
        right = fields.number("right", LARGEST_ANSWER)
        if sort == "length" and fields["unit"] not in list(Unit):
            raise ClauseError(f"{fields.where}.unit is neither mm nor in")
    return Question(
        fields.text("key", LONGEST_NAME),
        rule,
        fields.text("asks", LONGEST_TEXT),
        sort,
        fields.whole("line", 0, MOST_LINES),
        right,
        fields.whole("step", 0, LARGEST_SEED),
        fields.text("unit", LONGEST_NAME),
        fields.number("near", LARGEST_ANSWER),
        choices=choices,
        slips=tuple(map(_slip, fields.each("slips", MOST_SLIPS))),
        hints=fields.texts("hints", MOST_CHOICES, LONGEST_TEXT),
        working=fields.texts("working", MOST_CHOICES, LONGEST_TEXT),
        waits=waits,
        shows=fields.text("shows", MOST_CHARACTERS),
        setting=fields.text("setting", LONGEST_NAME),
        # Sets made before rules were shown have none.
        rule_shown=_piece(fields.value.get("rule_shown"), fields.where),
    )


def _piece(value: object, where: str) -> RulePiece | None:
    if value is None:
        return None
    fields = Fields.of(value, f"{where}.rule_shown")
    unit = fields.text("unit", LONGEST_NAME)
    if unit not in list(Unit):
        raise ClauseError(f"{fields.where}.unit is neither mm nor in")
    step, ratio = (read_number(fields.text(name, LONGEST_NAME)) for name in ("step", "ratio"))
    if not 0 < step <= LARGEST_ANSWER or not 0 < ratio <= LARGEST_ANSWER:
        raise ClauseError(f"{fields.where} is no rule: its step and ratio are more than nought")
    pointer = None if fields["pointer"] is None else fields.whole("pointer", 0, MOST_MARKS)
    first, count = fields.whole("first", 0, MOST_MARKS), fields.whole("count", 1, MOST_SHOWN)
    return RulePiece(Unit(unit), step, ratio, first, count, pointer)


def _slip(fields: Fields) -> Slip:
    is_text = isinstance(fields["answer"], str)
    return Slip(
        fields.text("key", LONGEST_NAME),
        fields.whole("weight", 0, 100),
        fields.text("answer", LONGEST_TEXT) if is_text else fields.number("answer", LARGEST_ANSWER),
        fields.text("said", LONGEST_TEXT),
    )
