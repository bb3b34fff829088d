"""What tasks give back: an answer for HTTP, or a refusal."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any


class Refused(ValueError):
    """What was asked for is understood and not done; says with which status, and why."""

    def __init__(self, status: int, title: str, detail: str) -> None:
        super().__init__(status, title, detail)
        self.status, self.title, self.detail = status, title, detail


@dataclass(frozen=True, slots=True)
class Answer:
    """What goes back over HTTP; `kept` is for the register, and does not."""

    content: bytes
    type: str = "application/json"
    headers: Mapping[str, str] = field(default_factory=dict)
    kept: Mapping[str, Any] | None = None
