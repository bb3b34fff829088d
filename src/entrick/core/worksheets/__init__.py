"""Worksheets: the diagram and the tables of a construction that needs more room than a card."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ..drawing.notes import Note
from ..drawing.strokes import Stroke
from ..geometry import Point


@dataclass(frozen=True, slots=True)
class Column:
    """A column of a table.

    A setting is told at the scale of the sheet, with its reading on the rule beside it; what is
    told on paper, in millimetres at that scale."""

    name: str
    kind: Literal["text", "angle", "length", "number", "setting", "paper"] = "text"


@dataclass(frozen=True, slots=True)
class Table:
    """A table: lengths in plan units, angles in degrees; words may stand in any cell."""

    title: str
    columns: tuple[Column, ...]
    rows: tuple[tuple[str | float, ...], ...]
    note: str = ""


@dataclass(frozen=True, slots=True)
class Worksheet:
    """A worksheet at one moment of turning.

    Attributes
    ----------
    title : str
    tables : tuple of Table
    strokes : tuple of Stroke
        What is drawn, plan units at full size.
    notes : tuple of Note
        What is lettered and hatched.
    box : two Points
        Lower left and upper right of all of it, the same at every moment.
    turns : str
        What turning does, for the slider; empty where nothing turns.
    told : str
        What is so at this moment.
    caution : str
    """

    title: str
    tables: tuple[Table, ...]
    strokes: tuple[Stroke, ...]
    notes: tuple[Note, ...]
    box: tuple[Point, Point]
    turns: str = ""
    told: str = ""
    caution: str = ""


@dataclass(frozen=True, slots=True)
class Remark:
    """Something wrong, or worth a look, with what a statement makes: for the proof."""

    weight: Literal["wrong", "look", "note", "good"]
    message: str
    place: Point | None = None
