"""What an operation gives back: an answer for HTTP, or a refusal."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any


class Refused(ValueError):
    """What was asked for is not done; says with which status, and why.

    Attributes
    ----------
    fields : mapping of str to str, optional
        What is wrong with a form, field by field.
    headers : mapping of str to str, optional
        What goes with the answer.
    """

    def __init__(
        self,
        status: int,
        title: str,
        detail: str,
        fields: Mapping[str, str] | None = None,
        headers: Mapping[str, str] | None = None,
    ) -> None:
        super().__init__(status, title, detail, fields, headers)
        self.status, self.title, self.detail = status, title, detail
        self.fields, self.headers = fields, headers or {}


@dataclass(frozen=True, slots=True)
class Answer:
    """What goes back over HTTP; `record` is for the register, and does not."""

    content: bytes
    type: str = "application/json"
    headers: Mapping[str, str] = field(default_factory=dict)
    status: int = 200
    record: Mapping[str, Any] | None = None
