"""A scanner and a camera that are not here: they draw a sheet in pencil on grained paper, and make
a picture of it.

They know what stands on the sheet, stroke by stroke, and nothing of the plan it was drawn from.
What may spoil a picture is switched on by name."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import cv2
import numpy as np
import numpy.typing as npt

from ..core.look.by_hand import DrawnSheet, Stroke

Picture = npt.NDArray[np.uint8]

Trouble = Literal["smudge", "coffee", "thumb", "folded corner", "upside down", "cut off", "blur"]
"""What may spoil a picture: graphite rubbed over it, a ring of coffee, a thumb at the edge, a
corner turned over, laid the wrong way up, a side of the border out of the picture, out of focus."""

INCH = 25.4
SUBPIXEL = 4
"""Binary digits of a pixel to which strokes are placed."""

PAPER = 235.0
"""How light plain paper is, of 255."""

GRAIN, NOISE = 14.0, 6.0
"""Grain of the paper and of graphite, and noise of the device, of 255 (standard deviations)."""


@dataclass(frozen=True, slots=True)
class Lens:
    """How a camera stands, and how it sees.

    Attributes
    ----------
    turn : float
        Degrees about the line of sight.
    tilt : float
        By what share the far side comes out smaller.
    bend : float
        Radial term of its lens: barrel where it is more than nought.
    shade : float
        Share of the light that is lost towards one side.
    quality : int
        Of the JPEG.
    pixels : int
        On the long side of the picture.
    """

    turn: float = 2.0
    tilt: float = 0.05
    bend: float = 0.01
    shade: float = 0.25
    quality: int = 80
    pixels: int = 4000


def scan(
    sheet: DrawnSheet,
    dpi: int = 300,
    seed: int = 0,
    turn: float = 0.4,
    troubles: Sequence[Trouble] = (),
) -> bytes:
    """Return the picture a flatbed scanner makes of a sheet, as PNG.

    Parameters
    ----------
    sheet : DrawnSheet
    dpi : int
    seed : int
        Of grain and noise.
    turn : float
        How far askew it lies, degrees.
    troubles : sequence of str
    """
    random = np.random.default_rng(seed)
    paper = _spoilt(_drawn(sheet, dpi / INCH, random), troubles, random)
    picture = _turned(paper, turn, PAPER + 10)
    if "upside down" in troubles:
        picture = picture[::-1, ::-1]
    if "cut off" in troubles:
        picture = picture[:, picture.shape[1] // 12 :]
    return _encoded(_noisy(picture, random), ".png")


def photograph(
    sheet: DrawnSheet,
    lens: Lens | None = None,
    seed: int = 0,
    troubles: Sequence[Trouble] = (),
) -> bytes:
    """Return the photograph a camera held over a sheet on a table takes, as JPEG."""
    lens = lens or Lens()
    random = np.random.default_rng(seed)
    per_mm = lens.pixels / max(sheet.width, sheet.height) * 0.9
    paper = _spoilt(_drawn(sheet, per_mm, random), troubles, random)
    high, wide = paper.shape
    room = round(0.05 * max(high, wide))
    table = np.full((high + 2 * room, wide + 2 * room), 90.0, np.float32)
    table[room:-room, room:-room] = paper
    picture = _bent(_tilted(_turned(table, lens.turn, 90.0), lens.tilt), lens.bend)
    across = np.linspace(1.0, 1.0 - lens.shade, picture.shape[1], dtype=np.float32)
    picture = picture * across
    if "upside down" in troubles:
        picture = picture[::-1, ::-1]
    if "cut off" in troubles:
        picture = picture[:, picture.shape[1] // 5 :]
    if "blur" in troubles:
        picture = cv2.GaussianBlur(picture, (0, 0), lens.pixels / 1000)
    picture = cv2.GaussianBlur(np.ascontiguousarray(picture), (0, 0), 0.7)
    return _encoded(_noisy(picture, random), ".jpg", lens.quality)


def _encoded(picture: npt.NDArray[np.float32], ending: str, quality: int = 0) -> bytes:
    settings = [cv2.IMWRITE_JPEG_QUALITY, quality] if quality else []
    done, content = cv2.imencode(ending, np.clip(picture, 0, 255).astype(np.uint8), settings)
    if not done:
        raise ValueError(f"no picture of kind {ending}")
    return content.tobytes()


def _drawn(
    sheet: DrawnSheet, per_mm: float, random: np.random.Generator
) -> npt.NDArray[np.float32]:
    """Return the sheet in graphite on paper, so many pixels a millimetre."""
    shape = round(sheet.height * per_mm), round(sheet.width * per_mm)
    dark = np.zeros(shape, np.float32)
    for width in sorted({stroke.width for stroke in sheet.strokes}):
        for shade in sorted({stroke.dark for stroke in sheet.strokes if stroke.width == width}):
            layer = np.zeros(shape, np.uint8)
            for stroke in sheet.strokes:
                if (stroke.width, stroke.dark) == (width, shade):
                    _put(layer, stroke, sheet.height, per_mm)
            dark = np.maximum(dark, layer.astype(np.float32) * (shade / 255))
    layer = np.zeros(shape, np.uint8)
    for text in sheet.lettering:
        size = text.height * per_mm / LETTER
        thick = max(1, round(0.25 * per_mm) - 1)
        (long, _), _ = cv2.getTextSize(text.text, FONT, size, thick)
        back = {"start": 0.0, "middle": 0.5, "end": 1.0}[text.anchor] * long
        at = (round(text.x * per_mm - back), round((sheet.height - text.y) * per_mm))
        cv2.putText(layer, text.text, at, FONT, size, 255, thick, cv2.LINE_AA)
    dark = np.maximum(dark, layer.astype(np.float32) / 255)
    grain = cv2.GaussianBlur(random.standard_normal(shape, np.float32), (0, 0), 0.8)
    found = PAPER - dark * (PAPER - 45) * (1 + 0.25 * grain) + GRAIN / 4 * grain
    return np.asarray(found, np.float32)


FONT = cv2.FONT_HERSHEY_SIMPLEX
LETTER = 21.0
"""Height of its capitals at size 1, pixels."""


def _put(layer: Picture, stroke: Stroke, height: float, per_mm: float) -> None:
    x = stroke.places.real * per_mm - 0.5
    y = (height - stroke.places.imag) * per_mm - 0.5
    if not np.all(np.isfinite(x + y)) or max(np.max(np.abs(x)), np.max(np.abs(y))) > FARTHEST:
        return
    corners = np.round(np.column_stack((x, y)) * 2**SUBPIXEL).astype(np.int32)
    # What is smoothed comes out a pixel wider.
    thick = max(1, round(stroke.width * per_mm) - 1)
    cv2.polylines(layer, [corners.reshape(-1, 1, 2)], False, 255, thick, cv2.LINE_AA, SUBPIXEL)


FARTHEST = 100_000
"""Pixels beyond which nothing is drawn."""


def _spoilt(
    paper: npt.NDArray[np.float32], troubles: Sequence[Trouble], random: np.random.Generator
) -> npt.NDArray[np.float32]:
    high, wide = paper.shape
    if "smudge" in troubles:
        cloud = np.zeros(paper.shape, np.float32)
        for x, y in random.uniform(0.2, 0.8, (6, 2)):
            axes = (round(wide * 0.06), round(high * 0.02))
            cv2.ellipse(cloud, (round(x * wide), round(y * high)), axes, 30, 0, 360, 1.0, -1)
        paper = paper - 45 * cv2.GaussianBlur(cloud, (0, 0), wide / 80)
    if "coffee" in troubles:
        ring = np.zeros(paper.shape, np.float32)
        middle = (round(0.62 * wide), round(0.45 * high))
        cv2.circle(ring, middle, round(0.12 * high), 1.0, round(0.012 * high), cv2.LINE_AA)
        paper = paper - 55 * cv2.GaussianBlur(ring, (0, 0), wide / 500)
    if "folded corner" in troubles:
        fold = round(0.09 * high)
        corners = np.array([(wide - fold, 0), (wide, 0), (wide, fold)], np.int32)
        paper = cv2.fillPoly(paper.copy(), [corners], PAPER - 30)
    if "thumb" in troubles:
        middle = (round(0.35 * wide), high)
        axes = (round(0.045 * wide), round(0.11 * high))
        paper = cv2.ellipse(paper.copy(), middle, axes, 0, 0, 360, 130.0, -1)
    return paper


def _turned(
    paper: npt.NDArray[np.float32], degrees: float, about: float
) -> npt.NDArray[np.float32]:
    high, wide = paper.shape
    turn = cv2.getRotationMatrix2D((wide / 2, high / 2), degrees, 1.0)
    found = cv2.warpAffine(paper, turn, (wide, high), flags=cv2.INTER_CUBIC, borderValue=about)
    return np.asarray(found, np.float32)


def _tilted(picture: npt.NDArray[np.float32], share: float) -> npt.NDArray[np.float32]:
    high, wide = picture.shape
    inset = share * wide / 2
    flat = np.array([(0, 0), (wide, 0), (wide, high), (0, high)], np.float32)
    seen = np.array([(inset, inset / 2), (wide - inset, 0), (wide, high), (0, high)], np.float32)
    turn = cv2.getPerspectiveTransform(flat, seen)
    found = cv2.warpPerspective(
        picture, turn, (wide, high), flags=cv2.INTER_CUBIC, borderValue=90.0
    )
    return np.asarray(found, np.float32)


def _bent(picture: npt.NDArray[np.float32], bend: float) -> npt.NDArray[np.float32]:
    """Return a picture as a lens bends it: a place at r comes from r·(1 + bend·r²)."""
    if not bend:
        return picture
    high, wide = picture.shape
    half = np.hypot(high, wide) / 2
    y, x = np.mgrid[:high, :wide].astype(np.float32)
    x, y = x - wide / 2, y - high / 2
    more = 1 + np.float32(bend) * (x * x + y * y) / np.float32(half * half)
    found = cv2.remap(
        picture, x * more + wide / 2, y * more + high / 2, cv2.INTER_CUBIC, borderValue=90.0
    )
    return np.asarray(found, np.float32)


def _noisy(
    picture: npt.NDArray[np.float32], random: np.random.Generator
) -> npt.NDArray[np.float32]:
    return picture + NOISE * random.standard_normal(picture.shape, np.float32)
