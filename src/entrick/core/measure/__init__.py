"""Exact lengths, units, scales and rule readings."""

from .number import Dimension, MeasureError, Number, Quantity, read_number, spell, spell_angle
from .reading import Reading, read_on_rule
from .rule_piece import RulePiece, piece_about
from .scale import Scale
from .units import Unit

__all__ = [
    "Dimension",
    "MeasureError",
    "Number",
    "Quantity",
    "Reading",
    "RulePiece",
    "Scale",
    "Unit",
    "piece_about",
    "read_number",
    "read_on_rule",
    "spell",
    "spell_angle",
]
