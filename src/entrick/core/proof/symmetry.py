"""Is a part that is said to be symmetric symmetric, and is one that is not said to be so anyhow?"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence

import numpy as np
import numpy.typing as npt

from ..geometry import Arc, Circle, Line, Piece, Point
from ..kind import Made
from ..kind.claims import Symmetric
from ..tolerance import ROUND
from .finding import Checked, Finding, Mend

IMAGE = 4
"""What is told of a piece and of its image differs by up to so many times what two places of the
part may."""

FEW = 12
"""Pieces that are looked at before all the others."""


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report where a symmetric part is not, and offer a symmetry about a datum line that nobody
    spoke of."""
    if checked.failed_outlines:
        return  # the part is not whole without them
    pieces = [(line, piece) for _, line, loop in checked.runs for piece in loop.pieces]
    if not pieces:
        return
    known = _Places([piece for _, piece in pieces], checked.close)
    said = checked.claims(Symmetric)
    for line, claim in said:
        odd = known.without_image(claim.axis)
        if odd is None:
            yield Finding("good", "symmetry", f"symmetric about {claim.name}, every piece", line)
        else:
            at, piece = pieces[odd]
            place = checked.sheet.on_paper(_middle(piece))
            message = (
                f"not symmetric about {claim.name}: {piece.name} has no image on the other side"
            )
            yield Finding("wrong", "symmetry", message, at, place)
    axes = [claim.axis for _, claim in said]
    for name, axis in _datum_lines(checked):
        if any(_same(axis, other, checked.close) for other in axes):
            continue
        if known.without_image(axis) is None:
            axes.append(axis)
            row = f"{checked.solution.free_name('must')} = check, symmetric about {name}"
            mend = Mend("insert", len(checked.solution.plan.lines), row, "Say so")
            message = f"the outline is symmetric about {name}: say so, and it stays proved"
            yield Finding("note", "symmetry", message, 0, None, mend)


def _datum_lines(checked: Checked) -> Iterator[tuple[str, Line]]:
    for entry in checked.solution.entries:
        made: Made | None = entry.made
        if made is not None and made.placing is not None:
            parts: Mapping[str, object] = made.parts
            yield from (
                (f"{entry.statement.name}.{key}", line)
                for key, line in parts.items()
                if isinstance(line, Line)
            )


def _same(first: Line, second: Line, close: float) -> bool:
    return (
        abs(first.direction.cross(second.direction)) < ROUND
        and abs(first.offset_of(second.through)) <= close
    )


def _middle(piece: Piece) -> Point:
    match piece.curve:
        case Arc() as arc:
            return arc.middle
        case Circle(centre=c):
            return c
    return (piece.entry + piece.exit) * 0.5


Spots = npt.NDArray[np.float64]
"""Places, one below another: across, up."""


class _Places:
    """Pieces by where they lie, for looking up images."""

    def __init__(self, pieces: Sequence[Piece], close: float) -> None:
        # Loaded where it is wanted: the shell has other commands.
        from scipy.spatial import KDTree  # type: ignore[import-untyped]

        self.close = close
        self.middles = np.array([_middle(piece) for piece in pieces])
        self.ends = np.array([(piece.entry, piece.exit) for piece in pieces])
        self.radii = np.array(
            [0.0 if isinstance(p.curve, Line) else p.curve.radius for p in pieces]
        )
        # A circle has its ends wherever it was begun.
        self.is_circle = np.array([isinstance(piece.curve, Circle) for piece in pieces])
        self.tree = KDTree(self._told(slice(None), lambda spots: spots))

    def _told(self, which: slice, image: Callable[[Spots], Spots]) -> Spots:
        """Return lengths that are alike where images are one: the middle, that between the ends,
        the radius, and how the chord lies, whichever end comes first (its angle counts twice)."""
        ends = np.where(self.is_circle[which, None, None], 0.0, image(self.ends[which]))
        x, y = (ends[:, 1] - ends[:, 0]).T
        long = np.hypot(x, y)
        per = np.where(long > 0, long, 1.0)
        chord = np.column_stack(((x * x - y * y) / per, 2 * x * y / per))
        return np.column_stack(
            (image(self.middles[which]), ends.mean(axis=1), self.radii[which], chord)
        )

    def without_image(self, axis: Line) -> int | None:
        """Return the first of the pieces, by index, that has no image on the other side of an
        axis."""
        across = np.array(axis.direction.normal)

        def image(spots: Spots) -> Spots:
            turned: Spots = spots - 2 * ((spots - axis.through) @ across)[..., None] * across
            return turned

        # A few first: what is not symmetric shows soon.
        for which in (slice(0, FEW), slice(FEW, None)):
            away, _ = self.tree.query(
                self._told(which, image), distance_upper_bound=IMAGE * self.close
            )
            odd = np.flatnonzero(np.isinf(away))
            if len(odd):
                return int(odd[0]) + which.start
        return None
