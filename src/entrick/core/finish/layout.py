"""From notes to marks: where each dimension, centre line, hatching and label stands."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from ..drawing.marks import DrawnLine, Lettering, Mark
from ..drawing.notes import (
    AngleDimension,
    CentreLine,
    Hatching,
    Label,
    Note,
    RotationArrow,
    RoundDimension,
    ScaleBar,
)
from ..geometry import Point
from .occupied import Occupied, box_of, cuts, stand
from .others import centre_line, hatched, rotation_arrow, scale_bar
from .round import angle, label, round_dimension
from .straight import straight
from .style import Finished, View


def finish(notes: Sequence[tuple[int, Note]], view: View) -> tuple[Finished, ...]:
    """Draw every note.

    Parameters
    ----------
    notes : sequence of (int, Note)
        Each with the line of its statement.
    view : View

    Returns
    -------
    tuple of (int, Mark)
        In mm on paper from the datum.
    """
    if not notes:
        return ()
    chains = [
        mark
        for _, note in notes
        if isinstance(note, CentreLine)
        for mark in centre_line(note, view)
    ]
    straight_ones = [
        (Point(m.x1, m.y1), Point(m.x2, m.y2)) for m in chains if isinstance(m, DrawnLine)
    ]
    view = replace(view, chains=tuple(straight_ones))
    taken = Occupied(view.outlines, view.factor)
    for mark in chains:
        stand(mark, taken)
    drawn: list[Finished] = []
    # What stands where the drafter says comes first, what finds its place after that.
    for line, note in notes:
        if isinstance(note, Label):
            drawn += [(line, mark) for mark in label(note, view, taken)]
    for line, marks in straight(notes, view, taken):
        drawn += [(line, mark) for mark in marks]
    # Angles have little choice of place, leaders much.
    for line, note in notes:
        if isinstance(note, AngleDimension):
            drawn += [(line, mark) for mark in angle(note, view, taken)]
    leaders = [(line, note) for line, note in notes if isinstance(note, RoundDimension)]
    drawn += _leaders(leaders, view, taken)
    for line, note in notes:
        match note:
            case CentreLine():
                drawn += [(line, mark) for mark in centre_line(note, view)]
            case ScaleBar():
                drawn += [(line, mark) for mark in scale_bar(note, view)]
            case RotationArrow():
                drawn += [(line, mark) for mark in rotation_arrow(note, view)]
    # Hatching comes last and is broken round the figures in it, as a drafter letters first and
    # hatches after.
    for line, note in notes:
        if isinstance(note, Hatching):
            drawn += [(line, mark) for mark in hatched(note, view, taken)]
    return tuple(drawn)


MOST_ORDERS = 3
"""Orders in which leaders are placed, until none runs through the figure of one before it."""


def _leaders(
    notes: Sequence[tuple[int, RoundDimension]], view: View, taken: Occupied
) -> list[Finished]:
    """Draw radii and diameters: where a later leader had to run through an earlier figure, that one
    is placed after it."""
    order, stood = list(notes), taken.marked
    for _ in range(MOST_ORDERS):
        taken.back_to(stood)
        marks = [list(round_dimension(note, view, taken)) for _, note in order]
        struck = {
            index
            for index, own in enumerate(marks)
            for later in marks[index + 1 :]
            if any(_runs_through(stroke, figure) for stroke in later for figure in own)
        }
        found = [(line, mark) for (line, _), own in zip(order, marks, strict=True) for mark in own]
        if not struck:
            break
        order = [
            *(each for index, each in enumerate(order) if index not in struck),
            *(each for index, each in enumerate(order) if index in struck),
        ]
    return found if notes else []


def _runs_through(stroke: Mark, figure: Mark) -> bool:
    if not (isinstance(stroke, DrawnLine) and isinstance(figure, Lettering)):
        return False
    return cuts((stroke.x1, stroke.y1, stroke.x2, stroke.y2), box_of(figure))
