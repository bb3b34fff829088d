"""Where a register stands, as it is said to a command."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import click


class Register(click.ParamType[Any]):
    """Where a register stands: a file, or the address of a server."""

    name = "file or address"

    def convert(self, value: Any, param: click.Parameter | None, ctx: click.Context | None) -> Any:
        """Return a path, or the address as it is."""
        if isinstance(value, Path) or "://" in str(value):
            return value
        if Path(value).is_dir():
            self.fail(f"{value} is a folder, and no register", param, ctx)
        return Path(value)
