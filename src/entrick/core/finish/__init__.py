"""Finishing: dimensions, centre lines, hatching, labels, drawn at their size on paper whatever the
scale.

Everything here is in mm on paper from the datum, so that the room it takes is known before the view
is placed."""

from .layout import finish
from .style import Finished, View

__all__ = ["Finished", "View", "finish"]
