"""A tool that is on or off, and nothing else."""

from __future__ import annotations

from ..along import leads, moves_of, start_of
from ..blocks import Blocks
from ..machine import Machine
from ..paths import Cut


def told(machine: Machine) -> str:
    """Return what is set, for the head."""
    return f"FEED {machine.feed:.5g}, TOOL ON AND OFF"


def cut_out(cut: Cut, machine: Machine, _: float, out: Blocks) -> None:
    """Cut once round."""
    into, out_of = leads(cut, machine)
    out.over(start_of(cut, machine))
    out.on("M3")
    for move in (*into, *moves_of(cut), *out_of):
        out.along(move, machine.feed)
    out.off()
