"""A picture of a finished sheet looked at: read, straightened, measured."""

from __future__ import annotations

import base64
from dataclasses import dataclass

import cv2
import numpy as np

from ..core.desk import Work
from ..core.look.finding import TOLERANCE, Finding
from ..core.look.looking import NotThisSheet, look_at
from ..core.look.straight import Straight, frame_of
from ..core.rehearsal.carry_out import NotDrawn
from .read import PictureError, read_picture
from .straighten import straighten

# The desk gives one request one processor; results do not hang on how many there are.
cv2.setNumThreads(1)


@dataclass(frozen=True)
class Looked:
    """A sheet looked at, with its straightened picture."""

    finding: Finding
    straight: Straight


def look_at_picture(work: Work, content: bytes, tolerance: float = TOLERANCE) -> Looked:
    """Look at a picture of the finished sheet of a plan.

    Parameters
    ----------
    work : Work
    content : bytes
        PNG, JPEG, TIFF, or a PDF that holds a picture.
    tolerance : float
        Mm on paper.

    Raises
    ------
    PictureError
        Where it cannot be used, or shows no sheet of this plan: says why, and what to do.
    """
    frame = frame_of(work.sheet, work.drawing.ground)
    if frame is None or not frame.strip:
        raise PictureError(
            "this plan's sheet has no border and title strip to measure by; say a border in its "
            "sheet line and draw it, or measure places instead"
        )
    straight = straighten(read_picture(content), frame)
    try:
        return Looked(look_at(work, straight, tolerance), straight)
    except NotThisSheet as error:
        raise PictureError(str(error)) from error
    except NotDrawn as error:
        raise PictureError(f"this plan cannot be drawn to its end yet: {error}") from error


SHOWN = 6.0
"""Pixels a millimetre at most in the picture that is shown."""

MOST_SHOWN = 3000
"""Pixels on its long side."""


def shown(straight: Straight) -> str:
    """Return a straightened picture as it is shown: a JPEG as the address of an image."""
    high, wide = straight.ink.shape
    share = min(1.0, SHOWN / straight.per_mm, MOST_SHOWN / max(high, wide))
    small = cv2.resize(straight.ink, None, fx=share, fy=share, interpolation=cv2.INTER_AREA)
    grey = np.clip(255 - 255 * small, 0, 255).astype(np.uint8)
    _, content = cv2.imencode(".jpg", grey, [cv2.IMWRITE_JPEG_QUALITY, 82])
    return "data:image/jpeg;base64," + base64.b64encode(content.tobytes()).decode("ascii")
