"""What tests ask of the desk, said once: plans worked out, things by name, outlines as polygons, edits of text."""

from __future__ import annotations

import json
import math
from collections.abc import Callable
from typing import Any

import shapely

from entrick.core.desk import Work, work_out
from entrick.core.geometry import Arc, Circle, Line, Loop, Point
from entrick.core.plan.document import Plan
from entrick.core.plan.reader import read_plan
from entrick.core.plan.writer import write_plan
from entrick.core.rehearsal.exactly import carried_exactly
from entrick.web.answer import Answer
from entrick.web.operation import Sent
from entrick.web.operations import answer

HEAD = "units mm\nsheet A2 landscape, scale 1:1, border 10\nO = datum\n"


def solved(rows: str, head: str = HEAD) -> Work:
    """Work statements out; they must solve without a mistake."""
    done = work_out(head + rows)
    assert not done.solution.errors, done.solution.errors
    return done


def refused(rows: str, head: str = HEAD) -> str:
    """Return the first mistake of statements that must not solve."""
    errors = work_out(head + rows).solution.errors
    assert errors, f"this should have been refused:\n{rows}"
    return errors[0].message


def thing(done: Work, name: str) -> Any:
    """Return what a name refers to: a statement's own thing, or a part of it behind a dot."""
    owner, _, key = name.partition(".")
    item = done.solution.figure.items[owner]
    return item.parts[key] if key else item.shape


def led_to(done: Work) -> None:
    """Check that the acts of a plan, carried out, end in its figure, and that no place of it had to be worked out."""
    carried = carried_exactly(done.solution, done.sheet)
    assert carried.failure == ""
    assert carried.miss <= 10 * carried.allowed, carried.where
    assert not carried.computed


def run_of(done: Work, name: str) -> Loop:
    """Return a run of pieces by its name."""
    found = thing(done, name)
    assert isinstance(found, Loop)
    return found


def _called(done: Work, name: str) -> Any:
    return dict(done.solution.figure.things()).get(name) or thing(done, name)


def point_of(done: Work, name: str) -> Point:
    """Return a point by its name."""
    found = _called(done, name)
    assert isinstance(found, Point), name
    return found


def line_of(done: Work, name: str) -> Line:
    """Return a line by its name."""
    found = _called(done, name)
    assert isinstance(found, Line), name
    return found


def outline(loop: Loop, parts: int = 6, per_turn: int = 0) -> shapely.Polygon:
    """Return an outline as a polygon, every arc as so many chords, or as its share of so many a turn."""
    spots: list[tuple[float, float]] = []
    for piece in loop.pieces:
        match piece.curve:
            case Arc() as arc:
                parts = max(2, round(per_turn * abs(arc.sweep) / math.tau)) if per_turn else parts
                at = [arc.at(arc.start + arc.sweep * k / parts) for k in range(parts)]
            case Circle() as circle:
                parts = per_turn or parts
                at = [circle.at(math.tau * k / parts) for k in range(parts)]
            case _:
                at = [piece.entry]
        spots += [(spot.x, spot.y) for spot in at]
    return shapely.Polygon(spots)


def edited(text: str, change: Callable[..., Plan], *said: Any) -> str:
    """Return a plan's text after an edit of the plan."""
    return write_plan(change(read_plan(text), *said))


def asked(address: str, **body: Any) -> Answer:
    """Have an operation that needs nothing of the register carried out here, as a worker would."""
    return answer(Sent("POST", f"/api/{address}", body=json.dumps(body).encode()), {})
