"""Requests sent on to the workers, with what the register knows and they do not."""

from __future__ import annotations

import threading
from collections.abc import Callable, Mapping
from typing import Any, TypeVar, cast

from flask import Response, current_app, request

from ..answer import Answer
from ..operation import Sent
from .pool import LOOKING, USUAL, Pool, Task, TooMuchWork

F = TypeVar("F", bound=Callable[..., Any])

ANSWER = Task("entrick.web.operations", "answer")
ANSWER_OTHERWISE = Task("entrick.web.operations", "answer_otherwise")
SUMMARIZE = Task("entrick.core.summarize", "summarize")
TIDIED = Task("entrick.core.summarize", "tidied")

LONG = frozenset({"/api/practice/set/papers", "/api/practice/set/marks"})
"""What takes longer than a worker works at one thing: it is made here, one at a time."""

LOOKS = "/api/look"
"""How the addresses begin of what looks at pictures, and may take more."""

_ONE_AT_A_TIME = threading.Lock()
_KNOWN: dict[str, Callable[[], Mapping[str, Any]]] = {}
_RECORDERS: dict[str, Callable[[Mapping[str, Any]], None]] = {}


def known_for(*addresses: str) -> Callable[[F], F]:
    """Register a function that tells the operations at these addresses what the register knows, by
    name."""

    def register(function: F) -> F:
        _KNOWN.update(dict.fromkeys(addresses, function))
        return function

    return register


def records(address: str) -> Callable[[F], F]:
    """Register a function that puts into the register what the operation at an address leaves for
    it."""

    def register(function: F) -> F:
        _RECORDERS[address] = function
        return function

    return register


def workers() -> Pool:
    """Return who carries out tasks for this application."""
    return cast(Pool, current_app.extensions["entrick.workers"])


def gone() -> Callable[[], bool]:
    """Return what tells whether whoever sent this request has left."""
    told = request.environ.get("asgi.scope", {}).get("entrick.gone")
    return told.is_set if told is not None else lambda: False


def as_sent(with_body: bool = True) -> Sent:
    """Return the request at hand as it came; without its body where that is read piece by piece."""
    path = dict(request.view_args or {})
    body = request.get_data() if with_body else b""
    return Sent(request.method, request.path, path, request.args.to_dict(), body)


def forwarded() -> Response:
    """Have the request at hand answered by a worker."""
    sent = as_sent()
    known = _KNOWN[sent.address]() if sent.address in _KNOWN else {}
    answer = _answered(sent, known)
    if answer.record is not None:
        _RECORDERS[sent.address](answer.record)
    return as_response(answer)


def _answered(sent: Sent, known: Mapping[str, Any]) -> Answer:
    if sent.address in LONG:
        with _ONE_AT_A_TIME:
            return cast(Answer, ANSWER(sent, known))
    try:
        bounds = LOOKING if sent.address.startswith(LOOKS) else USUAL
        return cast(Answer, workers().do(ANSWER, sent, known, gone=gone(), bounds=bounds))
    except TooMuchWork as error:
        answer: Answer | None = workers().do(ANSWER_OTHERWISE, sent, str(error), gone=gone())
        if answer is None:
            raise
        return answer


def as_response(answer: Answer) -> Response:
    """Return an answer as it goes back over HTTP."""
    response = current_app.response_class(
        answer.content, status=answer.status, content_type=answer.type
    )
    response.headers.update(answer.headers)
    return response
