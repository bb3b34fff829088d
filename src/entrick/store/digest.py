"""A digest of everything one revision says: written beside it, so that a changed byte on the disk
shows."""

from __future__ import annotations

import hashlib
import json
from datetime import datetime

STAMP = "%Y-%m-%d %H:%M:%S.%f"
"""How a time stands in the database, in UTC."""


def digest_of(
    job_id: int, number: int, based_on: int | None, text: str, note: str, saved_at: datetime | str
) -> str:
    """Return the digest of a revision (SHA-256, hexadecimal)."""
    stamp = saved_at if isinstance(saved_at, str) else saved_at.strftime(STAMP)
    said = json.dumps([job_id, number, based_on, text, note, stamp], ensure_ascii=False)
    return hashlib.sha256(said.encode("utf-8", "surrogatepass")).hexdigest()
