"""Paper, border, title strip, scale, and where the view stands."""

from ..drawing.widths import WIDTHS, LineKind
from .layout import Sheet, lay_out, margin

__all__ = ["WIDTHS", "LineKind", "Sheet", "lay_out", "margin"]
