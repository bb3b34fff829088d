"""From outlines to a cutter's program: where the middle of the tool runs, what is set on the
machine, and the program in ISO 6983."""

from .machine import Machine, machines, read_machine
from .paths import Cut, Lead, tool_paths
from .program import write_program

__all__ = [
    "Cut",
    "Lead",
    "Machine",
    "machines",
    "read_machine",
    "tool_paths",
    "write_program",
]
