"""The handbook: pages made from what kinds, rules, motions, slips and instruments declare of
themselves."""

from __future__ import annotations

from collections.abc import Iterator
from functools import cache
from importlib import import_module
from pkgutil import iter_modules

from ..desk import work_out
from ..display import draw_curves
from ..formats.svg import figure_svg, small_svg
from ..geometry import Line
from ..memo import remembered
from ..moves import kinds
from ..solve.named import drawn_curves
from . import chapters as _chapters
from .chapters.language import guide
from .page import Chapter, Page, worked

__all__ = [
    "Chapter",
    "Page",
    "as_markdown",
    "chapters",
    "figure",
    "find",
    "page_of",
    "pages_of",
    "whole",
]

ORDER = (
    "lessons",
    "language",
    "constructions",
    "inspection",
    "motions",
    "practice",
    "instruments",
    "words",
)
"""Chapters as they are bound."""

LONGEST_FIND = 8
"""Words that are looked for at once."""


@cache
def chapters() -> tuple[Chapter, ...]:
    """Return every chapter; a module of `chapters` with a ``CHAPTER`` is one."""
    names = [info.name for info in iter_modules(_chapters.__path__)]
    found = [import_module(f"{_chapters.__name__}.{name}").CHAPTER for name in names]
    return tuple(sorted(found, key=lambda chapter: ORDER.index(chapter.key)))


@cache
def _pages() -> dict[str, tuple[Page, ...]]:
    return {chapter.key: tuple(chapter.pages()) for chapter in chapters()}


def pages_of(chapter: str) -> tuple[Page, ...]:
    """Return the pages of a chapter; none where there is no such chapter."""
    return _pages().get(chapter, ())


def page_of(chapter: str, key: str) -> Page | None:
    """Return a page; None where there is none of that name."""
    return next((page for page in pages_of(chapter) if page.key == key), None)


def find(words: str) -> tuple[tuple[Chapter, Page], ...]:
    """Return the pages in which all of some words stand, those first that are called by them."""
    asked = words.lower().split()[:LONGEST_FIND]
    found = [
        (_nearness(page, asked), number, chapter, page)
        for number, (chapter, page) in enumerate(_every_page())
        if asked and all(word in _said(page) for word in asked)
    ]
    return tuple((chapter, page) for _, _, chapter, page in sorted(found, key=lambda one: one[:2]))


def _every_page() -> Iterator[tuple[Chapter, Page]]:
    return ((chapter, page) for chapter in chapters() for page in pages_of(chapter.key))


def _said(page: Page) -> str:
    return " ".join((page.title, *page.also, page.summary, page.text)).lower()


def _nearness(page: Page, asked: list[str]) -> int:
    whole, names = " ".join(asked), [page.title.lower(), *(word.lower() for word in page.also)]
    if whole in names:
        return 0
    if any(all(word in name for word in asked) for name in names):
        return 1
    return 2 if all(word in page.summary.lower() for word in asked) else 3


@remembered(200)
def as_markdown(chapter: str, key: str) -> str:
    """Return a page as Markdown: what it says, and what is worked out for it.

    Raises
    ------
    KeyError
        Where there is no such page.
    """
    page = page_of(chapter, key)
    if page is None:
        raise KeyError(key)
    return "\n\n".join(filter(None, (page.text, page.more()))) + "\n"


def whole() -> str:
    """Return the guide to the plan language with every kind, as one document."""
    words = "".join(
        f"\n### {page.title}\n{kind.about.strip()}\n\n{worked(kind.shown)}\n"
        for page in pages_of("constructions")
        if (kind := kinds()[page.key])
    )
    return f"{guide()}\n## Kinds\n{words}"


@remembered(200)
def figure(page: Page, small: bool = False) -> str:
    """Return the figure of a page as SVG: its plan drawn, cropped, without the sheet; where it is
    to be small, what the page is about stands out and nothing is lettered."""
    done = work_out(page.plan)
    entries = done.solution.entries
    own = [each for each in entries if each.statement.kind == page.key] or entries
    names = {each.statement.name for each in own}
    curves = [
        curve
        for name, curve in drawn_curves(done.solution)
        if name.partition(".")[0] in names and not (isinstance(curve, Line) and curve.end is None)
    ]
    made = draw_curves(curves, done.sheet)
    if not small:
        return figure_svg(done.display, *done.sheet.view, made)
    return small_svg(done.display, {each.line for each in own}, made)
