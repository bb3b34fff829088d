"""What a kind of construction is made of: the first folder to open for whoever adds one.

`declared` says what a kind is, `args` what it is given, `made` what it gives, `choosing` how
several solutions are told apart."""

from ..drawing.strokes import Role, Stroke, Tool
from .args import Args, ClauseValues, Length, Value
from .choosing import CHOICES, Candidate, Option, Undecided, choose
from .declared import GROUPS, Kind
from .made import Made, Placing

__all__ = [
    "CHOICES",
    "GROUPS",
    "Args",
    "Candidate",
    "ClauseValues",
    "Kind",
    "Length",
    "Made",
    "Option",
    "Placing",
    "Role",
    "Stroke",
    "Tool",
    "Undecided",
    "Value",
    "choose",
]
