"""A profile out of a CSV of points: x and y in the first two columns, a closed outline; a blank row
begins another."""

from __future__ import annotations

import csv
import io

from ..geometry import Line, Point
from .profile import FARTHEST, MOST_ENTITIES, Curve, ProfileError


def of_csv(data: bytes) -> list[Curve]:
    """Read points measured on a part.

    Parameters
    ----------
    data : bytes
        UTF-8; a first row without numbers heads the columns.

    Returns
    -------
    list of Line
        From each point to the next, and back to the first.

    Raises
    ------
    ProfileError
        With the row that is no point.
    """
    text = data.decode("utf-8-sig", "replace")
    curves: list[Curve] = []
    points: list[Point] = []
    count = 0
    try:
        for number, row in enumerate(csv.reader(io.StringIO(text, newline="")), 1):
            if not any(cell.strip() for cell in row):
                curves += _closed(points)
                points = []
                continue
            spot = _spot(row, number)
            if spot is not None:
                points.append(spot)
                count += 1
            if count > MOST_ENTITIES:
                raise ProfileError(f"a profile has at most {MOST_ENTITIES} pieces")
    except csv.Error as error:
        raise ProfileError(f"this is no CSV: {error}") from error
    curves += _closed(points)
    if not curves:
        raise ProfileError("three points at least make an outline")
    return curves


def _spot(row: list[str], number: int) -> Point | None:
    try:
        spot = Point(float(row[0]), float(row[1]))
    except (ValueError, IndexError) as error:
        if number == 1:
            return None
        raise ProfileError(
            f"row {number}: {','.join(row)[:60]} is no point; it has x and y"
        ) from error
    if not (abs(spot.x) < FARTHEST and abs(spot.y) < FARTHEST):
        raise ProfileError(f"row {number}: a point lies farther away than any part reaches")
    return spot


def _closed(points: list[Point]) -> list[Curve]:
    corners = [spot for k, spot in enumerate(points) if spot != points[k - 1] or len(points) == 1]
    if not corners:
        return []
    if len(corners) < 3:
        raise ProfileError("three points at least make an outline")
    return [Line.between(a, b) for a, b in zip(corners, [*corners[1:], corners[0]], strict=True)]
