"""What a line with a mistake may have been meant as: of all that is proposed, what solves where it
stands, and says every number and name that was written."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field

from ..kind import Undecided
from ..plan.errors import Astray, ClauseError, Meaning, PlanError, UnknownKind, Wanting
from ..plan.suggestions.notation import NOTE, known_words, notations
from .fixes import proposed

MOST_TRIED = 40
"""Lines that are tried in the place of one."""

DEEPEST = 5
"""Mistakes of one line that are mended one after another."""

MOST_OFFERED = 4
"""Meanings that are offered, and not told to be too many."""


@dataclass(frozen=True, slots=True)
class Outcome:
    """What came of a line tried in the place of another: its mistake, and whether it was understood
    before that was found, how it is written, what it makes."""

    error: ClauseError | None = None
    understood: bool = False
    text: str = ""
    made: str = ""

    @property
    def leads_on(self) -> bool:
        """Whether it solves, or wants no more than to be gone on with."""
        return self.error is None or isinstance(self.error, Undecided | Wanting | Astray)


@dataclass(frozen=True)
class Desk:
    """What is known where a line stands.

    Attributes
    ----------
    tried : callable
        Tells what comes of a line in its place.
    named : callable
        Tells whether a given or a thing above has a name.
    kinds : mapping
        The kinds of construction each word of the trade may mean.
    datum : str
        What places are measured from where nothing is said.
    """

    tried: Callable[[str], Outcome]
    named: Callable[[str], bool]
    kinds: Mapping[str, Sequence[str]] = field(default_factory=dict)
    datum: str = "O"


def told(number: int, text: str, error: ClauseError, desk: Desk) -> PlanError:
    """Give a mistake its line, and what the line may have been meant as.

    Parameters
    ----------
    number : int
    text : str
        The line as it stands.
    error : ClauseError
    desk : Desk

    Returns
    -------
    PlanError
    """
    known = known_words(text)
    if known and not desk.tried(text).understood:
        return PlanError(number, known, error.clause)
    found = _found(text, error, desk)
    ways = tuple(Meaning(_words(text, line), line) for line in found.lines[:MOST_OFFERED])
    message = _asked(error, [way.words for way in ways])
    if not ways and found.refused is not None:
        row, refusal = found.refused
        message = f"{_asked(error, [_words(text, row)])} But {refusal.message}"
    cause = error.cause if isinstance(error, Astray) else ""
    if len(ways) == 1:
        return PlanError(number, message, error.clause, ways[0].line, (), cause)
    return PlanError(number, message, error.clause, None, ways, cause)


def _asked(error: ClauseError, words: Sequence[str]) -> str:
    """Return what is told of a mistake with what may have been meant, unless it says so itself."""
    if isinstance(error, UnknownKind):
        kinds = [right for _, right in error.meant]
        words = [*words, *(kind for kind in kinds if not any(w.startswith(kind) for w in words))]
    elif len(words) == 1 and words[0] in error.message and not error.asked:
        return error.message
    if not words:
        return error.message
    asks = f"did you mean {' or '.join(words)}?"
    return f"{error.asked}: {asks}" if error.asked else f"{error.message}; {asks}"


@dataclass
class Found:
    """What a line may be: what solves, and what is nearest to that with what is wrong still: most
    of all what is understood and cannot be, else what mends one mistake of several."""

    lines: list[str] = field(default_factory=list)
    refused: tuple[str, ClauseError] | None = None
    nearer: tuple[str, ClauseError] | None = None

    def fell_short(self, text: str, row: str, error: ClauseError, understood: bool) -> None:
        """Note a row that does not solve in the place of a text, unless one nearer was noted."""
        if understood:
            self.refused = self.refused or (row, error)
        elif _stands(text, row, error):
            self.nearer = self.nearer or (row, error)


def _found(text: str, error: ClauseError, desk: Desk) -> Found:
    """Return what solves: what is known as a way of writing first, else what the mistake proposes,
    and of that what takes fewest mends."""
    known = _mended(text, tuple(notations(text, desk.kinds, desk.datum)), desk)
    if known.lines:
        return known
    guessed = _mended(text, _alone(proposed(error, text)), desk)
    refused = known.refused or guessed.refused or known.nearer or guessed.nearer
    return Found(list(dict.fromkeys(guessed.lines)), refused)


def _alone(rows: Sequence[str]) -> tuple[tuple[str, ...], ...]:
    return tuple((row,) for row in rows)


def _mended(text: str, begun: Sequence[Sequence[str]], desk: Desk) -> Found:
    """Return what becomes of several ways of writing, each with what it may mean, the likeliest
    first: after one mend, else after two of them, and so on."""
    ways, seen = list(begun), {text}
    made: set[str] = set()
    result = Found()
    for _ in range(DEEPEST):
        further: list[Sequence[str]] = []
        for way in ways:
            wanting = ""
            for row in way:
                if row in seen or len(seen) > MOST_TRIED or _loses(text, row, desk):
                    continue
                seen.add(row)
                outcome = desk.tried(row)
                row = outcome.text or row
                if row == text:
                    continue
                if isinstance(outcome.error, Wanting):
                    wanting = wanting or row  # unless a less likely meaning wants nothing
                elif outcome.leads_on:
                    if not (outcome.made and outcome.made in made):
                        result.lines.append(row)
                    made.add(outcome.made)
                    break
                elif outcome.error is not None:
                    result.fell_short(text, row, outcome.error, outcome.understood)
                    known = tuple(notations(row, desk.kinds, desk.datum))
                    further += known or _alone(proposed(outcome.error, row))
            else:
                result.lines += [wanting] if wanting else []
        if result.lines:
            return result
        ways = further
    return result


def _stands(text: str, row: str, error: ClauseError) -> bool:
    """Tell whether what is wrong with a mended line stood in it before, word for word: another
    mistake, which is told when its turn comes."""
    clauses = _clauses(row)
    at = error.clause
    return at is not None and at < len(clauses) and clauses[at] in _clauses(text)


DIGITS = re.compile(r"\d")
ABBREVIATED = re.compile(r"\"[^\"]*\"|\b(?:c/c|A/F|A/C|o/a)\b")
SHORT = {"d": "diameter", "D": "diameter", "r": "radius", "R": "radius", "m": "module"}
"""Names that may be signs, and of what."""

NAMED = re.compile(r"[^\W\d]\w*")


def _loses(text: str, row: str, desk: Desk) -> bool:
    """Tell whether a line says less than another: a figure of it is gone, or the name of something.
    A nought may be the letter O."""
    lost = Counter(DIGITS.findall(text)) - Counter(DIGITS.findall(row))
    if lost and set(lost) == {"0"}:
        lost -= Counter("0" * (_letters(row) - _letters(text)))
    said = _names(row)
    gone = {name for name in _names(text) if desk.named(name)} - said
    return bool(lost) or any(SHORT.get(name) not in said for name in gone)


def _names(text: str) -> set[str]:
    """Return the words of what a line says, but for what stands in quotes."""
    return set(NAMED.findall(ABBREVIATED.sub("", text.partition("=")[2])))


def _letters(text: str) -> int:
    return NAMED.findall(text).count("O")


def _clauses(text: str) -> list[str]:
    head, _, rest = text.partition("=")
    return [each.strip() for each in rest.split(", ")][1:] if rest else [head]


def _words(text: str, line: str) -> str:
    """Return what a line says otherwise: the clauses in which it differs."""
    noted = NOTE.search(text)
    if noted and "," in noted[0] and line.endswith(noted[0]):  # it parts no clauses
        text, line = (row.removesuffix(noted[0]) for row in (text, line))
    before, after = (HEAD.sub(r"\1,", row, count=1).split(",") for row in (text, line))
    before, after = ([each.strip() for each in row] for row in (before, after))
    if before[0] != after[0]:
        return line
    changed = [each for each in after if each not in before]
    is_kind = "=" in text and len(changed) > 1 and changed[0] == after[1]
    return ", ".join(after[1:] if is_kind or not changed else changed)


HEAD = re.compile(r"^(\w+ =|sheet)")
"""What a line begins with before its clauses."""
