"""Tasks by their names: the web process asks hands for them, and loads nothing of what they need."""

from __future__ import annotations

from dataclasses import dataclass
from importlib import import_module
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from . import tasks as tasks


@dataclass(frozen=True, slots=True)
class Task:
    """A function of `web/tasks`, loaded by whoever carries it out."""

    name: str

    def __call__(self, *args: Any) -> Any:
        """Carry the task out here."""
        return getattr(import_module(".tasks", __package__), self.name)(*args)


class _Named:
    def __getattr__(self, name: str) -> Task:
        return Task(name)


if not TYPE_CHECKING:
    tasks = _Named()
