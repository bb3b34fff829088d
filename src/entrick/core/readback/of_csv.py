"""A profile out of a table of points, as any spreadsheet writes one: a closed outline; a blank row
begins another. Which columns are x and y, how they are parted, where the decimals begin and in
which unit they are is read from the table, and told where it was not said."""

from __future__ import annotations

import csv
import io
import math
import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from itertools import pairwise

from ..geometry import Line, Point
from ..measure import Unit
from ..tolerance import OF_ONE, READ_WITHIN
from .digits import last_decimal, numbers_of
from .outliers import told_of, without_outliers
from .profile import FARTHEST, MOST_ENTITIES, Curve, ProfileError, scaled

PARTED = (";", "\t", "|")
"""What parts the cells of a table beside commas and blanks."""

MM = {"mm": 1.0, "cm": 10.0, "m": 1000.0, "in": 25.4, "inch": 25.4, "inches": 25.4, '"': 25.4}
"""Millimetres in the units a table may name."""

UNIT = r"(mm|cm|m|inches|inch|in|\")"
NUMBER = re.compile(rf"([-+−]?(?:\d[\d.,' ]*|[.,]\d+)(?:[eE][-+]?\d+)?)\s*{UNIT}?\s*")
NAMED = re.compile(rf"([a-z#]+)[\s_]*[\[(]?\s*{UNIT}?\s*[\])]?\s*", re.IGNORECASE)
"""A heading: what a column holds, and its unit."""

COUNTS = frozenset({"n", "no", "nr", "id", "point", "punkt", "#", "i", "index"})
"""What columns are called that only count the rows."""

MOST_HEADINGS = 6


@dataclass
class OfCsv:
    """What a table holds: in millimetres or inches where it names a unit."""

    curves: list[Curve] = field(default_factory=list)
    unit: Unit | None = None
    notes: list[str] = field(default_factory=list)
    last: float = 0.0


@dataclass(frozen=True, slots=True)
class _Cell:
    """A number of a table, and the unit behind it; empty for none."""

    value: float
    unit: str = ""


@dataclass(frozen=True, slots=True)
class _Columns:
    """Which columns hold x and y, and the unit their headings name; empty for none."""

    x: int
    y: int
    unit: str = ""
    others: tuple[int, ...] = ()


def of_csv(data: bytes) -> OfCsv:
    """Read points measured on a part.

    Parameters
    ----------
    data : bytes
        Text in UTF-8 or UTF-16, cells parted by commas, semicolons, tabs or blanks, decimals behind
        a point or a comma; rows that begin with ``#`` are remarks.

    Returns
    -------
    OfCsv
        Lines from each point to the next, and back to the first.

    Raises
    ------
    ProfileError
        With the row that is no point, or the table that may be read in two ways.
    """
    table = _table(_decoded(data))
    result = OfCsv()
    headings, body = _headed(table)
    columns = _columns(headings, [row for _, row in body if row], result)
    outlines: list[list[tuple[Point, str]]] = [[]]
    for number, row in body:
        if not row:
            outlines.append([])
            continue
        outlines[-1].append(_spot(row, number, columns))
    count = sum(map(len, outlines))
    if count > MOST_ENTITIES:
        raise ProfileError(f"a profile has at most {MOST_ENTITIES} pieces")
    unit = columns.unit or next((unit for each in outlines for _, unit in each if unit), "")
    result.unit = None if not unit else Unit.INCH if MM[unit] == MM["in"] else Unit.MM
    by = MM[unit] / float(result.unit.mm) if result.unit else 1.0
    written: list[Curve] = []
    for each in outlines:
        sides = list(_closed([spot for spot, _ in each], result))
        written += sides
        result.curves += [scaled(side, by) for side in sides]
    result.last = last_decimal(map(numbers_of, written)) * by
    if not result.curves:
        raise ProfileError("three points at least make an outline")
    return result


def _decoded(data: bytes) -> str:
    """Return a text, whatever it is written in."""
    if data[:2] in (b"\xff\xfe", b"\xfe\xff"):
        return data.decode("utf-16", "replace")
    if data[1:2] == b"\0":
        return data.decode("utf-16-le", "replace")
    if data[:1] == b"\0":
        return data.decode("utf-16-be", "replace")
    return data.decode("utf-8-sig", "replace")


def _table(text: str) -> list[tuple[int, list[str]]]:
    """Return the rows of a table with their numbers, without remarks; blank ones are empty."""
    lines = [(n, line) for n, line in enumerate(text.splitlines(), 1)]
    lines = [(n, line) for n, line in lines if not line.lstrip().startswith("#")]
    said = re.fullmatch(r"\s*sep\s*=\s*(.)\s*", lines[0][1]) if lines else None
    if said:
        return [(n, _cells(line, said[1])) for n, line in lines[1:]]
    parted = _parted([line for _, line in lines if line.strip()])
    return [(n, _cells(line, parted)) for n, line in lines]


def _parted(lines: Sequence[str]) -> str:
    """Return what parts the cells of most rows; a blank where nothing else does."""
    for sign in PARTED:
        if sum(sign in line for line in lines) * 2 > len(lines):
            return sign
    by_blanks = [line.split() for line in lines]
    numbers = sum(len(row) >= 2 and all(map(_number, row)) for row in by_blanks)
    return " " if numbers * 2 > len(lines) or not any("," in line for line in lines) else ","


def _cells(line: str, parted: str) -> list[str]:
    if not line.strip(" \t;,|"):
        return []
    if parted == " ":
        return line.split()
    try:
        rows = list(csv.reader(io.StringIO(line), delimiter=parted, skipinitialspace=True))
    except csv.Error as error:
        raise ProfileError(f"this is no table of points: {error}") from error
    return [cell.strip() for cell in rows[0]] if rows else []


def _number(text: str) -> _Cell | None:
    """Return the number a cell holds, with its unit; None where it holds none.

    Of a point and a comma the last begins the decimals; a comma alone does.
    """
    found = NUMBER.fullmatch(text.strip())
    if found is None:
        return None
    said = re.sub(r"[' ]", "", found[1]).replace("−", "-")
    last = max(said.rfind("."), said.rfind(","))
    if last >= 0:
        whole, part = re.sub(r"[.,]", "", said[:last]), said[last + 1 :]
        said = f"{whole}.{part}"
    try:
        value = float(said)
    except ValueError:
        return None
    return _Cell(value, (found[2] or "").lower())


Rows = list[tuple[int, list[str]]]


def _headed(table: Rows) -> tuple[list[list[str]], Rows]:
    """Return the headings of a table, and what stands below them: rows without any number before
    the first that has two."""
    headings: list[list[str]] = []
    for at, (_, row) in enumerate(table):
        if any(map(_number, row)) or len(headings) > MOST_HEADINGS:
            return headings, table[at:]
        if row:
            headings.append(row)
    return headings, []


def _columns(
    headings: Sequence[Sequence[str]], rows: Sequence[Sequence[str]], found: OfCsv
) -> _Columns:
    """Return which columns hold x and y: those that are called so, else the first two that do not
    only count."""
    named: dict[str, int] = {}
    unit = ""
    for row in headings:
        for at, cell in enumerate(row):
            heading = NAMED.fullmatch(cell.strip())
            if heading is None:
                continue
            word = heading[1].lower()
            # A heading of its own may say the unit of all columns.
            unit = unit or (heading[2] or (word if word in MM else "")).lower()
            named.setdefault(word, at)
    width = max(map(len, rows), default=0)
    if "x" in named and "y" in named:
        others = [at for at in range(width) if at not in (named["x"], named["y"])]
        counting = [at for word, at in named.items() if word in COUNTS]
        _tell_left_out([at for at in others if at not in counting], rows, found)
        return _Columns(named["x"], named["y"], unit)
    first = 1 if width >= 3 and (_counts(rows) or COUNTS & named.keys()) else 0
    if first:
        found.notes.append("the first column counts the rows, and was left out")
    elif width == 4 and not headings and all(len(row) == 4 for row in rows):
        one = ",".join(rows[0])
        raise ProfileError(
            f"row 1: {one} may be two numbers with decimal commas, or four: part the numbers by "
            "semicolons, or head the columns  x  and  y"
        )
    _tell_left_out(
        [at for at in range(width) if at not in (first - 1, first, first + 1)], rows, found
    )
    return _Columns(first, first + 1, unit)


def _counts(rows: Sequence[Sequence[str]]) -> bool:
    """Tell whether the first column only counts the rows."""
    cells = [_number(row[0]) for row in rows]
    numbers = [cell.value for cell in cells if cell is not None]
    return len(numbers) == len(rows) > 2 and all(b - a == 1 for a, b in pairwise(numbers))


def _tell_left_out(columns: Sequence[int], rows: Sequence[Sequence[str]], found: OfCsv) -> None:
    """Tell of columns that were left out although they are not the same all down."""
    for at in columns:
        said = {row[at] for row in rows if at < len(row) and row[at].strip()}
        if len(said) > 1:
            found.notes.append(f"column {at + 1} was left out: a profile is flat, with x and y")


def _spot(row: Sequence[str], number: int, columns: _Columns) -> tuple[Point, str]:
    cells = [_number(row[at]) if at < len(row) else None for at in (columns.x, columns.y)]
    x, y = cells
    if x is None or y is None:
        raise ProfileError(f"row {number}: {','.join(row)[:60]} is no point; it has x and y")
    if not (abs(x.value) < FARTHEST and abs(y.value) < FARTHEST):
        raise ProfileError(f"row {number}: a point lies farther away than any part reaches")
    return Point(x.value, y.value), x.unit or y.unit


def _closed(points: Sequence[Point], found: OfCsv) -> Iterator[Curve]:
    """Yield the sides of an outline."""
    corners = [spot for k, spot in enumerate(points) if spot != points[k - 1] or len(points) == 1]
    if not corners:
        return
    if len(corners) < 3:
        raise ProfileError("three points at least make an outline")
    _look_over(corners)
    sides = tuple(Line.between(a, b) for a, b in pairwise([*corners, corners[0]]))
    kept, dropped = without_outliers(sides, READ_WITHIN)
    if dropped:
        found.notes.append(told_of(dropped))
    yield from kept


def _look_over(corners: Sequence[Point]) -> None:
    """Refuse an outline that is none: all on one line."""
    # Only who reads a table of points waits for it.
    from shapely import Polygon  # type: ignore[import-untyped]

    ring = [(spot.x, spot.y) for spot in corners]
    polygon = Polygon(ring)
    west, south, east, north = polygon.bounds
    if polygon.convex_hull.area <= OF_ONE * math.hypot(east - west, north - south) ** 2:
        raise ProfileError("all points lie on one line: that is no outline")
