"""The kinds of construction, ONE FILE PER KIND.

A module of this package that declares ``KIND`` is a kind; nothing else needs to know about it.
"""

from __future__ import annotations

from functools import cache
from importlib import import_module
from pkgutil import iter_modules

from ..kind import GROUPS, Kind


@cache
def kinds() -> dict[str, Kind]:
    """Return every kind by the name the plan calls it."""
    modules = (import_module(f"{__name__}.{info.name}") for info in iter_modules(__path__))
    found = [module.KIND for module in modules if hasattr(module, "KIND")]
    return {kind.name: kind for kind in sorted(found, key=lambda kind: (GROUPS.index(kind.group), kind.name))}
