"""Exact lengths, units, scales and rule readings."""

from .number import Dimension, MeasureError, Number, Quantity, read_number, spell, spell_angle
from .reading import Reading, read_on_rule
from .scale import Scale
from .units import Unit

__all__ = [
    "Dimension",
    "MeasureError",
    "Number",
    "Quantity",
    "Reading",
    "Scale",
    "Unit",
    "read_number",
    "read_on_rule",
    "spell",
    "spell_angle",
]
