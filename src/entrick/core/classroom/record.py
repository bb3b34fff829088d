"""What the marks of weeks show: for a class and for each student, by rule and by slip."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from ..practice.question import RULES
from ..spreadsheet import write_table

COMMONEST = 3


@dataclass(frozen=True, slots=True)
class Answer:
    """An answer that was marked: whose, in which week (``2026-W48``), what it tested, its mark, and
    the slip it showed, empty for none."""

    who: str
    week: str
    rule: str
    share: float
    slip: str = ""


@dataclass(frozen=True, slots=True)
class Row:
    """A rule over the weeks: the share that was right in each, None where it was not asked."""

    rule: str
    told: str
    shares: tuple[float | None, ...]


@dataclass(frozen=True, slots=True)
class Common:
    """A slip of a class this week: how often, and whose."""

    slip: str
    times: int
    whose: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class StudentRecord:
    """A student over the weeks: the share of all marks in each, rule by rule, and slips by how
    often they were made, most first."""

    who: str
    shares: tuple[float | None, ...]
    rules: tuple[Row, ...]
    slips: tuple[tuple[str, int], ...]


@dataclass(frozen=True, slots=True)
class ClassRecord:
    """A class over the weeks: the share of all marks in each, rule by rule; the commonest slips of
    the last week; every student."""

    weeks: tuple[str, ...]
    shares: tuple[float | None, ...]
    rules: tuple[Row, ...]
    commonest: tuple[Common, ...]
    students: tuple[StudentRecord, ...]


def class_record(answers: Sequence[Answer]) -> ClassRecord:
    """Return what marked answers show, week by week."""
    weeks = tuple(sorted({each.week for each in answers}))
    students = sorted({each.who for each in answers}, key=_in_order)
    return ClassRecord(
        weeks,
        _by_week(answers, weeks),
        _by_rule(answers, weeks),
        commonest([each for each in answers if weeks and each.week == weeks[-1]]),
        tuple(_student(who, [a for a in answers if a.who == who], weeks) for who in students),
    )


def _in_order(who: str) -> tuple[int, str]:
    """Sort numbers as numbers, before names."""
    return (int(who), "") if who.isdigit() else (10**9, who.casefold())


def _student(who: str, answers: Sequence[Answer], weeks: Sequence[str]) -> StudentRecord:
    slips = Counter(each.slip for each in answers if each.slip)
    return StudentRecord(
        who, _by_week(answers, weeks), _by_rule(answers, weeks), tuple(slips.most_common())
    )


def _by_week(answers: Sequence[Answer], weeks: Sequence[str]) -> tuple[float | None, ...]:
    return tuple(_mean([a.share for a in answers if a.week == week]) for week in weeks)


def _mean(shares: Sequence[float]) -> float | None:
    return sum(shares) / len(shares) if shares else None


def _by_rule(answers: Sequence[Answer], weeks: Sequence[str]) -> tuple[Row, ...]:
    asked = dict.fromkeys(each.rule for each in answers)
    return tuple(
        Row(rule, told, _by_week([a for a in answers if a.rule == rule], weeks))
        for rule, told in RULES.items()
        if rule in asked
    )


def commonest(answers: Iterable[Answer]) -> tuple[Common, ...]:
    """Return the three slips that were made most, and whose they are."""
    times: Counter[str] = Counter()
    whose: dict[str, dict[str, None]] = {}
    for each in answers:
        if each.slip:
            times[each.slip] += 1
            whose.setdefault(each.slip, {})[each.who] = None
    return tuple(
        Common(slip, count, tuple(whose[slip])) for slip, count in times.most_common(COMMONEST)
    )


def record_csv(record: ClassRecord) -> str:
    """Write a record as CSV: for the class and each student a row for each rule, a column for each
    week, and the slips by name."""
    rows: list[Sequence[object]] = [["student", "rule", *record.weeks, "slips"]]

    def cells(shares: Sequence[float | None]) -> list[str]:
        return ["" if share is None else f"{share:.2f}" for share in shares]

    rows.append(["class", "all", *cells(record.shares), ""])
    rows += [["class", row.rule, *cells(row.shares), ""] for row in record.rules]
    for student in record.students:
        slips = "; ".join(f"{slip} {times}×" for slip, times in student.slips)
        rows.append([student.who, "all", *cells(student.shares), slips])
        rows += [[student.who, row.rule, *cells(row.shares), ""] for row in student.rules]
    return write_table(rows)
