"""What things are called in told words: which thing is meant goes along, so that it can be said by
the letter that stands on the sheet, once it is known which have one."""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping

_OPEN, _SPLIT, _CLOSE = "\x01", "\x02", "\x03"
_NAMED = re.compile(f"{_OPEN}([^{_OPEN}{_SPLIT}]*){_SPLIT}([^{_OPEN}{_CLOSE}]*){_CLOSE}")


def named(key: str, called: str) -> str:
    """Return what a thing is called, with the thing itself.

    Parameters
    ----------
    key : str
        Under which it stands on the sheet.
    called : str
        What it is called where it has no letter.
    """
    return f"{_OPEN}{key}{_SPLIT}{called}{_CLOSE}"


def keys_in(text: str) -> Iterator[str]:
    """Yield the keys of what is named in a text."""
    return (part.partition(_SPLIT)[0] for part in text.split(_OPEN)[1:])


def spelt(text: str, letters: Mapping[str, str]) -> str:
    """Return a text with every thing by its letter, or as it is called where it has none.

    >>> spelt(f"the line through {named('A:1', 'A')} and {named('c:2', 'c.touch')}", {"c:2": "1"})
    'the line through A and 1'
    """
    while _OPEN in text:
        text = _NAMED.sub(lambda found: letters.get(found[1], found[2]), text)
    return text


def plain(text: str) -> str:
    """Return a text with every thing as it is called."""
    return spelt(text, {})
