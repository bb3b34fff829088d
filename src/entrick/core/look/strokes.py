"""The strokes of a straightened picture, before anything is known of what they are: heavy ones and
fine ones, and where their middle is."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt
from scipy.ndimage import (  # type: ignore[import-untyped]
    distance_transform_edt,
    maximum_filter,
    uniform_filter,
)
from scipy.sparse import csr_array  # type: ignore[import-untyped]

from ..rehearsal.many import Places, Reals
from .straight import LEAST, Ink, Straight

COARSE = 4.0
"""Pixels a millimetre in which strokes are looked for."""

SOFT = 0.3
"""By how much what is looked for is softened, mm: a thin line is less dark than a heavy one."""

FADES = 4
"""How many times as far about each place it is softened over."""

FINE = 0.3
"""Share of how dark an outline is from which something is a line at all."""

HEAVY = (0.62, 0.8)
"""Shares of it between which fine lines end and heavy ones begin: where that is the sheet tells."""

NARROW, MOST, AT_LEAST = 1.1, 75, 0.75
"""How narrow a stroke by itself is at least, as a share of the border; which of them is told to be
as dark as they are, in a hundred: fine lines and what has worn off are lighter; and how dark it is
at least, as a share of what lies where outlines are expected: a border may be drawn finer."""

ABOUT = 1.5
"""How far from where it is expected an outline may be, mm."""

LINED = 0.42
"""Share of how dark the border is from which a line is lined in: a hard pencil beside a printed
border makes half of it, construction a third (tried; common practice, no source)."""

HEAVIER, AS_THE_BORDER = 1.15, 0.7
"""How many times as dark as dimensions and centre lines an outline is at least, where they are
drawn; and the share of the border from which it is one even where they are as heavy."""

AS_HEAVY, THE_SAME = 0.92, 0.75
"""How many times as dark as they are the outlines of a sheet are as a whole that is drawn with one
pencil, whatever its border: construction makes at most 0.85; and the share of such outlines from
which one is lined in."""

EDGE = 2.0
"""What lies so near to border and strip is no part of the figure, mm."""

ALONGSIDE = 1.5
"""How far about a place it is looked which way a stroke runs, mm."""

ASKEW = math.radians(25)
"""By how much the way of a stroke may be off another that it runs along."""

LEVEL = 0.001
"""What is less dark than its neighbours by no more is level."""


@dataclass(frozen=True)
class SeenStrokes:
    """The heavy strokes of a straightened picture, from the datum.

    Parameters
    ----------
    straight : Straight
    origin : complex
        Where the datum stands, mm from the lower left corner.
    along : array of complex
        Places, mm from the datum, at many of which an outline may be expected: they tell how dark
        one is.
    fine : array of complex
        Places on dimensions and centre lines, should they be drawn: no outline is as light.
    """

    straight: Straight
    origin: complex
    along: Places
    fine: Places

    @cached_property
    def _soft(self) -> Ink:
        """The picture, coarse and soft."""
        ink, per_mm, frame = self.straight.ink, self.straight.per_mm, self.straight.frame
        rows = (np.arange(round(frame.height * COARSE)) + 0.5) / COARSE * per_mm - 0.5
        columns = (np.arange(round(frame.width * COARSE)) + 0.5) / COARSE * per_mm - 0.5
        across = _softened(ink, rows, SOFT * per_mm)
        return np.ascontiguousarray(_softened(across.T, columns, SOFT * per_mm).T)

    @cached_property
    def _near(self) -> Ink:
        """The darkest there is about each place."""
        result: Ink = maximum_filter(self._soft, round(2 * ABOUT * COARSE) + 1)
        return result

    @cached_property
    def lightest(self) -> float:
        """How dark something that is lined in is at least, as a share of the border: less than
        usual where finer lines by the same pencil are as light, as beside a printed border."""
        fine = self._looked_up(self._near, self.fine)
        drawn = fine[fine > LEAST]
        if not len(drawn):
            return LINED
        fine_lines = float(np.median(drawn))
        least = min(HEAVIER * fine_lines, AS_THE_BORDER * self._border)
        outlines = float(np.median(self._looked_up(self._near, self.along)))
        if outlines > AS_HEAVY * fine_lines:
            least = min(least, THE_SAME * outlines)
        return least / self._border

    @cached_property
    def _border(self) -> float:
        places = np.concatenate(self.straight.frame.border) - self.origin
        return max(LEAST, float(np.median(self._looked_up(self._near, places))))

    @property
    def _least(self) -> float:
        """How dark something that is lined in is at least, softened."""
        return max(LEAST, self.lightest * self._border)

    @cached_property
    def outline(self) -> float:
        """How dark an outline is, softened: about where one is expected, and is lined in. Where
        many lie side by side it is darker than one by itself."""
        dark = self._looked_up(self._near, self.along)
        lined = dark[dark > self._least]
        if not len(lined):
            return self._least
        usual = float(np.median(lined))
        return max(min(usual, self._alone), AT_LEAST * usual)

    @cached_property
    def _alone(self) -> float:
        """How dark strokes are, softened, that lie by themselves: they are as narrow as the
        border."""
        row, column = np.nonzero(self._top & (self._soft > self._least))
        dark = self._soft[row, column]
        narrow = dark[self._bent(row, column)[2] > NARROW * self._border_bent * dark]
        return float(np.percentile(narrow, MOST)) if len(narrow) else math.inf

    @cached_property
    def _border_bent(self) -> float:
        """How narrow the border is: how much the softened picture bends there across it, for how
        dark it is."""
        found = []
        for side in self.straight.frame.border:
            across = 1j * (side[-1] - side[0]) / abs(side[-1] - side[0])
            at = side - self.origin + across * np.arange(-ABOUT, ABOUT, 1 / COARSE)[:, None]
            dark = self._looked_up(self._soft, at)
            top = np.clip(np.argmax(dark, axis=0), 1, len(dark) - 2)
            before, here, after = (dark[top + k, np.arange(len(side))] for k in (-1, 0, 1))
            found.append((2 * here - before - after) / np.maximum(here, LEVEL))
        return float(np.median(np.concatenate(found)))

    @cached_property
    def _top(self) -> npt.NDArray[np.bool_]:
        """Where strokes are darkest, heavy and fine ones."""
        soft = self._soft
        up, down = np.roll(soft, 1, 0), np.roll(soft, -1, 0)
        left, right = np.roll(soft, 1, 1), np.roll(soft, -1, 1)
        # A stroke is darkest across itself: along it, it is now and then by chance.
        upwards, sideways = 2 * soft - up - down, 2 * soft - left - right
        top = (soft >= up) & (soft > down) & (upwards >= sideways / 2)
        top |= (soft >= left) & (soft > right) & (sideways >= upwards / 2)
        result: npt.NDArray[np.bool_] = top & self._in_the_space
        return result

    @cached_property
    def lined_in(self) -> Places:
        """Places on all that is dark enough to be lined in, mm from the datum."""
        return self._one_each(self._top & (self._soft > self._least))

    @cached_property
    def _ridge(self) -> npt.NDArray[np.bool_]:
        soft = self._soft
        top = self._top & (soft > max(FINE * self.outline, LEAST))
        low, high = HEAVY
        parting = _between(np.minimum(soft[top], self.outline))
        dark = np.clip(parting, low * self.outline, high * self.outline)
        result: npt.NDArray[np.bool_] = top & (soft >= dark)
        return result

    @cached_property
    def _in_the_space(self) -> npt.NDArray[np.bool_]:
        """Inside the border, and clear of the strip."""
        frame, shape = self.straight.frame, self._soft.shape
        x = (np.arange(shape[1]) + 0.5) / COARSE
        y = frame.height - (np.arange(shape[0]) + 0.5) / COARSE
        low, high = frame.low, frame.high
        for _, first, _, second in frame.strip:
            level = (first + second) / 2
            if level < (low + high) / 2:
                low = max(low, level)
            else:
                high = min(high, level)
        across = (x > frame.left + EDGE) & (x < frame.right - EDGE)
        upwards = (y > low + EDGE) & (y < high - EDGE)
        result: npt.NDArray[np.bool_] = upwards[:, None] & across[None, :]
        return result

    @cached_property
    def places(self) -> Places:
        """Places on heavy strokes, one in each square millimetre, mm from the datum."""
        return self._one_each(self._ridge)

    def _one_each(self, cells_on: npt.NDArray[np.bool_]) -> Places:
        """Return a place for each square millimetre of which some is on."""
        row, column = np.nonzero(cells_on)
        cells: Mapping[tuple[int, int], int] = {
            (r, c): at
            for at, (r, c) in enumerate(
                zip((row / COARSE).astype(int), (column / COARSE).astype(int), strict=True)
            )
        }
        kept = np.array(sorted(cells.values()), int)
        return self._middle(row[kept], column[kept])

    @cached_property
    def _nearest(self) -> tuple[Reals, npt.NDArray[np.int32], npt.NDArray[np.int32]]:
        """How far each cell is from the nearest stroke, and its row and column."""
        away, (row, column) = distance_transform_edt(~self._ridge, return_indices=True)
        return away / COARSE, row, column

    def away(self, places: Places) -> Reals:
        """Return how far places are from the nearest heavy stroke, mm."""
        return self._looked_up(self._nearest[0], places)

    def nearest(self, places: Places) -> Places:
        """Return the nearest place on a heavy stroke for each."""
        row, column = (self._looked_up(field, places) for field in self._nearest[1:])
        return self._middle(row.astype(int), column.astype(int))

    def shows(self, places: Places) -> npt.NDArray[np.bool_]:
        """Tell where a stroke would be seen: not beyond the border, nor in the title strip."""
        return self._looked_up(self._in_the_space, places) > 0

    @cached_property
    def _runs(self) -> npt.NDArray[np.complex128]:
        """Which way what is dark runs about each cell: twice the angle (structure tensor)."""
        up, across = np.gradient(self._soft)
        double = np.asarray((1j * across + up) ** 2, complex)
        size = round(ALONGSIDE * COARSE)
        found = uniform_filter(double.real, size) + 1j * uniform_filter(double.imag, size)
        return np.asarray(found, complex)

    def runs_along(self, places: Places, ahead: Places) -> npt.NDArray[np.bool_]:
        """Tell of places on strokes whether the stroke runs a given way there, or back."""
        double = self._looked_up(self._runs.real, places) + 1j * self._looked_up(
            self._runs.imag, places
        )
        along = (double * np.conj(ahead**2)).real
        result: npt.NDArray[np.bool_] = along > math.cos(2 * ASKEW) * np.abs(double * ahead**2)
        return result

    def _middle(self, row: npt.NDArray[np.integer], column: npt.NDArray[np.integer]) -> Places:
        """Return where strokes are darkest in cells they are darkest in: along the way the picture
        bends most, where it is level (C. Steger 1998; from memory)."""
        slope, across, bend = self._bent(row, column)
        away = np.clip((np.conj(across) * slope).real / np.maximum(bend, LEVEL), -1.0, 1.0)
        at = column + 1j * row + away * across
        height = self.straight.frame.height
        places: Places = (
            (at.real + 0.5) / COARSE + 1j * (height - (at.imag + 0.5) / COARSE) - self.origin
        )
        return places

    def _bent(
        self, row: npt.NDArray[np.integer], column: npt.NDArray[np.integer]
    ) -> tuple[Places, Places, Reals]:
        """Return how the softened picture rises in cells, which way it bends most, and by how much:
        to the right and downwards, for a cell."""
        around = {
            (up, over): self._soft[row + up, column + over].astype(float)
            for up in (-1, 0, 1)
            for over in (-1, 0, 1)
        }
        twice = 2 * around[0, 0]
        slope = (around[0, 1] - around[0, -1]) / 2 + 1j * (around[1, 0] - around[-1, 0]) / 2
        bend_x = around[0, 1] + around[0, -1] - twice
        bend_y = around[1, 0] + around[-1, 0] - twice
        twist = (around[1, 1] + around[-1, -1] - around[1, -1] - around[-1, 1]) / 4
        apart = (bend_x - bend_y) / 2 + 1j * twist
        across = 1j * np.exp(1j * np.angle(apart) / 2)
        return slope, across, np.abs(apart) - (bend_x + bend_y) / 2

    def _looked_up(
        self, field: npt.NDArray[np.floating | np.int32 | np.bool_], places: Places
    ) -> Reals:
        on = np.nan_to_num(places + self.origin, nan=-1.0)
        column = np.clip(np.floor(on.real * COARSE), 0, field.shape[1] - 1).astype(int)
        row = np.floor((self.straight.frame.height - on.imag) * COARSE)
        result: Reals = np.asarray(
            field[np.clip(row, 0, field.shape[0] - 1).astype(int), column], float
        )
        return result


def _softened(ink: Ink, at: npt.NDArray[np.floating], soft: float) -> Ink:
    """Return a picture at levels of its rows and between them, softened across them: each is a mean
    of the rows about it (normal distribution, of so many rows)."""
    reach = math.ceil(FADES * soft)
    rows = np.round(at).astype(int)[:, None] + np.arange(-reach, reach + 1)
    shares = np.exp(-(((rows - at[:, None]) / soft) ** 2) / 2)
    shares /= shares.sum(axis=1, keepdims=True)
    ends = np.arange(len(at) + 1) * rows.shape[1]
    row = np.clip(rows, 0, len(ink) - 1)
    mean = csr_array((shares.astype(ink.dtype).ravel(), row.ravel(), ends), (len(at), len(ink)))
    result: Ink = mean @ ink
    return result


def _between(strengths: npt.NDArray[np.floating]) -> float:
    """Return what parts values into two sorts best (N. Otsu 1979; from memory); nought where there
    are none."""
    if not len(strengths):
        return 0.0
    counts, edges = np.histogram(strengths, 64)
    middles = (edges[1:] + edges[:-1]) / 2
    below, weighed = np.cumsum(counts), np.cumsum(counts * middles)
    above = below[-1] - below
    apart = weighed / np.maximum(below, 1) - (weighed[-1] - weighed) / np.maximum(above, 1)
    return float(edges[1:][int(np.argmax(below * above * apart**2))])
