"""The plan language: a page for each section of its guide."""

from __future__ import annotations

import re
from collections.abc import Sequence
from importlib.resources import files
from textwrap import shorten

from ..page import Chapter, Page


def guide() -> str:
    """Return the guide to the language, without the kinds."""
    return files("entrick.core.handbook").joinpath("language.md").read_text("utf-8")


def _pages() -> Sequence[Page]:
    first, *rest = re.split(r"^## (.+)\n", guide(), flags=re.M)
    begin = first.partition("\n")[2].strip()
    pages = [Page("plan", "A plan", "what a job's content is", begin)]
    for title, text in zip(rest[::2], rest[1::2], strict=True):
        plain = re.sub(r"\s+", " ", text.strip().translate({ord(sign): "" for sign in "*`"}))
        opening = shorten(re.split(r"[.:;]\s", plain, maxsplit=1)[0], 90, placeholder=" …")
        key = re.sub(r"\W+", "-", title.lower())
        pages.append(Page(key, title, opening, text.strip()))
    return pages


CHAPTER = Chapter("language", "The plan language", _pages)
