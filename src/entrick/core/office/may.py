"""Who may see and do what: one table, a row for each deed, a column for each role.

Whatever the desk does for somebody is one of these deeds, and nothing is done without asking here
first. That the three roles are those who draw, check and run an office is common practice, no
source; so is that nobody checks a drawing of his own (`signing.py`)."""

from __future__ import annotations

from typing import Literal

Role = Literal["draws", "checks", "runs"]
"""*draws*: own jobs, own hand. *checks*: signs what others drew. *runs* the office: people, class,
the register as a whole."""

ROLES: dict[Role, tuple[str, str]] = {
    "draws": ("draws", "own jobs, own hand"),
    "checks": ("checks", "signs what others drew"),
    "runs": ("runs the office", "people, class, register"),
}
"""What each role is called, and what it does, in a few words."""

Reach = Literal["any", "own", "no"]
"""How far a deed reaches: whatever there is; what is one's own, or everybody's; nothing."""

NOBODY = 0
"""Whoever has not said who works here."""

EVERYBODY = 0
"""Whose a job is that everybody may work at."""

_ROWS: tuple[tuple[str, Reach, Reach, Reach, Reach], ...] = (
    # deed, nobody, draws, checks, runs
    ("see who works here", "any", "any", "any", "any"),
    ("work things out", "no", "any", "any", "any"),
    ("see jobs", "no", "any", "any", "any"),
    ("enter a job", "no", "any", "any", "any"),
    ("save in a job", "no", "own", "any", "any"),
    ("put a job away", "no", "own", "own", "any"),
    ("hand a job over", "no", "own", "own", "any"),
    ("sign a revision", "no", "no", "any", "any"),
    ("see a logbook", "no", "own", "own", "any"),
    ("draw at the board", "no", "own", "own", "own"),
    ("see practice", "no", "own", "own", "any"),
    ("practise", "no", "own", "own", "own"),
    ("see kits", "no", "own", "own", "own"),
    ("keep kits", "no", "own", "own", "own"),
    ("keep a class", "no", "no", "no", "any"),
    ("change a person", "no", "own", "own", "any"),
    ("take a person's things away", "no", "own", "own", "any"),
    ("run the office", "no", "no", "no", "any"),
)

DEEDS: dict[str, dict[Role | Literal["nobody"], Reach]] = {
    deed: {"nobody": nobody, "draws": draws, "checks": checks, "runs": runs}
    for deed, nobody, draws, checks, runs in _ROWS
}
"""For every deed how far it reaches for whom."""


def deeds_of(role: Role | None) -> tuple[str, ...]:
    """Return what somebody may do at all, be it to their own alone."""
    return tuple(deed for deed, row in DEEDS.items() if row[role or "nobody"] != "no")


def may(deed: str, role: Role | None, who: int, whose: int) -> bool:
    """Tell whether somebody may do something.

    Parameters
    ----------
    deed : str
        One of `DEEDS`.
    role : str, optional
        None for nobody.
    who : int
        The number of the person; `NOBODY` for none.
    whose : int
        Whose it is what the deed is done to: a person's number, or `EVERYBODY`.
    """
    reach = DEEDS[deed][role or "nobody"]
    return reach == "any" or (reach == "own" and whose in (who, EVERYBODY) and who != NOBODY)
