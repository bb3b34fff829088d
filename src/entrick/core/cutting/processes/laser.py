"""A beam: its power follows the speed (M4), and it goes round as often as it takes."""

from __future__ import annotations

from ..along import leads, start_of, with_tabs
from ..blocks import Blocks
from ..machine import Machine
from ..paths import Cut


def told(machine: Machine) -> str:
    """Return what is set, for the head."""
    tabs = f", {machine.tabs} BRIDGES OF {machine.tab_width:.4g}" if machine.tabs else ""
    times = f", {machine.passes} TIMES ROUND" if machine.passes > 1 else ""
    return f"S{machine.power:.0f} OF 1000, FEED {machine.feed:.5g}{times}{tabs}"


def cut_out(cut: Cut, machine: Machine, tool: float, out: Blocks) -> None:
    """Cut once round or several times; at a bridge the beam is off."""
    into, out_of = leads(cut, machine)
    power = f"M4 S{machine.power:.0f}"
    path = with_tabs(cut, machine, tool)
    for _ in range(machine.passes):
        out.over(start_of(cut, machine))
        out.on(power)
        out.wait(machine.pierce)
        for move in into:
            out.along(move, machine.feed)
        lit = True
        for stretch in path:
            if stretch.tab == lit:
                lit = not lit
                if lit:
                    out.on(power)
                else:
                    out.off()
            out.along(stretch.move, machine.feed)
        if not lit:
            out.on(power)
        for move in out_of:
            out.along(move, machine.feed)
        out.off()
