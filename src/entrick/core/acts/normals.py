"""Curves of which the line square to them can be drawn at any of their places."""

from __future__ import annotations

from abc import abstractmethod

from ..geometry import Line
from ..geometry.true_curve import TrueCurve
from .act import Edge, Mark
from .work import Work


class Normals(TrueCurve):
    """A true curve that knows how its normal is drawn."""

    __slots__ = ()

    @abstractmethod
    def normal(self, work: Work, at: Mark, turn: float, called: str, shown: Line | None) -> Edge:
        """Draw the line square to it at a mark on it, which lies at a parameter."""
