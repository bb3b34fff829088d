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
    cause : str
        What it only follows from: the name of something above that has a mistake of its own.
    moved : tuple of int or None
        What is defined too far down: the line that would have to stand elsewhere, and where.
    """

    line: int
    message: str
    clause: int | None = None
    mend: str | None = None
    meant: tuple[Meaning, ...] = ()
    cause: str = ""
    moved: tuple[int, int] | None = None


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
    asked : str
        The words at fault, where what they may mean says all that is to be said.
    """

    def __init__(
        self,
        message: str,
        clause: int | None = None,
        instead: tuple[str, str] | None = None,
        meant: Sequence[tuple[str, str]] = (),
        asked: str = "",
    ) -> None:
        super().__init__(message)
        self.message = message
        self.clause = clause
        self.instead = instead
        self.meant = tuple(meant)
        self.asked = asked


class Wanting(ClauseError):
    """What is said is understood, and is not enough."""


class Astray(ClauseError):
    """A mistake that is none of this line: what it names has one of its own."""

    def __init__(self, cause: str) -> None:
        super().__init__(f"{cause} above has a mistake of its own; mend that first")
        self.cause = cause


class Unknown(ClauseError):
    """A name that nothing above has."""

    def __init__(self, message: str, name: str, meant: Sequence[tuple[str, str]] = ()) -> None:
        super().__init__(message, None, None, meant)
        self.name = name


class UnknownKind(ClauseError):
    """A word that is no kind of construction, with those that may be meant."""


class TooMuch(ClauseError):
    """More than the desk works out at once."""
