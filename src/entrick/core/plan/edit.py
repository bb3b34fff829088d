"""Edits of a plan made through cards and picks: each changes lines of the text and nothing else."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import replace

from .document import LONGEST_LINE, UNREAD_GIVEN, Chain, Clause, Content, Given, Line, Plan, Statement, Unread
from .reader import read_line, read_plan
from .terms import Name, Num, Text
from .writer import write_content, write_line, write_plan


class EditError(ValueError):
    """An edit that names a line or clause the plan does not have."""


def _rows(text: str) -> list[str]:
    return [write_line(line) for line in read_plan(text).lines]


def _join(rows: Sequence[str]) -> str:
    return "".join(row + "\n" for row in rows)


def _index(rows: Sequence[str], line: int) -> int:
    if not 1 <= line <= len(rows):
        raise EditError(f"the plan has no line {line}")
    return line - 1


def tidy(text: str) -> str:
    """Return the plan in canonical spacing."""
    return write_plan(read_plan(text))


def set_line(text: str, line: int, row: str) -> str:
    """Put other text on a line; a comment on it stays unless the new text has one of its own."""
    rows = _rows(text)
    index = _index(rows, line)
    comment = read_line(rows[index]).comment
    fresh = read_line(one_row(row))
    rows[index] = write_line(Line(fresh.content, fresh.comment or comment) if fresh.content else fresh)
    return _join(rows)


def insert_line(text: str, after: int, row: str) -> str:
    """Put a new line below another; 0 puts it first."""
    rows = _rows(text)
    if not 0 <= after <= len(rows):
        raise EditError(f"the plan has no line {after}")
    rows.insert(after, write_line(read_line(one_row(row))))
    return _join(rows)


def delete_line(text: str, line: int) -> str:
    """Take a line out."""
    rows = _rows(text)
    del rows[_index(rows, line)]
    return _join(rows)


def move_line(text: str, line: int, to: int) -> str:
    """Move a line so that it becomes line `to`: the order of statements is the order of work."""
    rows = _rows(text)
    row = rows.pop(_index(rows, line))
    rows.insert(max(0, min(to - 1, len(rows))), row)
    return _join(rows)


HEAD = ("plan", "drawing", "units", "sheet")
"""The lines that head a plan, in their usual order."""


def set_head(text: str, key: str, said: str) -> str:
    """Say a heading line differently, or write it in its usual place; an empty text takes it out.

    Parameters
    ----------
    key : str
        One of `HEAD`.
    said : str
        What stands behind the key: a title without its quotes, a drawing number, a unit, the sheet's clauses.
    """
    rows = _rows(text)
    said = one_row(said).strip()
    row = f'plan "{said.replace(chr(34), chr(0x2033))}"' if key == "plan" else f"{key} {said}"
    stands = {
        word: index for index, row_ in enumerate(rows) for word in HEAD if re.match(rf"\s*{word}\b(?!\s*=)", row_)
    }
    if key in stands:
        if not said:
            return delete_line(text, stands[key] + 1)
        return set_line(text, stands[key] + 1, row)
    before = [stands[word] + 1 for word in HEAD[: HEAD.index(key)] if word in stands]
    return insert_line(text, max(before, default=0), row) if said else text


def set_given(text: str, line: int, value: str) -> str:
    """Give a given another value, keeping its name, mark of assumption and note.

    A value that cannot be read is kept as typed, so that nothing is lost.
    """
    given = _content(text, line)
    if isinstance(given, Unread) and (found := UNREAD_GIVEN.fullmatch(given.text[:LONGEST_LINE])):
        row = f"{found['word']} {found['name']} = {one_row(value).strip()}{found['note'] or ''}{found['comment'] or ''}"
    elif isinstance(given, Chain):
        tail = (", assumed" if given.assumed else "") + (f" {_quoted(given.note)}" if given.note else "")
        row = f"chain {given.name} = {one_row(value).strip()}{tail}"
    elif isinstance(given, Given):
        row = write_content(replace(given, value=Num(one_row(value).strip()), mark="", count=0))
    else:
        raise EditError(f"line {line} is not a given; edit the line itself")
    return set_line(text, line, row)


def set_clause(text: str, line: int, clause: int, said: str) -> str:
    """Say a clause differently; an empty text takes it out, an index one past the last adds one."""
    statement = _statement(text, line)
    parts = [str(part) for part in statement.clauses]
    if not 0 <= clause <= len(parts):
        raise EditError(f"{statement.name} has no clause {clause + 1}")
    said = one_row(said).strip().strip(",")
    if clause >= len(parts) - 1 and '"' in said and statement.note and _quoted(statement.note) in said:
        statement = replace(statement, note="")
    parts[clause : clause + 1] = [said] if said else []
    return set_line(text, line, _statement_row(statement, parts))


def choose_candidate(text: str, line: int, words: Sequence[str], choices: frozenset[str]) -> str:
    """Choose a candidate by its words, in place of the choosing words said before.

    Parameters
    ----------
    words : sequence of str
        Of the candidate.
    choices : frozenset of str
        Every word that only chooses, for the statement's kind.
    """
    statement = _statement(text, line)
    kept = [str(c) for c in statement.clauses if not _only_chooses(c, choices)]
    return set_line(text, line, _statement_row(statement, [*kept, *words]))


def _only_chooses(clause: Clause, choices: frozenset[str]) -> bool:
    first = clause.items[0]
    return isinstance(first, Name) and (first.text in choices and (len(clause.items) == 1 or first.text == "near"))


def _statement_row(statement: Statement, parts: Sequence[str]) -> str:
    row = ", ".join([f"{statement.name} = {statement.kind}", *parts])
    row += ", assumed" if statement.assumed else ""
    return row + (f" {_quoted(statement.note)}" if statement.note else "")


def _quoted(note: str) -> str:
    return f'"{Text(note).text}"'


def _content(text: str, line: int) -> Content:
    plan: Plan = read_plan(text)
    if not 1 <= line <= len(plan.lines):
        raise EditError(f"the plan has no line {line}")
    return plan.lines[line - 1].content


def _statement(text: str, line: int) -> Statement:
    content = _content(text, line)
    if not isinstance(content, Statement):
        raise EditError(f"line {line} is not a statement that can be read; edit the line itself")
    return content


def one_row(text: str) -> str:
    """Keep typed text on one line."""
    return " ".join(text.splitlines())
