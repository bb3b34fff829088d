"""What a format is."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from ...desk import Work
from ...proof import why_not_cut
from ..dxf import ENTITIES, Ovals
from ..run_sheet import Paper

Choice = Literal["construction", "ovals", "paper"]
"""What may be chosen for a file: whether it keeps the construction, how ellipses are written, the
paper."""


@dataclass(frozen=True, slots=True)
class Options:
    """What was chosen for a file; a format looks at those choices it takes."""

    construction: bool = True
    ovals: Ovals = ENTITIES
    paper: Paper = "A4"


@dataclass(frozen=True, slots=True)
class Format:
    """A file a plan goes out as.

    Attributes
    ----------
    place : int
        Where it stands among the others.
    key : str
        As the API and the shell call it.
    label, about : str
        As the page calls it, and what it tells of it.
    ending, media : str
        Of the file.
    write : callable
        From a plan worked out to what is in the file.
    takes : tuple of str
        What may be chosen for it.
    apart : str
        Stands behind the name of a file that is not to be taken for another of the same ending.
    for_cutting : bool
        Whether it goes to a machine: it is refused while an outline is open or doubled.
    without_work : callable, optional
        From the text of a plan that asks for too much to be worked out to what is in the file.
    """

    place: int
    key: str
    label: str
    about: str
    group: str
    ending: str
    media: str
    write: Callable[[Work, Options], str | bytes]
    takes: tuple[Choice, ...] = ()
    apart: str = ""
    for_cutting: bool = False
    without_work: Callable[[str], str] | None = None

    def refusal(self, work: Work) -> str:
        """Return why a plan should not go out like this, empty when nothing speaks against it."""
        return why_not_cut(work.findings) if self.for_cutting else ""

    def written(self, work: Work, options: Options) -> bytes:
        """Return what is in the file."""
        content = self.write(work, options)
        return content.encode("utf-8", "replace") if isinstance(content, str) else content
