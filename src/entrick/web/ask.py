"""Asking the hands for something, and turning what they give into a response."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, cast

from flask import Response, current_app, request

from .answer import Answer
from .hands import Doer, TooMuchWork


def hands() -> Doer:
    """Return who carries out tasks for this application."""
    return cast(Doer, current_app.extensions["entrick.hands"])


def gone() -> Callable[[], bool]:
    """Return what tells whether whoever sent this request has left."""
    told = request.environ.get("waitress.client_disconnected")
    return cast(Callable[[], bool], told) if callable(told) else lambda: False


def asked(task: Callable[..., Answer], *args: Any, otherwise: Callable[..., Answer] | None = None) -> Response:
    """Have a task carried out and answer with what it gives.

    Parameters
    ----------
    task : callable
        Of `tasks`.
    args
        What it takes.
    otherwise : callable, optional
        Gives the answer from the reason and the same arguments where the task asks for too much.
    """
    try:
        answer = hands().do(task, *args, gone=gone())
    except TooMuchWork as error:
        if otherwise is None:
            raise
        answer = otherwise(str(error), *args)
    return sent(answer)


def sent(answer: Answer) -> Response:
    """Return an answer as it goes back over HTTP."""
    response = current_app.response_class(answer.content, content_type=answer.type)
    response.headers.update(answer.headers)
    return response
