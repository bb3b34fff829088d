"""How tasks answer."""

from __future__ import annotations

import re
from functools import lru_cache

from pydantic import BaseModel

from ...core.board.kit import Kit
from ...core.board.kits import read_kit
from ..answer import Answer


def as_json(model: BaseModel) -> Answer:
    """Answer with data."""
    return Answer(model.model_dump_json().encode())


@lru_cache(maxsize=32)
def kit_of(text: str) -> Kit | None:
    """Return the kit that is asked for; the same text is the same kit, so that what was worked out with it is kept."""
    return read_kit(text) if text else None


_TYPES = {
    "pdf": "application/pdf",
    "svg": "image/svg+xml",
    "dxf": "image/vnd.dxf",
    "cutter": "image/vnd.dxf",
    "run-sheet": "application/pdf",
    "csv": "text/csv; charset=utf-8",
    "entrick": "text/plain; charset=utf-8",
}
_ENDINGS = {"cutter": "dxf", "run-sheet": "pdf"}
_APART = {"cutter": "-outlines", "run-sheet": "-run-sheet"}
"""What stands behind the name of a file that is not to be taken for another of the same ending."""


def as_file(content: str | bytes, format: str, name: str) -> Answer:
    """Answer with a file to be kept under a name."""
    stem = re.sub(r"[^A-Za-z0-9-]+", "-", name).strip("-")[:100] or "plan"
    kept = f'attachment; filename="{stem}{_APART.get(format, "")}.{_ENDINGS.get(format, format)}"'
    written = content.encode("utf-8", "replace") if isinstance(content, str) else content
    return Answer(written, _TYPES[format], {"Content-Disposition": kept})
