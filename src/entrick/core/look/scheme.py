"""Marks for a finished sheet, by a scheme the teacher sets. What is right given a slip counts: one
slip costs its own piece half, and nothing that merely stands on it."""

from __future__ import annotations

from dataclasses import dataclass, fields

from .finding import Finding, Row


@dataclass(frozen=True, slots=True)
class Scheme:
    """How many marks there are for what (common practice, no source).

    Attributes
    ----------
    accuracy : float
        Every piece where it should be, and as large.
    tangency : float
        Pieces meet, and blends touch.
    weight : float
        Outlines are dark, and all alike.
    completeness : float
        Everything is there, and nothing too much.
    centring : float
        The view stands where it should on the sheet.
    """

    accuracy: float = 10.0
    tangency: float = 4.0
    weight: float = 2.0
    completeness: float = 3.0
    centring: float = 1.0

    @property
    def whole(self) -> float:
        """All the marks there are."""
        return float(sum(getattr(self, part.name) for part in fields(self)))


@dataclass(frozen=True, slots=True)
class Marked:
    """Marks of one sheet, part by part."""

    accuracy: float
    tangency: float
    weight: float
    completeness: float
    centring: float

    @property
    def whole(self) -> float:
        """All marks together, to a half."""
        total = sum(getattr(self, part.name) for part in fields(self))
        return float(round(total * 2) / 2)


CENTRED, ASIDE = 1.0, 5.0
"""How far a view may stand from its place, mm, for all the marks there are for it, and for none."""

FAINT = 0.65
"""Share of how dark the outlines are under which one is not as the others."""


def marked(finding: Finding, scheme: Scheme) -> Marked:
    """Give marks.

    Parameters
    ----------
    finding : Finding
    scheme : Scheme
    """
    rows = finding.rows
    there = [row for row in rows if row.judged != "missing"]
    closed = [join for join in finding.joins if join.is_closed]
    touching = len(closed) / len(finding.joins) if finding.joins else 1.0
    darks = sorted(row.dark for row in there)
    middle = darks[len(darks) // 2] if darks else 0.0
    alike = [row for row in there if row.dark >= FAINT * middle]
    whole = [row for row in there if row.seen > WHOLE]
    away = abs(complex(*finding.shift))
    aside = min(max((away - CENTRED) / (ASIDE - CENTRED), 0.0), 1.0)
    slipped = {slip.name for slip in (*finding.slips[:1], *finding.second[:1])}
    right = sum(_share(row, slipped) for row in there)
    too_much = len(finding.extra)
    return Marked(
        scheme.accuracy * right / max(len(rows), 1),
        # What is not there touches nothing.
        scheme.tangency * touching * len(there) / max(len(rows), 1),
        scheme.weight * len(alike) / max(len(rows), 1),
        scheme.completeness * len(whole) / max(len(rows) + too_much, 1),
        scheme.centring * (1.0 - aside),
    )


WHOLE = 0.93
"""Share of a piece that has to be drawn for it to be whole."""


def _share(row: Row, slipped: set[str]) -> float:
    if row.judged != "off":
        return 1.0
    if not row.carried:
        return 0.0
    return 0.5 if row.name.partition(".")[0] in slipped else 1.0
