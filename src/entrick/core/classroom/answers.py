"""The answers of a class: read as a table, marked, and told as one."""

from __future__ import annotations

import csv
import io
import re
from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from ..plan.errors import ClauseError
from ..practice.mark import Mark, marked
from ..practice.question import Question
from ..spreadsheet import write_table
from .sets import Paper, Set

LONGEST_ANSWER = 200
LONGEST_CELL = 4_000
"""Characters of a cell of the answers; more than that is not what somebody wrote on paper."""

_NUMBER = re.compile(r"(?:q|question|no\.?|nr\.?)?\s*([0-9]{1,4})[.)]?", re.IGNORECASE)

WHO = ("student", "number", "no", "no.", "nr", "nr.", "#", "id")
CALLED = ("name", "names", "pupil", "student name")
FIRST = ("first name", "firstname", "forename", "given name")
LAST = ("surname", "last name", "lastname", "family name")
"""What the columns with a student's number and name may be called."""

SUMS = frozenset({"total", "totals", "sum", "average", "mean", "out of", "max", "marks"})
"""What rows are called that are no student's."""


@dataclass(frozen=True, slots=True)
class Marked:
    """A student's paper, marked: what came of every answer; one that could not be read is none."""

    student: str
    marks: tuple[Mark, ...]
    name: str = ""

    @property
    def total(self) -> float:
        """The sum of all marks that are given."""
        return sum(mark.share for mark in self.marks)

    @property
    def waits(self) -> tuple[int, ...]:
        """The questions whose answers could not be read, from 1: the teacher decides."""
        return tuple(number for number, mark in enumerate(self.marks, 1) if mark.waits)


@dataclass(frozen=True, slots=True)
class Answers:
    """A table of answers: which column says who, by number or by name, which a question, and the
    rows that are a student's, each with its place."""

    number: int | None
    name: int | None
    columns: dict[int, int]
    width: int
    rows: list[tuple[int, list[str]]]
    left_out: tuple[str, ...]


def mark_answers(made: Set, answers: str) -> tuple[Marked, ...]:
    """Mark the answers of a class.

    Parameters
    ----------
    made : Set
    answers : str
        CSV: a first row with ``student`` or ``name`` and the numbers of the questions, then a row
        for each student, called by number, also ``01``, or by name, in any order. Rows of totals
        and averages are left out.

    Raises
    ------
    ClauseError
        In words, with the row, where a student is on no paper, or on two rows, or the columns are
        others.
    """
    table = read_answers(answers)
    seen: dict[str, int] = {}
    result = []
    for number, row in table.rows:
        paper = _paper_of(made, table, number, row)
        if paper.student in seen:
            raise ClauseError(
                f"row {number}: student {paper.student} stands in row {seen[paper.student]} already"
            )
        seen[paper.student] = number
        said = {n: row[at] for n, at in table.columns.items() if at < len(row)}
        filled = len([cell for cell in row if cell.strip()])
        marks = (
            _shifted(said.get(n, ""))
            if filled > table.width
            else _marked(question, said.get(n, ""))
            for n, question in enumerate(paper.questions, 1)
        )
        result.append(Marked(paper.student, tuple(marks), paper.name))
    return tuple(result)


def read_answers(text: str) -> Answers:
    """Read a table of answers, and which of its rows are a student's."""
    rows = _table(text)
    head = [cell.strip() for cell in rows[0]] if rows else []
    names = [cell.casefold() for cell in head]
    number = next((n for n, cell in enumerate(names) if cell in WHO), None)
    name = next((n for n, cell in enumerate(names) if cell in CALLED), None)
    if number is None and name is None:
        raise ClauseError("the first row of the answers is  student,1,2,3 …  or  name,1,2,3 …")
    columns, strange = {}, []
    for at, cell in enumerate(head):
        asked = _NUMBER.fullmatch(cell)
        if asked is not None and at not in (number, name):
            columns[int(asked[1])] = at
        elif at not in (number, name) and cell and cell.casefold() not in SUMS:
            strange.append(cell)
    if strange:
        raise ClauseError(
            f"the columns beside  student  are numbers of questions; {', '.join(strange)} are not"
        )
    found, left_out = [], []
    for place, row in enumerate(rows[1:], 2):
        said = [row[at].strip() for at in (number, name) if at is not None and at < len(row)]
        if not any(cell.strip() for cell in row):
            continue
        if any(cell.casefold() in SUMS for cell in said):
            left_out.append(f"row {place}, {' '.join(said)}, is no student's and was left out")
        else:
            found.append((place, row))
    return Answers(number, name, columns, len(head), found, tuple(left_out))


def _paper_of(made: Set, table: Answers, number: int, row: list[str]) -> Paper:
    """Return the paper a row answers: by the student's number, else by name."""
    cells = {
        at: row[at].strip() for at in (table.number, table.name) if at is not None and at < len(row)
    }
    said = next((cell for cell in cells.values() if cell), "")
    for cell in cells.values():
        papers = [paper for paper in made.papers if _is_of(paper, cell)]
        if len(papers) > 1:
            raise ClauseError(f"row {number}: there are {len(papers)} of the name {cell}")
        if papers:
            return papers[0]
    raise ClauseError(f"row {number}: there is no paper for {said or 'nobody'} in this set")


def _is_of(paper: Paper, cell: str) -> bool:
    """Tell whether a paper is of whom a cell names."""
    if re.fullmatch(r"0*[0-9]{1,6}(?:\.0)?", cell):
        return paper.student == str(int(float(cell)))
    return bool(_spelt(cell)) and _spelt(cell) in (_spelt(paper.student), _spelt(paper.name))


def _spelt(name: str) -> str:
    """Return a name without its capitals, commas and double blanks."""
    return " ".join(re.findall(r"\w+", name.casefold()))


def read_names(text: str) -> tuple[str, ...]:
    """Read a class list: a name in a row, or the column of names of a table; in its order.

    Raises
    ------
    ClauseError
        Where somebody stands in it twice, or there is nobody.
    """
    rows = [row for row in _table(text) if any(cell.strip() for cell in row)]
    heads = [cell.strip().casefold() for cell in rows[0]] if rows else []
    # A first name and a surname are one name, in that order.
    named = sorted(
        (n for n, cell in enumerate(heads) if cell in (*CALLED, *FIRST, *LAST)),
        key=lambda n: heads[n] in LAST,
    )
    if named:
        rows = rows[1:]
    elif any(cell in WHO for cell in heads):
        raise ClauseError("the class list has no column of names: call it  name")
    names = []
    for row in rows:
        # Without a heading, all that is no number is the name.
        cells = [row[n] for n in named if n < len(row)] if named else row
        words = [cell.strip() for cell in cells if not re.fullmatch(r"[\s\d.)]*", cell)]
        name = re.sub(r"^\s*\d+[.)]?\s+", "", " ".join(words)).strip()
        if name and name.casefold() not in SUMS:
            names.append(name[:LONGEST_ANSWER])
    if not names:
        raise ClauseError("there is no name in the class list")
    twice = next((name for name in names if names.count(name) > 1), None)
    if twice is not None:
        raise ClauseError(f"{twice} stands in the class list twice: tell the two apart")
    return tuple(names)


def answer_sheet(made: Set) -> str:
    """Write an empty table of answers, to be filled in."""
    count = max((len(paper.questions) for paper in made.papers), default=0)
    rows: list[Sequence[object]] = [["student", "name", *range(1, count + 1)]]
    rows += [[paper.student, paper.name, *("" for _ in range(count))] for paper in made.papers]
    return write_table(rows)


def _shifted(said: str) -> Mark:
    """Return an answer of a row that has more cells than there are columns: which is whose nobody
    knows."""
    words = "the row has more answers than columns; is a decimal comma in it without quotes?"
    return Mark(0.0, told=f"“{said.strip()[:LONGEST_ANSWER]}” was not read: {words}", waits=True)


def _table(text: str) -> list[list[str]]:
    """Return the cells of a table, whatever ends its rows and parts its cells: as its first row
    has it."""
    rows = text.lstrip("\ufeff").replace("\r\n", "\n").replace("\r", "\n")
    head = rows.lstrip("\n").partition("\n")[0]
    parted = max(",;\t", key=head.count)
    try:
        result = list(csv.reader(io.StringIO(rows), delimiter=parted, strict=True))
    except csv.Error as error:
        raise ClauseError(f"the answers are no table: {error}") from error
    for number, row in enumerate(result, 1):
        if any(len(cell) > LONGEST_CELL for cell in row):
            raise ClauseError(f"row {number}: a cell has more than {LONGEST_CELL} characters")
    return result


def _marked(question: Question, said: str) -> Mark:
    if not said.strip():
        return Mark(0.0, told="No answer.")
    try:
        return marked(question, said[:LONGEST_ANSWER])
    except ClauseError as error:
        short = said.strip()[:LONGEST_ANSWER]
        return Mark(0.0, told=f"“{short}” was not read: {error.message}.", waits=True)


def marks_csv(made: Set, marks: Iterable[Marked]) -> str:
    """Write marks as CSV: student, total, out of, a column for every question with its mark, the
    slips named, and what could not be read, with a question mark for its mark."""
    count = max((len(paper.questions) for paper in made.papers), default=0)
    rows: list[Sequence[object]] = []
    columns = [f"{n}" for n in range(1, count + 1)]
    rows.append(["student", "name", "total", "of", *columns, "slips", "to decide"])
    for each in marks:
        slips = [
            f"{n}: {' or '.join(slip.key for slip in mark.slips)}"
            for n, mark in enumerate(each.marks, 1)
            if mark.slips
        ]
        rows.append(
            [
                each.student,
                each.name,
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
