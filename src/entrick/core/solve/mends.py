"""An error's line, and the whole line that mends it."""

from __future__ import annotations

from difflib import get_close_matches

from ..moves import kinds
from ..plan.errors import ClauseError, PlanError


def placed(error: ClauseError, number: int, text: str) -> PlanError:
    """Give an error its line, and its mend as a whole line where the mend is a word for a word."""
    mend = None
    if error.instead:
        wrong, right = error.instead
        head, clauses = _split(text)
        if ", " in wrong:
            clauses = [text.partition("=")[2].replace(wrong, right, 1)]
        elif error.clause is not None and error.clause + 1 < len(clauses):
            clauses[error.clause + 1] = _swap(clauses[error.clause + 1], wrong, right)
        else:
            clauses = [_swap(clause, wrong, right) for clause in clauses]
        mend = head + ", ".join(clauses)
    return PlanError(number, error.message, error.clause, mend if mend != text else None)


def _split(text: str) -> tuple[str, list[str]]:
    head, equals, rest = text.partition("=")
    return (head + equals, rest.split(", ")) if equals else ("", [text])


def _swap(text: str, wrong: str, right: str) -> str:
    words = text.split(" ")
    if wrong in words:
        words[words.index(wrong)] = right
        return " ".join(words)
    return text.replace(wrong, right, 1)


def unknown_kind(name: str) -> ClauseError:
    run_on = next((kind for kind in kinds() if name.startswith(f"{kind} ")), None)
    if run_on:
        return ClauseError(
            f"a comma parts {run_on} from its clauses", None, (name, name.replace(run_on, f"{run_on},", 1))
        )
    close = get_close_matches(name, list(kinds()), 1, 0.5)
    hint = f"; did you mean {close[0]}?" if close else f"; there are {', '.join(kinds())}"
    return ClauseError(
        f"there is no kind of construction called {name}{hint}", None, (name, close[0]) if close else None
    )
