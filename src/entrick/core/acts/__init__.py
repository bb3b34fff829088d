"""What is done at the board: acts, what they leave on the sheet, and the procedures that kinds
compose of them."""

from .act import LEVEL, PLUMB, Act, Edge, Mark, Round, Setting, Traced, Way
from .paper import Paper
from .work import Work

__all__ = [
    "LEVEL",
    "PLUMB",
    "Act",
    "Edge",
    "Mark",
    "Paper",
    "Round",
    "Setting",
    "Traced",
    "Way",
    "Work",
]
