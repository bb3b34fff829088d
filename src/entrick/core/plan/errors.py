"""What can be wrong with a plan: always with a place, what was expected, and where possible the
mend."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class PlanError:
    """One mistake, ready to show where it stands.

    Attributes
    ----------
    line : int
        Line of the plan, from 1.
    message : str
        What is wrong and what was expected, in the trade's words.
    clause : int or None
        Which clause of the statement, from 0.
    mend : str or None
        The line as it would be understood.
    meant : tuple of Meaning
        Where it may be understood in several ways: each of them.
    """

    line: int
    message: str
    clause: int | None = None
    mend: str | None = None
    meant: tuple[Meaning, ...] = ()


@dataclass(frozen=True, slots=True)
class Meaning:
    """One way to understand a line: the words that make it so, and the line with them."""

    words: str
    line: str


class ClauseError(ValueError):
    """A clause that cannot be used. Raised by forms, expressions and kinds; the solver gives it its
    line.

    Attributes
    ----------
    message : str
    clause : int or None
        Index of the clause at fault, None for the statement as a whole.
    instead : tuple of (str, str) or None
        A word in the line and the word that would mend it.
    meant : tuple of (str, str)
        The same for each of several ways to understand it.
    """

    def __init__(
        self,
        message: str,
        clause: int | None = None,
        instead: tuple[str, str] | None = None,
        meant: Sequence[tuple[str, str]] = (),
    ) -> None:
        super().__init__(message)
        self.message = message
        self.clause = clause
        self.instead = instead
        self.meant = tuple(meant)


class TooMuch(ClauseError):
    """More than the desk works out at once."""
