"""A solved plan as plain data: points, lines, circles, arcs, outlines, settings, findings."""

from __future__ import annotations

import math
from typing import Any

from ..board.steps import BoardStep
from ..desk import Work
from ..geometry import Arc, Circle, Line, Loop, Point
from ..plan.errors import PlanError


def solution_data(work: Work) -> dict[str, Any]:
    """Return everything that was worked out, as JSON-ready data.

    Returns
    -------
    dict
        Lengths in plan units, angles in degrees counter-clockwise from the right. `outlines` is
        what is lined in, and nothing else; `runs` are the other runs of pieces.
    """
    items = work.solution.figure.items.values()
    things = list(work.solution.figure.things())
    outlines = {name: _loop(loop) for name, _, loop in work.checked.runs}
    return {
        "title": work.solution.title,
        "drawing": work.solution.drawing,
        "units": str(work.solution.unit),
        "scale": str(work.sheet.scale),
        "points": {name: _pair(shape) for name, shape in things if isinstance(shape, Point)},
        "lines": {name: _line(shape) for name, shape in things if isinstance(shape, Line)},
        "circles": {name: _circle(shape) for name, shape in things if isinstance(shape, Circle)},
        "arcs": {name: _arc(shape) for name, shape in things if isinstance(shape, Arc)},
        "parts": {
            f"{i.name}.{key}": _pair(shape)
            for i in items
            for key, shape in i.parts.items()
            if isinstance(shape, Point)
        },
        "outlines": outlines,
        "runs": {
            name: _loop(shape)
            for name, shape in things
            if isinstance(shape, Loop) and name not in outlines
        },
        "ready": [_step(step) for step in work.before],
        "settings": [_step(step) for step in work.steps],
        "finish": [_step(step) for step in work.after],
        "mistakes": [_mistake(error) for error in work.solution.errors],
        "findings": [
            {"weight": f.weight, "rule": f.rule, "message": f.message, "line": f.line}
            for f in work.findings
        ],
    }


def _mistake(error: PlanError) -> dict[str, Any]:
    """Return a mistake with its place: the line from 1, the clause from 0."""
    return {
        "line": error.line,
        "clause": error.clause,
        "message": error.message,
        "suggestion": error.mend,
        "meanings": [way.line for way in error.meant],
        "move": error.moved and {"line": error.moved[0], "to": error.moved[1]},
        "follows_from": error.cause or None,
    }


def _step(step: BoardStep) -> dict[str, Any]:
    setting = step.setting
    return {
        "step": step.number,
        "statement": step.name,
        "instrument": step.tool,
        "text": step.text,
        "actual": setting and setting.actual,
        "drawn": setting and setting.drawn,
        "reading": setting and setting.reading,
        "error": setting and setting.error,
        "as_it_is": bool(setting and setting.kept),
    }


def _pair(point: Point) -> list[float]:
    return [point.x, point.y]


def _line(line: Line) -> dict[str, Any]:
    if line.start is None or line.end is None:
        return {"through": _pair(line.through), "angle": math.degrees(line.direction.angle)}
    return {"start": _pair(line.at(line.start)), "end": _pair(line.at(line.end))}


def _circle(circle: Circle) -> dict[str, Any]:
    return {"centre": _pair(circle.centre), "radius": circle.radius}


def _arc(arc: Arc) -> dict[str, Any]:
    start, end = sorted((arc.start, arc.start + arc.sweep))
    return {
        "centre": _pair(arc.centre),
        "radius": arc.radius,
        "start_angle": math.degrees(start) % 360,
        "end_angle": math.degrees(end) % 360,
        "start": _pair(arc.first),
        "end": _pair(arc.last),
    }


def _loop(loop: Loop) -> dict[str, Any]:
    pieces = []
    for piece in loop.pieces:
        match piece.curve:
            case Arc() as arc:
                pieces.append(
                    {"name": piece.name, "kind": "arc", **_arc(arc), "clockwise": arc.sweep < 0}
                )
            case Circle() as circle:
                pieces.append({"name": piece.name, "kind": "circle", **_circle(circle)})
            case Line():
                pieces.append(
                    {
                        "name": piece.name,
                        "kind": "line",
                        "start": _pair(piece.entry),
                        "end": _pair(piece.exit),
                    }
                )
    return {
        "closed": loop.closed,
        "area": abs(loop.area) if loop.closed else None,
        "length": loop.length,
        "gap": loop.gap,
        "pieces": pieces,
    }
