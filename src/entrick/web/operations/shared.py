"""What several subjects answer with, and read."""

from __future__ import annotations

import re

from ...core.board.kit import Kit
from ...core.board.kits import read_kit
from ...core.geometry import Point
from ...core.memo import remembered
from ..answer import Answer

MEDIA = {
    "pdf": "application/pdf",
    "svg": "image/svg+xml",
    "csv": "text/csv; charset=utf-8",
}
"""Of files that are written of a part of a plan."""


def as_file(
    content: str | bytes, name: str, ending: str, media: str = "", apart: str = ""
) -> Answer:
    """Answer with a file to be kept under a name; `apart` stands behind it."""
    stem = re.sub(r"[^A-Za-z0-9-]+", "-", name).strip("-")[:100] or "plan"
    written = content.encode("utf-8", "replace") if isinstance(content, str) else content
    disposition = f'attachment; filename="{stem}{apart}.{ending}"'
    return Answer(written, media or MEDIA[ending], {"Content-Disposition": disposition})


def as_picture(svg: str) -> Answer:
    """Answer with a picture; it stays as it is for a day."""
    return Answer(svg.encode(), MEDIA["svg"], {"Cache-Control": "private, max-age=86400"})


@remembered()
def kit_of(text: str) -> Kit | None:
    """Return the kit that is asked for; the same text is the same kit, so that what was worked out
    with it is kept."""
    return read_kit(text) if text else None


def pair(point: Point | None) -> tuple[float, float] | None:
    """Return a place as two numbers."""
    return None if point is None else (point.x, point.y)
