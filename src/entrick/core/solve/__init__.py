"""From a plan to a figure: every statement that can be constructed is, whatever is wrong with the
others."""

from .run import solve, solve_changed
from .solution import Entry, GivenEntry, Solution, is_projected
from .values import spoken

__all__ = ["Entry", "GivenEntry", "Solution", "is_projected", "solve", "solve_changed", "spoken"]
