"""A straightened picture of a sheet: how dark it is, millimetre by millimetre."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
from scipy.ndimage import map_coordinates  # type: ignore[import-untyped]

from ..drawing.marks import DrawnLine
from ..rehearsal.many import Places, Reals
from ..sheet import Sheet

Ink = npt.NDArray[np.float32]


@dataclass(frozen=True)
class Frame:
    """What is known of a sheet before it is looked at, mm from its lower left corner.

    Attributes
    ----------
    width, height : float
    left, low, right, high : float
        Of the border.
    strip : tuple of (x1, y1, x2, y2)
        The long lines of the title strip.
    """

    width: float
    height: float
    left: float
    low: float
    right: float
    high: float
    strip: tuple[tuple[float, float, float, float], ...]

    @property
    def corners(self) -> tuple[tuple[float, float], ...]:
        """Corners of the border, clockwise as seen from the upper left one."""
        return (
            (self.left, self.high),
            (self.right, self.high),
            (self.right, self.low),
            (self.left, self.low),
        )

    @property
    def border(self) -> tuple[Places, ...]:
        """Places along the sides of the border, clear of its corners."""
        share = np.linspace(0.03, 0.97, ALONG_A_SIDE)
        corners = np.array([complex(*corner) for corner in self.corners], complex)
        ahead = np.roll(corners, -1) - corners
        sides: Places = corners[:, None] + ahead[:, None] * share
        return tuple(sides)


ALONG_A_SIDE = 100
"""Places along a side of the border at which it is looked how dark it is."""


def frame_of(sheet: Sheet, ground: tuple[object, ...]) -> Frame | None:
    """Return the frame of a sheet; None where it has no border to measure by.

    Parameters
    ----------
    sheet : Sheet
    ground : tuple of Mark
        What is drawn on it before the figure.
    """
    if sheet.border <= 0:
        return None
    right, high = sheet.width - sheet.border, sheet.height - sheet.border
    wide = right - sheet.left
    lines = [mark for mark in ground if isinstance(mark, DrawnLine) and mark.role == "strip"]
    strip = tuple((m.x1, m.y1, m.x2, m.y2) for m in lines if abs(m.x2 - m.x1) > wide / 2)
    return Frame(sheet.width, sheet.height, sheet.left, sheet.border, right, high, strip)


@dataclass(frozen=True)
class Straight:
    """A straightened picture.

    Attributes
    ----------
    ink : array of float32
        0 paper, 1 black; rows from the top of the sheet.
    per_mm : float
        Pixels a millimetre.
    frame : Frame
    bend : float
        How much the lens bent.
    off : float
        How far the border is from straight once that is taken out, mm.
    pixels : float
        Pixels a millimetre in the picture as it came.
    """

    ink: Ink
    per_mm: float
    frame: Frame
    bend: float = 0.0
    off: float = 0.0
    pixels: float = 10.0

    def at(self, places: Places) -> Reals:
        """Return how dark places are, mm from the lower left corner of the sheet."""
        column = places.real * self.per_mm - 0.5
        row = (self.frame.height - places.imag) * self.per_mm - 0.5
        found = map_coordinates(self.ink, [row, column], order=1, mode="constant")
        return np.asarray(found, float)

    def is_inside(self, places: Places, room: float = 0.0) -> npt.NDArray[np.bool_]:
        """Tell which places lie inside the border, and so far from it."""
        frame = self.frame
        result: npt.NDArray[np.bool_] = (
            (places.real > frame.left + room)
            & (places.real < frame.right - room)
            & (places.imag > frame.low + room)
            & (places.imag < frame.high - room)
        )
        return result


LEAST = 0.12
"""How dark, softened, a stroke is at least."""
