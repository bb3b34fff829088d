"""Files a plan goes out as, ONE FILE PER FORMAT.

A module of this package that declares ``FORMAT`` is a format: the API, the shell and the page
*Issue* are made of it."""

from __future__ import annotations

from functools import cache
from importlib import import_module
from pkgutil import iter_modules

from .format import Format, Options

__all__ = ["Format", "Options", "formats"]


@cache
def formats() -> dict[str, Format]:
    """Return every format by its key, in the order in which they are offered."""
    modules = (import_module(f"{__name__}.{info.name}") for info in iter_modules(__path__))
    found = [module.FORMAT for module in modules if hasattr(module, "FORMAT")]
    return {each.key: each for each in sorted(found, key=lambda each: each.place)}
