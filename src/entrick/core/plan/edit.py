"""Edits of a plan made through cards and picks: each takes a plan and returns one in which some
lines are others."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence, Set
from dataclasses import replace

from .document import (
    LONGEST_LINE,
    UNREAD_GIVEN,
    Chain,
    Clause,
    Content,
    DrawingNumber,
    Given,
    Line,
    Plan,
    SheetLine,
    Statement,
    Title,
    Units,
    Unread,
)
from .reader import read_line, read_plan
from .terms import Name, Num, Text, write
from .writer import write_clauses, write_content, write_line, write_plan


class EditError(ValueError):
    """An edit that names a line or clause the plan does not have."""


class NotUnderstood(ValueError):
    """What was typed for an edit cannot be understood; says in words what would be."""


def tidy(text: str) -> str:
    """Return a plan's text in canonical spacing."""
    return write_plan(read_plan(text))


def _plan(lines: Iterable[Line]) -> Plan:
    """Return a plan of lines, each read as it will be written; blank ones at its end are left
    out."""
    kept = list(lines)
    while kept and not write_line(kept[-1]).strip():
        kept.pop()
    return read_plan(write_plan(Plan(tuple(kept))))


def _index(plan: Plan, line: int) -> int:
    if not 1 <= line <= len(plan.lines):
        raise EditError(f"the plan has no line {line}")
    return line - 1


def _put(plan: Plan, start: int, end: int, *lines: Line) -> Plan:
    return _plan((*plan.lines[:start], *lines, *plan.lines[end:]))


def set_line(plan: Plan, line: int, row: str) -> Plan:
    """Put other text on a line; a comment on it stays unless the new text has one of its own."""
    index = _index(plan, line)
    fresh = read_line(one_row(row))
    if fresh.content:
        fresh = Line(fresh.content, fresh.comment or plan.lines[index].comment)
    return _put(plan, index, index + 1, fresh)


def insert_line(plan: Plan, after: int, row: str) -> Plan:
    """Put a new line below another; 0 puts it first."""
    if not 0 <= after <= len(plan.lines):
        raise EditError(f"the plan has no line {after}")
    return _put(plan, after, after, read_line(one_row(row)))


def append(plan: Plan, text: str) -> Plan:
    """Put one line or several at the end of the plan; what is left of a clause or walk not begun is
    left out."""
    rows = [
        row for row in (re.sub(r"[,>\s]+$", "", row) for row in text.splitlines()) if row.strip()
    ]
    return _put(plan, len(plan.lines), len(plan.lines), *map(read_line, rows))


def delete_line(plan: Plan, line: int) -> Plan:
    """Take a line out."""
    index = _index(plan, line)
    return _put(plan, index, index + 1)


def move_line(plan: Plan, line: int, to: int) -> Plan:
    """Move a line so that it becomes line `to`: the order of statements is the order of work."""
    lines = list(plan.lines)
    moved = lines.pop(_index(plan, line))
    lines.insert(max(0, min(to - 1, len(lines))), moved)
    return _plan(lines)


_HEADS: dict[str, type[Title | DrawingNumber | Units | SheetLine]] = {
    "plan": Title,
    "drawing": DrawingNumber,
    "units": Units,
    "sheet": SheetLine,
}
HEAD = tuple(_HEADS)
"""The lines that head a plan, in their usual order."""


def _stands(plan: Plan, key: str) -> int | None:
    """Return where a heading line stands, one that cannot be read too; the last where there are
    several."""

    def heads(content: Content) -> bool:
        if isinstance(content, Unread):
            return re.match(rf"\s*{key}\b(?!\s*=)", content.text) is not None
        return isinstance(content, _HEADS[key])

    return max(
        (index for index, line in enumerate(plan.lines) if heads(line.content)), default=None
    )


def set_head(plan: Plan, key: str, said: str) -> Plan:
    """Say a heading line differently, or write it in its usual place; an empty text takes it out.

    Parameters
    ----------
    key : str
        One of `HEAD`.
    said : str
        What stands behind the key: a title without its quotes, a drawing number, a unit, the
        sheet's clauses.
    """
    said = one_row(said).strip()
    row = f'plan "{said.replace(chr(34), chr(0x2033))}"' if key == "plan" else f"{key} {said}"
    stands = _stands(plan, key)
    if stands is not None:
        return set_line(plan, stands + 1, row) if said else delete_line(plan, stands + 1)
    before = (_stands(plan, word) for word in HEAD[: HEAD.index(key)])
    return (
        insert_line(plan, max((at + 1 for at in before if at is not None), default=0), row)
        if said
        else plan
    )


def set_given(plan: Plan, line: int, value: str) -> Plan:
    """Give a given another value, keeping its name, mark of assumption and note.

    A value that cannot be read is kept as typed, so that nothing is lost.
    """
    given, value = plan.lines[_index(plan, line)].content, one_row(value).strip()
    if isinstance(given, Unread) and (found := UNREAD_GIVEN.fullmatch(given.text[:LONGEST_LINE])):
        row = (
            f"{found['word']} {found['name']} = "
            f"{value}{found['note'] or ''}{found['comment'] or ''}"
        )
    elif isinstance(given, Chain):
        tail = (", assumed" if given.assumed else "") + (
            f' "{Text(given.note).text}"' if given.note else ""
        )
        row = f"chain {given.name} = {value}{tail}"
    elif isinstance(given, Given):
        row = write_content(replace(given, value=Num(value), mark="", count=0))
    else:
        raise EditError(f"line {line} is not a given; edit the line itself")
    return set_line(plan, line, row)


def new_given(plan: Plan, text: str) -> Plan:
    """Write down another given below the last one; the first stands above the statements.

    Raises
    ------
    NotUnderstood
        For text that is no name with a dimension.
    """
    found = re.fullmatch(
        r"\s*(?:given\s+)?([^\W\d]\w*)(?:\s*[=:]\s*|\s+(?=[\d.RØ]))(\S.*)", one_row(text)
    )
    if not found:
        words = re.fullmatch(r"\s*(?:given\s+)?([^\W\d]\w*)\s+([^\W\d]\w*)\s*=.*", one_row(text))
        one = f"; a name is one word, such as {words[1]}_{words[2]}" if words else ""
        raise NotUnderstood(
            f'write a letter, =, and the dimension, such as r = 9/16 "pin hole"{one}'
        )
    givens = [n for n, line in enumerate(plan.lines, 1) if _is_given(line.content)]
    first = next(
        (n for n, line in enumerate(plan.lines) if isinstance(line.content, Statement)),
        len(plan.lines),
    )
    return insert_line(plan, max(givens, default=first), f"given {found[1]} = {found[2]}")


def _is_given(content: Content) -> bool:
    if isinstance(content, Unread):
        return (
            len(content.text) <= LONGEST_LINE and UNREAD_GIVEN.fullmatch(content.text) is not None
        )
    return isinstance(content, Given | Chain)


def set_clause(plan: Plan, line: int, clause: int, said: str) -> Plan:
    """Say a clause differently; an empty text takes it out, an index one past the last adds one."""
    statement = statement_on(plan, line)
    parts = [str(part) for part in statement.clauses]
    if not 0 <= clause <= len(parts):
        raise EditError(f"{statement.name} has no clause {clause + 1}")
    said = one_row(said).strip().strip(",")
    if (
        clause >= len(parts) - 1
        and '"' in said
        and statement.note
        and f'"{Text(statement.note).text}"' in said
    ):
        statement = replace(statement, note="")
    parts[clause : clause + 1] = [said] if said else []
    return set_line(plan, line, _statement_row(statement, parts))


def choose_candidate(plan: Plan, line: int, words: Sequence[str], choices: frozenset[str]) -> Plan:
    """Choose a candidate by its words, in place of the choosing words said before.

    Parameters
    ----------
    words : sequence of str
        Of the candidate.
    choices : frozenset of str
        Every word that only chooses, for the statement's kind.
    """
    statement = statement_on(plan, line)
    said = {str(clause) for clause in statement.clauses}
    kept = [str(c) for c in statement.clauses if not _only_chooses(c, choices, said)]
    return set_line(plan, line, _statement_row(statement, [*kept, *words]))


def choose_in_walk(plan: Plan, line: int, clause: int, stop: int, words: str) -> Plan:
    """Say words behind one stop of a walk."""
    stops = str(statement_on(plan, line).clauses[clause]).split(" > ")
    stops[stop] = f"{stops[stop]} {words}"
    return set_clause(plan, line, clause, " > ".join(stops))


def _only_chooses(clause: Clause, choices: frozenset[str], said: Set[str]) -> bool:
    """Tell whether a clause only chooses: words of place, ``near A``, or how something touches that
    is said to."""
    first, *rest = clause.items
    if not (isinstance(first, Name) and first.text in choices):
        return False
    touched = " ".join(write(item) for item in rest if item != Name("of"))
    return not rest or first.text in ("near", "towards", "away") or f"touching {touched}" in said


def _statement_row(statement: Statement, parts: Sequence[str]) -> str:
    return f"{statement.name} = " + write_clauses([statement.kind, *parts], statement)


def statement_on(plan: Plan, line: int) -> Statement:
    """Return the statement on a line.

    Raises
    ------
    EditError
        When there is none that can be read.
    """
    content = plan.lines[_index(plan, line)].content
    if not isinstance(content, Statement):
        raise EditError(f"line {line} is not a statement that can be read; edit the line itself")
    return content


def one_row(text: str) -> str:
    """Keep typed text on one line."""
    return " ".join(text.splitlines())
