"""Lessons on the bench itself: a file for each, taken up at any time."""

from __future__ import annotations

from functools import cache
from importlib import import_module
from pkgutil import iter_modules

from .lesson import Lesson, Task

__all__ = ["Lesson", "Task", "lessons"]

ORDER = ("link", "cam", "gear", "checked")
"""Lessons as they build on each other."""


@cache
def lessons() -> dict[str, Lesson]:
    """Return every lesson by its key, those first that others build on."""
    modules = (import_module(f"{__name__}.{info.name}") for info in iter_modules(__path__))
    found = {module.LESSON.key: module.LESSON for module in modules if hasattr(module, "LESSON")}
    return {key: found[key] for key in ORDER}
