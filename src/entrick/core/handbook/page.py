"""What a page of the handbook is, and a chapter of them."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, field


def nothing() -> str:
    """Say no more."""
    return ""


@dataclass(frozen=True, slots=True)
class Page:
    """A page of the handbook, as Markdown.

    Attributes
    ----------
    key : str
        In its address.
    title : str
    summary : str
        One line, for the list of pages.
    text : str
        What is searched, and stands first.
    also : tuple of str
        Other words by which it is found.
    group : str
        Under which heading of its chapter it is listed.
    plan : str
        A plan that shows it, from which the desk draws its figure; empty where there is none.
    more : callable
        What is worked out when the page is opened, as Markdown.
    """

    key: str
    title: str
    summary: str
    text: str
    also: tuple[str, ...] = ()
    group: str = ""
    plan: str = ""
    more: Callable[[], str] = field(default=nothing)


@dataclass(frozen=True, slots=True)
class Chapter:
    """A chapter: its key in addresses, its title, and its pages in order."""

    key: str
    title: str
    pages: Callable[[], Sequence[Page]]


def table(heads: Sequence[str], rows: Iterable[Sequence[str]]) -> str:
    """Write a table as Markdown."""
    lines = [" | ".join(row) for row in (heads, ["---"] * len(heads), *rows)]
    return "\n".join(f"| {line} |" for line in lines)


def listed(rows: Iterable[str], numbered: bool = False) -> str:
    """Write a list as Markdown."""
    return "\n".join(
        f"{number}. {row}" if numbered else f"- {row}" for number, row in enumerate(rows, 1)
    )


def sections(*parts: tuple[str, str]) -> str:
    """Write some sections under their headings; those that say nothing are left out."""
    return "\n\n".join(f"## {head}\n\n{body}" for head, body in parts if body)


def worked(plan: str) -> str:
    """Write a plan so that it can be put on the bench."""
    return f"```entrick\n{plan}```"
