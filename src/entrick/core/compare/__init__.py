"""Outlines as made held against outlines as meant: how far they are apart all along, where most,
and whether that is within a tolerance."""

from .apart import Apart, Compared, Spot, compared
from .laid import Laid, laid_over

__all__ = ["Apart", "Compared", "Laid", "Spot", "compared", "laid_over"]
