"""A torch: it pierces higher than it cuts, waits until it is through, and goes slowly near corners
and in small holes."""

from __future__ import annotations

from ..along import leads, start_of, with_slow
from ..blocks import Blocks
from ..machine import Machine
from ..paths import Cut


def told(machine: Machine) -> str:
    """Return what is set, for the head."""
    return (
        f"PIERCE {machine.pierce:g} S AT {machine.pierce_height:.4g}, CUT AT "
        f"{machine.cut_height:.4g}, FEED {machine.feed:.5g}, {machine.slow:g} PER CENT AT CORNERS"
    )


def cut_out(cut: Cut, machine: Machine, _: float, out: Blocks) -> None:
    """Cut once round, pierced in the waste where there is room."""
    into, out_of = leads(cut, machine)
    slow = machine.feed * machine.slow / 100
    out.up(machine.safe)
    out.over(start_of(cut, machine))
    if not out.dry:
        out.up(machine.pierce_height)
    out.on("M3")
    out.wait(machine.pierce)
    out.down(machine.cut_height, machine.feed)
    for move in into:
        out.along(move, machine.feed)
    for stretch in with_slow(cut, machine):
        out.along(stretch.move, slow if stretch.slow else machine.feed)
    for move in out_of:
        out.along(move, machine.feed)
    out.off()
    out.up(machine.safe)
