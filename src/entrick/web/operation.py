"""An operation of the API, told once: its address, what it takes, what it gives and what it does.

The signature of the function says what crosses: its parameters ``path``, ``query`` and ``body`` are
models of what is sent, and what it returns is the model of what comes back, or an `Answer` where
that is a file. Any other parameter is what the register knows and whoever works the answer out does
not; it is handed over by name."""

from __future__ import annotations

import inspect
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property
from importlib import import_module
from pkgutil import iter_modules
from typing import Any, Generic, TypeVar, get_args, get_origin, get_type_hints

from pydantic import BaseModel, ValidationError

from .answer import Answer, Refused

F = TypeVar("F", bound=Callable[..., Any])
M = TypeVar("M", bound=BaseModel)

SENT = ("path", "query", "body")
"""Parameters of an operation that are read from the request."""


@dataclass(frozen=True, slots=True)
class Sent:
    """A request as it came, not yet read."""

    method: str
    address: str
    path: Mapping[str, Any] = field(default_factory=dict)
    query: Mapping[str, str] = field(default_factory=dict)
    body: bytes = b""


@dataclass(frozen=True, slots=True)
class Recorded(Generic[M]):
    """What goes back, and what the register is to keep of it."""

    shown: M
    record: Mapping[str, Any]


@dataclass(frozen=True)
class Operation:
    """One operation.

    Attributes
    ----------
    method : str
    address : str
        Below the root of the desk; ``<name>`` in it is read into the field of that name of
        ``path``.
    function : callable
    status : int
        Of an answer that went well.
    otherwise : callable, optional
        Gives the answer from the reason and the same parameters where the work is more than the
        desk does at once.
    sends : str
        Media type of a body that is no JSON and is read by the function itself.
    deed : str
        What is done here, as the table says who may: see `core.office.may`.
    """

    method: str
    address: str
    function: Callable[..., Any]
    status: int = 200
    otherwise: Callable[..., Any] | None = None
    sends: str = ""
    deed: str = "work things out"

    @property
    def name(self) -> str:
        """What the operation is called by whoever asks for it."""
        return self.function.__name__

    @property
    def summary(self) -> str:
        """What it does, in a sentence or several."""
        return inspect.getdoc(self.function) or ""

    @cached_property
    def hints(self) -> dict[str, Any]:
        """The types of its parameters and of what it returns."""
        return get_type_hints(self.function)

    @cached_property
    def takes(self) -> dict[str, type[BaseModel]]:
        """Models of what is read from the request."""
        return {part: self.hints[part] for part in SENT if part in self.hints}

    @cached_property
    def gives(self) -> type[BaseModel] | None:
        """Model of what comes back; None for a file."""
        returned = self.hints["return"]
        if get_origin(returned) is Recorded:
            returned = get_args(returned)[0]
        return returned if issubclass(returned, BaseModel) else None

    def answer(self, sent: Sent, **given: Any) -> Any:
        """Read what was sent, do what is asked for, and write the answer; what is none of ours is
        given on as it is.

        Raises
        ------
        Refused
            When what was sent does not have the stated form.
        """
        return self._written(self.function(**self._read(sent), **given))

    def answer_otherwise(self, reason: str, sent: Sent) -> Answer | None:
        """Write the answer that needs no work; None where there is none."""
        if self.otherwise is None:
            return None
        found = self.otherwise(reason, **self._read(sent))
        return None if found is None else self._written(found)

    def _read(self, sent: Sent) -> dict[str, BaseModel]:
        parts = {"path": sent.path, "query": sent.query}
        try:
            return {
                part: model.model_validate_json(sent.body)
                if part == "body"
                else model.model_validate(parts[part])
                for part, model in self.takes.items()
            }
        except ValidationError as error:
            raise not_understood(error) from None

    def _written(self, found: Any) -> Any:
        if isinstance(found, Recorded):
            return replace(self._written(found.shown), record=found.record)
        if isinstance(found, BaseModel):
            return Answer(found.model_dump_json().encode(), status=self.status)
        return found


def not_understood(error: ValidationError) -> Refused:
    """Return the refusal of what does not have the stated form, field by field."""
    wrong = error.errors(include_input=False, include_url=False, include_context=False)[:20]
    fields = {".".join(map(str, each["loc"])) or "body": each["msg"] for each in wrong}
    told = "; ".join(f"{name}: {message}" for name, message in fields.items())
    return Refused(422, "The request cannot be understood", told, fields)


class Operations:
    """The operations of one subject."""

    def __init__(self) -> None:
        self._all: list[Operation] = []

    def __iter__(self) -> Iterator[Operation]:
        return iter(self._all)

    def get(self, address: str, **options: Any) -> Callable[[F], F]:
        """Register a function that looks something up."""
        return self._registered("GET", address, **options)

    def post(self, address: str, **options: Any) -> Callable[[F], F]:
        """Register a function that works something out, or enters something; with what else an
        `Operation` says."""
        return self._registered("POST", address, **options)

    def put(self, address: str, **options: Any) -> Callable[[F], F]:
        """Register a function that keeps something."""
        return self._registered("PUT", address, **options)

    def patch(self, address: str, **options: Any) -> Callable[[F], F]:
        """Register a function that changes a part of something."""
        return self._registered("PATCH", address, **options)

    def delete(self, address: str, **options: Any) -> Callable[[F], F]:
        """Register a function that takes something away."""
        return self._registered("DELETE", address, **options)

    def _registered(self, method: str, address: str, **options: Any) -> Callable[[F], F]:
        def register(function: F) -> F:
            self._all.append(Operation(method, f"/api{address}", function, **options))
            return function

        return register


def operations_in(package: str) -> tuple[Operation, ...]:
    """Return every operation that the modules of a package register, in the order of their
    addresses."""
    modules = [
        import_module(f"{package}.{info.name}")
        for info in iter_modules(import_module(package).__path__)
    ]
    tables = [
        table
        for module in modules
        for table in vars(module).values()
        if isinstance(table, Operations)
    ]
    every = (operation for table in tables for operation in table)
    return tuple(sorted(every, key=lambda each: (each.address, each.method)))
