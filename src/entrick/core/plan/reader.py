"""From text to the model, line by line, so that one faulty line leaves the others alone."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from functools import cache, lru_cache
from importlib import resources

from lark import Lark, Token, Transformer, UnexpectedInput, v_args
from lark.exceptions import UnexpectedCharacters, UnexpectedEOF, UnexpectedToken, VisitError

from .document import (
    LONGEST_LINE,
    MOST_CHARACTERS,
    MOST_LINES,
    MOST_STATEMENTS,
    Chain,
    Clause,
    Content,
    DrawingNumber,
    Given,
    Line,
    Plan,
    PlanTooLarge,
    SheetLine,
    Statement,
    Title,
    Units,
    Unread,
)
from .errors import PlanError
from .fixes import TOLERANCE, fixed
from .terms import (
    DEEPEST,
    Arrow,
    Binary,
    Bracket,
    Call,
    Expression,
    Name,
    Negative,
    Num,
    Ratio,
    Term,
    Text,
    depth,
)
from .writer import write_line

UNPRINTABLE = re.compile(
    "[\x00-\x08\x0a-\x1f\x7f-\x9f\u2028\u2029\ud800-\udfff\ufdd0-\ufdef\ufffe\uffff]"
)
"""Control characters and the like: no file format takes them, and nobody sees where they are."""

MOST_GROWTH = 3
"""Canonical spacing makes a text at most this many times as long: > becomes a space, > and a
space."""

_SIGNS = {"×": "*", "·": "*", "÷": "/", "−": "-"}


@dataclass(frozen=True, slots=True)
class _Overall:
    value: Expression


@v_args(inline=True)
class _ToModel(Transformer[Token, Line]):
    """Turns the tree of one line into the model."""

    def start(self, *parts: object) -> Line:
        comment = next((str(p) for p in parts if isinstance(p, Token) and p.type == "COMMENT"), "")
        content = next((p for p in parts if not isinstance(p, Token)), None)
        return Line(content, comment)  # type: ignore[arg-type]

    def plan_line(self, text: Token) -> Title:
        return Title(text[1:-1])

    def drawing_line(self, text: Token) -> DrawingNumber:
        return DrawingNumber(text.strip())

    def units_line(self, text: Token) -> Units:
        return Units(str(text))

    def sheet_line(self, *clauses: Clause) -> SheetLine:
        return SheetLine(clauses)

    def given_line(self, name: Token, *rest: object) -> Given:
        parts = list(rest)
        count = int(str(parts.pop(0))[:-1]) if _is(parts[0], "COUNT") else 0
        mark = str(parts.pop(0)).replace("⌀", "Ø") if _is(parts[0], "MARK") else ""
        value = parts.pop(0)
        assumed = any(_is(part, "ASSUMED") for part in parts)
        note = next((str(part)[1:-1] for part in parts if _is(part, "STRING")), "")
        return Given(str(name), value, mark, assumed, note, count)  # type: ignore[arg-type]

    def chain_line(self, name: Token, *rest: object) -> Chain:
        links = tuple(part[0] for part in rest if isinstance(part, tuple))
        overall = next((part.value for part in rest if isinstance(part, _Overall)), None)
        assumed = any(_is(part, "ASSUMED") for part in rest)
        note = next((str(part)[1:-1] for part in rest if _is(part, "STRING")), "")
        return Chain(str(name), links, overall, assumed, note)

    def link(self, item: Expression | Token) -> tuple[Expression | None]:
        return (None,) if isinstance(item, Token) else (item,)

    def overall(self, item: Expression) -> _Overall:
        return _Overall(item)

    def statement(self, name: Token, kind: str, *parts: Clause | Token) -> Statement:
        kept, assumed = [part for part in parts if isinstance(part, Clause)], False
        note = next((str(part)[1:-1] for part in parts if isinstance(part, Token)), "")
        for _ in range(2):
            if kept and not note and isinstance(kept[-1].items[-1], Text):
                note = kept[-1].items[-1].text
                kept[-1] = Clause(kept[-1].items[:-1])
            if kept and kept[-1].items == (Name("assumed"),):
                assumed = True
                kept.pop()
        return Statement(str(name), kind, tuple(c for c in kept if c.items), assumed, note)

    def kind(self, *words: Token) -> str:
        return " ".join(words)

    def clause(self, *items: Term) -> Clause:
        return Clause(items)

    def number(self, text: Token) -> Num:
        return Num(re.sub(r"\s+", " ", text))

    def name(self, text: Token) -> Name:
        return Name(str(text))

    def string(self, text: Token) -> Text:
        return Text(text[1:-1])

    def ratio(self, text: Token) -> Ratio:
        return Ratio(re.sub(r"\s", "", text))

    def arrow(self, _: Token) -> Arrow:
        return Arrow()

    def bracket(self, inner: Term) -> Bracket:
        return Bracket(inner)  # type: ignore[arg-type]

    def negative(self, _: Token, inner: Term) -> Negative:
        return Negative(inner)  # type: ignore[arg-type]

    def call(self, function: Token, inner: Term) -> Call:
        return Call(str(function), inner)  # type: ignore[arg-type]

    def binary(self, left: Term, sign: Token, right: Term) -> Binary:
        return Binary(left, _SIGNS.get(str(sign), str(sign)), right)  # type: ignore[arg-type]


def _is(part: object, kind: str) -> bool:
    return isinstance(part, Token) and part.type == kind


@cache
def _parser() -> Lark:
    """Return the parser of a line; it is made when the first one is read, since the web process
    reads none."""
    return Lark(
        resources.files(__package__).joinpath("grammar.lark").read_text("utf-8"),
        parser="lalr",
        transformer=_ToModel(),
        maybe_placeholders=False,
    )


_EXPECTED = {
    "EQUAL": "=",
    "NAME": "a name",
    "NUMBER": "a number",
    "STRING": "text in quotes",
    "COMMA": "a comma",
    "DRAWING_NUMBER": "a drawing number",
    "RPAR": "a closing bracket",
}


def read_plan(text: str) -> Plan:
    """Read a whole plan.

    Parameters
    ----------
    text : str
        Any line ends; a line that cannot be read becomes `Unread` and keeps its text.

    Returns
    -------
    Plan

    Raises
    ------
    PlanTooLarge
        When the text is larger than a plan may be.
    """
    if len(text) > MOST_CHARACTERS:
        raise PlanTooLarge(
            f"a plan holds at most {MOST_CHARACTERS} characters; this one has {len(text)}"
        )
    rows = text.replace("\r\n", "\n").replace("\r", "\n").removeprefix("\ufeff").split("\n")
    while rows and not rows[-1].strip():
        rows.pop()
    if len(rows) > MOST_LINES:
        raise PlanTooLarge(f"a plan holds at most {MOST_LINES} lines; this one has {len(rows)}")
    lines = tuple(_at(read_line(row), number) for number, row in enumerate(rows, 1))
    may_grow = len(text) > MOST_CHARACTERS // MOST_GROWTH
    if may_grow and sum(_written(row) + 1 for row in rows) > MOST_CHARACTERS:
        lines = tuple(
            replace(line, typed=row.rstrip()) for line, row in zip(lines, rows, strict=True)
        )
    if sum(isinstance(line.content, Statement) for line in lines) > MOST_STATEMENTS:
        raise PlanTooLarge(f"a plan holds at most {MOST_STATEMENTS} statements")
    return Plan(lines)


def _at(line: Line, number: int) -> Line:
    match line.content:
        case Unread(text, error):
            return replace(
                line,
                content=Unread(text, PlanError(number, error.message, error.clause, error.mend)),
            )
    return line


@lru_cache(maxsize=4096)
def _written(row: str) -> int:
    """Return how many characters a line has once it is tidied."""
    return len(write_line(read_line(row)))


@lru_cache(maxsize=4096)
def read_line(text: str) -> Line:
    """Read one line; an unreadable one comes back as `Unread`, with line number 0."""
    text = text.rstrip()
    try:
        unprintable = UNPRINTABLE.search(text)
        if unprintable:
            words = (
                "a character that cannot be printed stands here (number "
                f"{ord(unprintable.group())}); take it out"
            )
            return _unread(
                text, words, _clause_at(text, unprintable.start()), UNPRINTABLE.sub("", text)
            )
        if len(text) > LONGEST_LINE:
            return _unread(text, f"a line holds at most {LONGEST_LINE} characters")
        if re.match(r"\s*(#|$)", text):
            return Line(None, text.strip())
        if off := TOLERANCE.match(text):
            words = "a given has one size: what it may be off by goes into its note"
            return _unread(text, words, None, f'{off[1]} "{off[2]}"')
        if text.count("(") > DEEPEST and _brackets(text) > DEEPEST:
            return _unread(text, f"brackets are nested deeper than {DEEPEST}")
        line: Line = _parser().parse(text)  # type: ignore[assignment]
    except UnexpectedInput as error:
        return _explain(text, error)
    except (VisitError, RecursionError):
        return _unread(text, "this line is too involved to read; split it")
    if _too_deep(line.content):
        return _unread(
            text, f"an expression here is nested deeper than {DEEPEST}; split it into givens"
        )
    if len(text) * MOST_GROWTH <= LONGEST_LINE or len(write_line(line)) <= LONGEST_LINE:
        return line
    return replace(line, typed=text)


def _brackets(text: str) -> int:
    deepest = level = 0
    for character in text:
        level += {"(": 1, ")": -1}.get(character, 0)
        deepest = max(deepest, level)
    return deepest


def _too_deep(content: Content) -> bool:
    match content:
        case Given(value=value):
            return depth(value) > DEEPEST
        case Chain(links=links, overall=overall):
            return any(depth(item) > DEEPEST for item in (*links, overall) if item is not None)
        case Statement(clauses=clauses):
            return any(depth(item) > DEEPEST for clause in clauses for item in clause.items)
    return False


def _unread(text: str, message: str, clause: int | None = None, mend: str | None = None) -> Line:
    return Line(Unread(text, PlanError(0, message, clause, mend)))


def _explain(text: str, error: UnexpectedInput) -> Line:
    column = (getattr(error, "column", None) or len(text) + 1) - 1
    if (
        isinstance(error, UnexpectedEOF)
        or column < 0
        or (_is(getattr(error, "token", None), "$END"))
    ):
        column = len(text)
    before, found = text[:column], text[column:].split(" ")[0].split(",")[0]
    clause = _clause_at(text, column)
    if before.count('"') % 2 == 1 or (found.startswith('"') and text.count('"') % 2):
        return _unread(text, "a closing quote is missing", clause, text + '"')
    known = fixed(text, _reads)
    if known is not None:
        told, row = known
        return _unread(text, told, clause, row)
    if not re.match(r"\s*(plan|drawing|units|sheet|given|chain)\b", text) and "=" not in text:
        return _unread(
            text, "a statement starts with a name and =, such as  A = point, 20 right of O", clause
        )
    if re.search(r"\d\s*/\s*$", before + found):
        return _unread(
            text,
            f"{found or before.split()[-1]} wants a number below the line, as in 4 1/4",
            clause,
        )
    mend = f"{before.rstrip()} - {text[column + 1 :].lstrip()}"
    if found.startswith(("-", "−")) and mend != text:
        return _unread(text, f"expected a space after the minus before {found[1:]}", clause, mend)
    if found[:1] in ("=", ":") and "=" in before:
        mend = f"{before.rstrip()} {text[column + 1 :].lstrip()}"
        return _unread(
            text, f"a value stands right behind its word, without the {found[0]}", clause, mend
        )
    if found.startswith("⌀"):
        return _unread(
            text, "a clause says diameter as a word", clause, text.replace("⌀", "diameter ")
        )
    if found.startswith(".") and re.search(r"[a-z]$", before):
        mend = f"{before} {text[column + 1 :].lstrip()}".rstrip()
        return _unread(text, "a word that is cut short has no full stop", clause, mend)
    wanted = sorted(_EXPECTED[name] for name in _accepted(error) if name in _EXPECTED)
    expected = f"expected {' or '.join(wanted)}" if wanted else "the line should end"
    place = f"before {found}" if found else "at the end"
    after = f" after {before.split()[-1]}" if before.split() else ""
    return _unread(
        text,
        f"{expected}{after}" if not found else f"{found} does not belong here: {expected} {place}",
        clause,
    )


def _reads(text: str) -> bool:
    try:
        _parser().parse(text)
    except (UnexpectedInput, VisitError, RecursionError):
        return False
    return True


def _accepted(error: UnexpectedInput) -> set[str]:
    if isinstance(error, UnexpectedToken):
        return set(error.accepts or error.expected)
    if isinstance(error, UnexpectedCharacters):
        return set(error.allowed or ())
    return set()


def _clause_at(text: str, column: int) -> int | None:
    """Count which clause of the statement a column lies in: 0 is the first after the kind."""
    commas = re.sub(r'"[^"]*"', lambda m: "_" * len(m.group()), text)[:column].count(",")
    return commas - 1 if commas else None
