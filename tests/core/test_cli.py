"""The shell: every command is found under its name, loads by itself and says what it does."""

import subprocess
import sys

import pytest
from click import Group
from click.testing import CliRunner

from entrick.cli import COMMANDS, main


@pytest.mark.parametrize("name", COMMANDS)
def test_every_command_loads_and_tells_what_it_is_for(name: str) -> None:
    answer = CliRunner().invoke(main, [name, "--help"])
    assert answer.exit_code == 0, answer.output
    command = main.get_command(None, name)  # type: ignore[arg-type]
    assert command is not None
    assert command.name == name
    assert " ".join((command.help or "").split()[:6]) in " ".join(answer.output.split())
    assert isinstance(command, Group) == (name in ("set", "people"))


def test_all_commands_are_listed_and_an_unknown_one_is_told() -> None:
    listed = CliRunner().invoke(main, ["--help"]).output
    assert all(f"  {name} " in listed for name in COMMANDS)
    wrong = CliRunner().invoke(main, ["drawn"])
    assert wrong.exit_code == 2
    assert "No such command" in wrong.output


def test_the_command_that_serves_is_loaded_without_the_rest() -> None:
    """The hands are to be on their way before anything else is loaded."""
    code = (
        "import sys, entrick.cli as c; c.main.get_command(None, 'serve'); "
        "print([m for m in ('flask', 'sqlalchemy', 'numpy', 'lark', 'pydantic') if m in sys.modules])"
    )
    told = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert told.stdout.strip() == "[]"
