"""The instruments of a kit, with a picture of each, and what is done where one is missing."""

from __future__ import annotations

from collections.abc import Sequence

from ...board.kits import ITEMS
from ...board.lacking import INSTEAD
from ..page import Chapter, Page, sections


def _pages() -> Sequence[Page]:
    found: dict[str, Page] = {}
    for item in ITEMS:
        key = item.shown_as or item.key
        if key in found or (item.sort.name == "list" and key == "papers"):
            continue
        title = item.label.partition(",")[0]
        asked = [each.label for each in ITEMS if (each.shown_as or each.key) == key]
        text = "\n\n".join(
            (
                f"![{title}](/api/pictures/instrument.svg?item={key})",
                f"A kit says of it: {'; '.join(asked)}.",
                sections(("Where there is none", INSTEAD.get(key, ""))),
            )
        )
        found[key] = Page(key, title, "; ".join(asked), text)
    return list(found.values())


CHAPTER = Chapter("instruments", "Instruments", _pages)
