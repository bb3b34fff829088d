"""From outlines to a cutter's program: where the middle of the tool runs, and the program in ISO
6983."""

from .paths import Cut, Lead, tool_paths
from .program import write_program

__all__ = ["Cut", "Lead", "tool_paths", "write_program"]
