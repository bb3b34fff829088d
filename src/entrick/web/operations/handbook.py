"""The handbook: its chapters, its pages, what stands where, and the figures of both."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from ...core import handbook as book
from ..answer import Answer, Refused
from ..base import Asked, Crossing
from ..operation import Operations
from .shared import as_picture

Key = Annotated[str, Field(max_length=60)]


class HandbookQuery(Asked):
    """A page of the handbook."""

    chapter: Key
    page: Key


class FigureQuery(HandbookQuery):
    """The figure of a page; small, as it stands in a list, or as large as the page."""

    small: bool = False


class FindQuery(Asked):
    """Words that are looked for in the handbook."""

    words: Annotated[str, Field(max_length=200)]


class LeafOut(Crossing):
    """A page as it is listed; `figured` where the desk draws a figure of it."""

    chapter: str
    key: str
    title: str
    summary: str
    group: str
    also: tuple[str, ...]
    figured: bool


class ChapterOut(Crossing):
    """A chapter with its pages."""

    key: str
    title: str
    pages: tuple[LeafOut, ...]


class HandbookOut(Crossing):
    """Every chapter, in the order in which they are bound."""

    chapters: tuple[ChapterOut, ...]


class PageOut(Crossing):
    """A page: as it is listed, and what it says, as Markdown."""

    leaf: LeafOut
    markdown: str


class FoundPagesOut(Crossing):
    """The pages in which some words stand, the nearest first."""

    pages: tuple[LeafOut, ...]


handbook = Operations()


def _leaf(chapter: str, page: book.Page) -> LeafOut:
    return LeafOut.from_core(page, chapter=chapter, figured=bool(page.plan))


@handbook.get("/handbook")
def list_handbook() -> HandbookOut:
    """Return every chapter with its pages."""
    return HandbookOut(
        chapters=tuple(
            ChapterOut(
                key=chapter.key,
                title=chapter.title,
                pages=tuple(_leaf(chapter.key, page) for page in book.pages_of(chapter.key)),
            )
            for chapter in book.chapters()
        )
    )


@handbook.get("/handbook/find")
def find_in_handbook(query: FindQuery) -> FoundPagesOut:
    """Return the pages in which all of some words stand, those first that are called so."""
    return FoundPagesOut(
        pages=tuple(_leaf(each.key, page) for each, page in book.find(query.words))
    )


@handbook.get("/handbook/page")
def handbook_page(query: HandbookQuery) -> PageOut:
    """Return a page of the handbook."""
    page = _page(query)
    return PageOut(
        leaf=_leaf(query.chapter, page), markdown=book.as_markdown(query.chapter, query.page)
    )


@handbook.get("/handbook/figure.svg")
def handbook_figure(query: FigureQuery) -> Answer:
    """Return the figure of a page, as the desk draws it."""
    page = _page(query)
    if not page.plan:
        raise Refused(404, "No figure", f"{page.title} has no figure")
    return as_picture(book.figure(page, query.small))


def _page(query: HandbookQuery) -> book.Page:
    page = book.page_of(query.chapter, query.page)
    if page is None:
        raise Refused(404, "Not in the handbook", f"there is no page {query.page}")
    return page
