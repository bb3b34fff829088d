"""A picture of a sheet straightened to millimetres: its border, whose size is known, is the ruler.

Light is evened out by the picture's own closing; the border is the largest four-sided line; its
sides, found every hundredth of their length, tell how the lens bends, and where the corners are."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass

import cv2
import numpy as np
import numpy.typing as npt
from scipy.optimize import minimize_scalar  # type: ignore[import-untyped]

from ..core.look.straight import Frame, Straight
from .read import Grey, PictureError

Ink = npt.NDArray[np.float32]
Spots = npt.NDArray[np.float64]
"""Places in a picture, a row each: across and down, pixels."""

SMALL = 1400
"""Pixels on the long side of the picture in which the border is looked for."""

CLOSED = 25
"""Side of the square by which light is evened, pixels of a picture of `LIT` on its long side."""

LIT = 1000

DARK = 0.22
"""How dark a line of the border is at least, after the light is evened."""

LEAST = 0.15
"""Share of a picture that a border takes at least."""

BENT = 0.08
"""Most a lens bends."""

FLAT = 0.8
"""How far, mm, a side of the border may be from straight before a sheet is said to have lain
uneven."""

FINEST = 10.0
"""Pixels a millimetre in the straightened picture, where that is no more than `MOST`."""

MOST = 13_000_000


def straighten(picture: Grey, frame: Frame) -> Straight:
    """Straighten a picture of a sheet.

    Parameters
    ----------
    picture : array of uint8
        Rows from the top.
    frame : Frame
        Border and lines of the title strip of the sheet that is looked for.

    Returns
    -------
    Straight

    Raises
    ------
    PictureError
        Where no border is in view.
    """
    ink = evened(picture)
    best: _Lain | None = None
    for corners in itertools.islice(_borders(ink, frame), MOST_TRIED):
        lain = _lain(ink, corners, frame)
        if lain is not None and (best is None or lain.clear > best.clear):
            best = lain
        if best is not None and best.clear > CLEAR:
            break
    if best is None:
        raise PictureError(
            "the border of the sheet is not in view: all four sides have to be in the picture, "
            "dark and whole; lay the sheet flat on something plain and take it again"
        )
    if best.strip < DARK / 2 or best.strip < CLEARER * best.other:
        raise PictureError(
            "a border is there, but no title strip that would tell which way round the sheet "
            "lies, or whether it is the sheet of this plan"
        )
    return _straight(ink, best, frame)


MOST_TRIED = 24
"""Borders that are looked at."""

CLEAR = 0.45
"""How dark the strip is and how whole and straight the sides are, of 1, from which nothing better
is looked for."""

HALF = 50
"""Places found along a side, of a hundred, under which it is no line."""


def evened(picture: Grey) -> Ink:
    """Return how dark each pixel is, 0 paper and 1 black, with the light evened out."""
    high, wide = picture.shape
    share = min(1.0, LIT / max(high, wide))
    small = cv2.resize(picture, None, fx=share, fy=share, interpolation=cv2.INTER_AREA)
    paper = cv2.morphologyEx(small, cv2.MORPH_CLOSE, np.ones((CLOSED, CLOSED), np.uint8))
    paper = cv2.GaussianBlur(paper, (0, 0), CLOSED / 3)
    whole = cv2.resize(paper, (wide, high), interpolation=cv2.INTER_LINEAR)
    lit = cv2.divide(picture, whole, scale=255)
    return np.asarray(cv2.subtract(255, lit), np.float32) / np.float32(255)


def _borders(ink: Ink, frame: Frame) -> Iterator[Spots]:
    """Yield the corners of what may be the border, clockwise as seen, the largest first."""
    share = min(1.0, SMALL / max(ink.shape))
    small = cv2.resize(ink, None, fx=share, fy=share, interpolation=cv2.INTER_AREA)
    dark = (small > DARK).astype(np.uint8)
    found: list[Spots] = []
    for reach in (1, 5):
        joined = cv2.morphologyEx(dark, cv2.MORPH_CLOSE, np.ones((reach, reach), np.uint8))
        contours, _ = cv2.findContours(joined, cv2.RETR_LIST, cv2.CHAIN_APPROX_NONE)
        for contour in contours:
            if cv2.contourArea(contour) < LEAST * dark.size:
                continue
            hull = cv2.convexHull(contour)
            four = cv2.approxPolyDP(hull, 0.03 * cv2.arcLength(hull, True), True)
            if len(four) == 4:
                found.append(four.reshape(4, 2) / share)
    seen: list[Spots] = []
    beyond = (each for four in found for each in _beyond_strip(four, frame, ink.shape))
    for four in itertools.chain(_by_size(found), beyond, _by_size(_by_lines(dark, share))):
        corners = _clockwise(four)
        if all(np.max(np.abs(corners - other)) > NEAR for other in seen):
            seen.append(corners)
            yield corners


def _beyond_strip(four: Spots, frame: Frame, shape: tuple[int, ...]) -> Iterator[Spots]:
    """Yield where the border lies if what was found is the space clear of the title strip: it is
    whole where something was drawn across the border."""
    for _, level, _, _ in frame.strip:
        on_top = level > (frame.low + frame.high) / 2
        low, high = (frame.low, level) if on_top else (level, frame.high)
        left, right = frame.left, frame.right
        space = np.array([(left, high), (right, high), (right, low), (left, low)], np.float32)
        for by in range(4):
            lain = np.roll(_clockwise(four), by, axis=0).astype(np.float32)
            turn = cv2.getPerspectiveTransform(space, lain)
            border = np.array([frame.corners], np.float32)
            corners = cv2.perspectiveTransform(border, turn)[0].astype(float)
            if np.all((corners > 0) & (corners < np.array(shape)[::-1])):
                yield corners


def _by_size(found: Iterable[Spots]) -> Iterator[Spots]:
    """Yield corners, those round the largest area first."""
    yield from sorted(found, key=lambda four: -cv2.contourArea(four.astype(np.float32)))


NEAR = 12.0
"""Pixels within which two borders are one."""


def _by_lines(dark: Grey, share: float) -> Iterator[Spots]:
    """Yield the corners of four long straight lines, where a border is no whole contour."""
    long = max(dark.shape)
    segments = cv2.HoughLinesP(
        dark, 1, math.pi / 720, 120, minLineLength=long / 6, maxLineGap=long / 60
    )
    if segments is None:
        return
    ends = segments.reshape(-1, 2, 2).astype(float)
    ends = ends[np.argsort(-np.hypot(*(ends[:, 1] - ends[:, 0]).T))][:80]
    angles = np.degrees(np.arctan2(*(ends[:, 1] - ends[:, 0]).T[::-1])) % 180
    first = angles[0]
    level = np.abs((angles - first + 90) % 180 - 90) < 25
    outer: list[list[Spots]] = []
    for group in (ends[level], ends[~level]):
        if len(group) < 2:
            return
        ahead = group[0, 1] - group[0, 0]
        across = np.array([-ahead[1], ahead[0]]) / np.hypot(*ahead)
        at = group.mean(axis=1) @ across
        order = np.argsort(at)
        apart: list[int] = []
        for each in order:
            if not apart or at[each] - at[apart[-1]] > 6:
                apart.append(int(each))
        picked = dict.fromkeys((*apart[:3], *apart[-3:]))
        outer.append([group[each] for each in picked])
    for one, two in itertools.combinations(outer[0], 2):
        for left, right in itertools.combinations(outer[1], 2):
            corners = [
                _met(a, b) for a, b in ((one, left), (one, right), (two, right), (two, left))
            ]
            if all(corner is not None for corner in corners):
                four = np.array(corners)
                inside = np.all((four > -20) & (four < np.array(dark.shape)[::-1] + 20))
                if inside and cv2.contourArea(four.astype(np.float32)) > LEAST * dark.size:
                    yield four / share


def _met(one: Spots, other: Spots) -> Spots | None:
    d, e = one[1] - one[0], other[1] - other[0]
    turn = d[0] * e[1] - d[1] * e[0]
    if abs(turn) < 1:
        return None
    away = other[0] - one[0]
    spots: Spots = one[0] + d * (away[0] * e[1] - away[1] * e[0]) / turn
    return spots


def _clockwise(four: Spots) -> Spots:
    """Return four corners clockwise as seen, from the one nearest to the top left."""
    middle = four.mean(axis=0)
    turned = four[np.argsort(np.arctan2(*(four - middle).T[::-1]))]
    return np.roll(turned, -int(np.argmin(turned.sum(axis=1))), axis=0)


def _sides(corners: Spots) -> Iterator[tuple[Spots, Spots]]:
    return zip(corners, np.roll(corners, -1, axis=0), strict=True)


def _ridge(ink: Ink, start: Spots, end: Spots) -> Spots:
    """Return the middle of the dark line near a straight, every hundredth of it: looked for widely
    first, then ever nearer to the curve that the places found so far lie on."""
    shares = np.linspace(0.02, 0.98, SHARES)
    long = float(np.hypot(*(end - start)))
    ahead = (end - start) / long
    across = np.array([-ahead[1], ahead[0]])
    offsets: npt.NDArray[np.floating] = np.zeros(len(shares))
    moved = offsets
    good = np.ones(len(shares), bool)
    for reach in (0.016 * max(ink.shape), 0.005 * max(ink.shape), 0.003 * max(ink.shape)):
        steps = np.arange(-reach, reach + 0.25, 0.5)
        at = start + shares[:, None] * (end - start) + offsets[:, None] * across
        spots = at[:, None, :] + steps[None, :, None] * across
        rows = cv2.remap(
            ink,
            spots[..., 0].astype(np.float32),
            spots[..., 1].astype(np.float32),
            cv2.INTER_LINEAR,
        )
        rows = cv2.GaussianBlur(rows, (0, 0), sigmaX=1.5, sigmaY=0.01)
        # Nothing is drawn beyond the border: of two lines as dark it is the outer.
        outer = np.argmax(rows * (1 - OUTER * steps / reach), axis=1)
        peak = np.argmax(np.where(_about(outer, rows), rows, 0.0), axis=1)
        dark = rows[np.arange(len(rows)), peak]
        near = _about(peak, rows)
        weight = np.where(near, np.maximum(rows - dark[:, None] / 3, 0), 0)
        total = np.maximum(weight.sum(axis=1), np.finfo(np.float32).tiny)
        moved = offsets + (weight * steps).sum(axis=1) / total
        good = dark > DARK
        if good.sum() < HALF:
            return np.empty((0, 2))
        # What lies far from the curve of most is something else that is dark.
        curve = np.polyfit(shares[good], moved[good], 2)
        for _ in range(3):
            off = np.abs(moved - np.polyval(curve, shares))
            close = good & (off < max(2.5, 2.5 * float(np.median(off[good]))))
            if close.sum() < HALF:
                return np.empty((0, 2))
            curve = np.polyfit(shares[close], moved[close], 2)
        good = close
        offsets = np.polyval(curve, shares)
    result: Spots = (start + shares[:, None] * (end - start) + moved[:, None] * across)[good]
    return result


def _about(peak: npt.NDArray[np.integer], rows: Ink) -> npt.NDArray[np.bool_]:
    """Tell what of each row lies about its darkest place."""
    near: npt.NDArray[np.bool_] = np.abs(np.arange(rows.shape[1]) - peak[:, None]) <= RIDGE
    return near


OUTER = 0.3
"""By how much darker than the border something has to be at the end of where it is looked for, on
its inner side, to be taken for it."""

RIDGE = 8
"""Half pixels on each side of the darkest place of a line that belong to it."""


def _unbent(spots: Spots, bend: float, shape: tuple[int, ...]) -> Spots:
    """Return where places would lie without the lens: further out by 1 + bend·r², r as a share of
    half the picture's diagonal."""
    middle = np.array([shape[1], shape[0]]) / 2
    away = spots - middle
    share = (away**2).sum(axis=-1, keepdims=True) / (math.hypot(*shape) / 2) ** 2
    result: Spots = middle + away * (1 + bend * share)
    return result


def _bend(sides: Sequence[Spots], shape: tuple[int, ...]) -> tuple[float, float]:
    """Return how much the lens bends, and what is left of straight then, pixels."""

    def crooked(bend: float) -> float:
        return float(np.mean([np.mean(_off(_unbent(side, bend, shape)) ** 2) for side in sides]))

    found = minimize_scalar(crooked, bounds=(-BENT, BENT), method="bounded")
    bend = float(found.x)
    # A lens that bends no more than the hand draws crooked bends nothing.
    if crooked(0.0) < 1.05 * crooked(bend):
        bend = 0.0
    off = max(float(np.percentile(np.abs(_off(_unbent(s, bend, shape))), 95)) for s in sides)
    return bend, off


def _fitted(spots: Spots) -> tuple[Spots, Spots]:
    line = cv2.fitLine(spots.astype(np.float32), cv2.DIST_HUBER, 0, 0.001, 0.001).ravel()
    return line[2:].astype(float), line[:2].astype(float)


def _off(spots: Spots) -> Spots:
    at, ahead = _fitted(spots)
    away = spots - at
    result: Spots = away[:, 0] * ahead[1] - away[:, 1] * ahead[0]
    return result


def _crossing(one: tuple[Spots, Spots], other: tuple[Spots, Spots]) -> Spots:
    (p, d), (q, e) = one, other
    turn = d[0] * e[1] - d[1] * e[0]
    away = q - p
    spots: Spots = p + d * (away[0] * e[1] - away[1] * e[0]) / turn
    return spots


@dataclass(frozen=True)
class _Lain:
    """How a sheet may lie in a picture.

    Attributes
    ----------
    turn : array (3, 3)
        From millimetres to the picture without its lens.
    bend : float
        How much the lens bends.
    off : float
        How far the border is from straight then, mm.
    pixels : float
        Pixels a millimetre.
    strip, other : float
        How dark the lines of the title strip are so, and at the best of the other ways round.
    clear : float
        How dark the strip is, and how whole and straight the sides are.
    """

    turn: npt.NDArray[np.float64]
    bend: float
    off: float
    pixels: float
    strip: float
    other: float
    clear: float


def _lain(ink: Ink, corners: Spots, frame: Frame) -> _Lain | None:
    """Return how a sheet lies whose border has these corners, the best way round; None where its
    sides are no lines."""
    sides = [_ridge(ink, *each) for each in _sides(corners)]
    whole = min(len(side) for side in sides)
    if whole < HALF:
        return None
    bend, off = _bend(sides, ink.shape)
    lines = [_fitted(_unbent(side, bend, ink.shape)) for side in sides]
    refined = np.array([_crossing(lines[at - 1], lines[at]) for at in range(4)])
    lain = (np.roll(refined, by, axis=0) for by in range(4))
    ways = [_way(ink, each, bend, frame) for each in lain if _is_as_wide(each, frame)]
    if not ways:
        return None
    (turn, strip), (_, other) = sorted([*ways, (ways[0][0], 0.0)], key=lambda way: -way[1])[:2]
    pixels = float(np.hypot(*(refined[0] - refined[2]))) / math.hypot(
        frame.right - frame.left, frame.high - frame.low
    )
    crooked = 1 + (off / pixels / CROOKED) ** 2
    clear = min(strip, 1.0) * (whole / SHARES) ** 4 / crooked
    return _Lain(turn, bend, off / pixels, pixels, strip, other, clear)


CROOKED = 0.25
"""How far from straight the sides are that make a border half as likely, mm."""


def _is_as_wide(corners: Spots, frame: Frame) -> bool:
    """Tell whether four corners are about as wide for their height as a border, seen askew."""
    top, right, bottom, left = (np.hypot(*(end - start)) for start, end in _sides(corners))
    seen = (top + bottom) / (left + right)
    wanted = (frame.right - frame.left) / (frame.high - frame.low)
    return bool(1 / ASKEW < seen / wanted < ASKEW)


ASKEW = 1.25
"""By how much a sheet seen askew may be wider, or narrower, than it is."""

SHARES = 97
"""Places along a side at which it is looked for."""


def _straight(ink: Ink, lain: _Lain, frame: Frame) -> Straight:
    per_mm = min(FINEST, math.sqrt(MOST / (frame.width * frame.height)))
    wide, high = round(frame.width * per_mm), round(frame.height * per_mm)
    x = (np.arange(wide, dtype=np.float32) + 0.5) / per_mm
    y = frame.height - (np.arange(high, dtype=np.float32) + 0.5) / per_mm
    # A band at a time: where every place lies in the picture takes more room than the picture.
    found = np.empty((high, wide), np.float32)
    for top in range(0, high, BAND):
        own = slice(top, top + BAND)
        found[own] = _sampled(ink, x[None, :], y[own, None], lain.turn, lain.bend)
    return Straight(found, per_mm, frame, lain.bend, lain.off, lain.pixels)


BAND = 256
"""Rows that are straightened at a time."""

CLEARER = 1.25
"""By how much the strip is darker the right way round."""


def _way(
    ink: Ink, corners: Spots, bend: float, frame: Frame
) -> tuple[npt.NDArray[np.float64], float]:
    """Return what leads from millimetres to the picture if a sheet lies so, and how dark the lines
    of its strip are then."""
    flat = np.array(frame.corners, np.float32)
    turn = cv2.getPerspectiveTransform(flat, corners.astype(np.float32)).astype(float)
    darks = []
    for x1, y1, x2, y2 in frame.strip:
        shares = np.linspace(0.03, 0.97, 60)
        long = math.hypot(x2 - x1, y2 - y1)
        across = np.array([-(y2 - y1), x2 - x1]) / long
        steps = np.linspace(-1.2, 1.2, 13)
        xs = x1 + shares[:, None] * (x2 - x1) + steps * across[0]
        ys = y1 + shares[:, None] * (y2 - y1) + steps * across[1]
        rows = _sampled(ink, xs.astype(np.float32), ys.astype(np.float32), turn, bend)
        darks.append(float(np.median(rows.max(axis=1))))
    return turn, min(darks) if darks else 1.0


def _sampled(ink: Ink, x: Ink, y: Ink, turn: npt.NDArray[np.float64], bend: float) -> Ink:
    """Return how dark places on the sheet are, given in millimetres: all those of some columns and
    rows, or as many x as y."""
    t = turn.astype(np.float32)
    deep = t[2, 0] * x + (t[2, 1] * y + t[2, 2])
    u = (t[0, 0] * x + (t[0, 1] * y + t[0, 2])) / deep
    v = (t[1, 0] * x + (t[1, 1] * y + t[1, 2])) / deep
    if bend:
        middle_x, middle_y = np.float32(ink.shape[1] / 2), np.float32(ink.shape[0] / 2)
        u, v = u - middle_x, v - middle_y
        scale = np.float32(bend / (math.hypot(*ink.shape) / 2) ** 2)
        wide = scale * (u * u + v * v)
        # s·(1 + wide·s²) = 1, by fixed points: the lens is weak.
        share = np.ones_like(wide)
        for _ in range(4):
            share = 1 / (1 + wide * share * share)
        u, v = u * share + middle_x, v * share + middle_y
    found = cv2.remap(ink, u, v, cv2.INTER_LINEAR, borderMode=cv2.BORDER_CONSTANT, borderValue=0)
    return np.asarray(found, np.float32)
