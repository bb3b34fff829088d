"""The words of the trade."""

from __future__ import annotations

from collections.abc import Sequence

from ...assist.glossary import WORDS
from ..page import Chapter, Page


def _pages() -> Sequence[Page]:
    rows = "\n\n".join(f"**{word}**: {meaning}" for word, meaning in sorted(WORDS.items()))
    return [Page("words", "Words of the trade", "each in a sentence", rows, tuple(WORDS))]


CHAPTER = Chapter("words", "Words", _pages)
