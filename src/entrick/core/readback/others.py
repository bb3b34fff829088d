"""Other plans that come to the same outlines, where the shape does not decide how it was given."""

from __future__ import annotations

from ..measure import Unit
from .profile import Profile, ProfileError
from .write import ReadBack, Ways, read_back

WAYS: dict[str, tuple[str, Ways]] = {
    "corner": ("measured from the lower left corner", Ways(datum="corner")),
    "each": ("nothing taken for a copy of another", Ways(copies=False)),
    "lying": ("turned as it lies in the file", Ways(level=False)),
    "places": ("by coordinates alone", Ways(plainly=True)),
}
"""Ways a profile may be said besides the one that was chosen: what each is called, and what it asks
for."""

MOST_PIECES = 300
"""Pieces of a profile of which all ways are worked out at once."""


def others(
    profile: Profile, best: ReadBack, within: float | None, title: str
) -> dict[str, ReadBack]:
    """Return the other plans by their way; those that say the same, or cannot be had, are left out.

    Parameters
    ----------
    profile : Profile
    best : ReadBack
        What was chosen, whose unit they are in.
    within : float, optional
    title : str
    """
    if sum(map(len, profile.runs)) > MOST_PIECES:
        return {}
    result: dict[str, ReadBack] = {}
    told = {best.text}
    for way in (each for each in WAYS if best.turned or each != "lying"):
        other = said_otherwise(profile, way, best.unit, within, title)
        if other and other.text not in told:
            told.add(other.text)
            result[way] = other
    return result


def said_otherwise(
    profile: Profile, way: str, unit: Unit | None, within: float | None, title: str
) -> ReadBack | None:
    """Return the plan of a profile said in one of the other ways; None where it cannot be."""
    try:
        return read_back(profile, unit, within, title, WAYS[way][1])
    except ProfileError:
        return None
