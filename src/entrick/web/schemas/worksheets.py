"""Worksheets of cams and gears."""

from __future__ import annotations

from typing import Literal

from pydantic import ConfigDict, Field

from ...core.drawing.marks import DisplayList
from .crossing import Asked, Crossing, PlanText, Whole


class WorksheetIn(Asked):
    """A statement, by its line, whose worksheet is wanted, turned through an angle in degrees."""

    text: PlanText
    line: Whole
    turn: float = Field(default=0.0, ge=-3600, le=3600)


class TableOut(Crossing):
    """A table of a worksheet, in words."""

    model_config = ConfigDict(from_attributes=True)

    title: str
    columns: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    note: str


class WorksheetOut(Crossing):
    """A worksheet: its drawing, its tables, what turning does and what is so at this moment."""

    title: str
    display: DisplayList
    tables: tuple[TableOut, ...]
    turns: str
    told: str
    caution: str


class WorksheetPath(Asked):
    """A file of a worksheet: its drawing or one of its tables as PDF or SVG, a table as CSV."""

    format: Literal["pdf", "svg", "csv"]


class WorksheetFileIn(WorksheetIn):
    """Which worksheet, and which of its tables where one is wanted instead of the drawing."""

    table: int | None = Field(default=None, ge=0, le=100)
