"""Paper, border, title strip, scale, and where the view stands."""

from .layout import Sheet, lay_out, margin
from .widths import WIDTHS, LineKind

__all__ = ["WIDTHS", "LineKind", "Sheet", "lay_out", "margin"]
