"""A page for each kind of construction, made from its declaration."""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial

from ...assist.methods import methods
from ...board.steps import BoardStep
from ...desk import work_out
from ...kind import Kind
from ...kind.declared import GROUPS
from ...moves import kinds
from ...plan.forms import Form
from ..page import Chapter, Page, listed, sections, table, worked

MOST_STEPS = 16
"""Steps of an example that are listed; what comes after goes on alike."""


def _pages() -> Sequence[Page]:
    declared = sorted(kinds().values(), key=lambda kind: GROUPS.index(kind.group))
    return [_page(kind) for kind in declared]


def _page(kind: Kind) -> Page:
    also = f"Elsewhere it is called {', '.join(kind.also)}." if kind.also else ""
    text = "\n\n".join(
        (
            kind.about.strip(),
            sections(
                ("Clauses", _clauses(kind.forms)),
                ("A statement of it", f"`{kind.example}`"),
                ("A plan that shows it", worked(kind.shown)),
                ("Usual mistake", kind.mistake),
                ("Other names", also),
            ),
        )
    )
    return Page(
        key=kind.name,
        title=kind.name,
        summary=kind.summary,
        text=text,
        also=kind.also,
        group=kind.group,
        plan=kind.shown,
        more=partial(_worked_out, kind),
    )


def _clauses(forms: Sequence[Form]) -> str:
    rows = []
    chooses = [f"`{form.example}`" for form in forms if form.choice]
    for form in forms:
        if form.choice:
            continue
        takes = "; ".join(dict.fromkeys(slot.expectation for slot in form.slots))
        said = [
            "must be said" if form.needed else "",
            f"up to {form.most} times" if form.most > 1 else "",
        ]
        rows.append((f"`{form.example}`", takes, ", ".join(filter(None, said))))
    words = f"\n\nWhere several fit, these choose: {', '.join(chooses)}." if chooses else ""
    return table(("clause", "takes", ""), rows) + words


def _worked_out(kind: Kind) -> str:
    """Return what its example comes to: working, steps at the board, and other methods."""
    done = work_out(kind.shown)
    entry = next(
        (each for each in done.solution.entries if each.statement.kind == kind.name and each.made),
        None,
    )
    if entry is None or entry.made is None:
        return ""
    steps = [step for step in done.steps if step.line == entry.line]
    others = [way for way in methods(done, entry.line) if not way.chosen]
    return sections(
        ("Worked", listed((entry.made.sentence, *entry.made.working))),
        ("Drawn at the board", _words(steps)),
        *((f"Drawn {way.said}", _words(way.steps)) for way in others),
    )


def _words(steps: Sequence[BoardStep]) -> str:
    rows = [
        f"{step.tool}{f', **{step.setting.reading}**' if step.setting else ''}: {step.text}"
        for step in steps[:MOST_STEPS]
    ]
    left = len(steps) - len(rows)
    return listed(rows, numbered=True) + (f"\n\nand {left} steps more." if left > 0 else "")


CHAPTER = Chapter("constructions", "Constructions", _pages)
