"""The ``entrick`` command: solve, draw and check a plan from the shell; serve the desk.

Each command is loaded when it is asked for.
"""

from __future__ import annotations

from importlib import import_module

import click

COMMANDS = {
    "solve": "plans.solve",
    "draw": "plans.draw",
    "check": "plans.check",
    "carry-out": "plans.carry_out",
    "rehearse": "plans.rehearse",
    "read-back": "files.read_back_",
    "cut": "files.cut",
    "compare": "files.compare",
    "look": "looking.look",
    "look-class": "looking.look_class",
    "scan": "looking.scan",
    "handbook": "handbook.handbook",
    "people": "people.people",
    "serve": "serving.serve",
    "backup": "register.backup",
    "restore": "register.restore",
    "export": "register.export_",
    "import": "register.import_",
    "set": "sets.sets",
    "mark": "sets.mark",
}
"""Each command by the module it stands in."""


class _Commands(click.Group):
    def list_commands(self, ctx: click.Context) -> list[str]:
        return sorted(COMMANDS)

    def get_command(self, ctx: click.Context, cmd_name: str) -> click.Command | None:
        if cmd_name not in COMMANDS:
            return None
        module, _, name = COMMANDS[cmd_name].partition(".")
        command: click.Command = getattr(import_module(f".{module}", __name__), name)
        return command


@click.group(cls=_Commands)
def main() -> None:
    """A setting-out desk: givens in, centres, settings and a proved outline out."""
