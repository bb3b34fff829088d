"""What the desk works out for whoever asks: a file for each subject, with what is sent, what comes
back, and how.

All of it runs at a worker, away from Flask and the database. Nothing is kept here but what is
quicker to keep than to work out again."""

from __future__ import annotations

from collections.abc import Mapping
from functools import cache
from typing import Any

from werkzeug.exceptions import MethodNotAllowed, NotFound
from werkzeug.routing import Map, Rule

from ..answer import Answer, Refused
from ..operation import Operation, Sent, operations_in


@cache
def operations() -> tuple[Operation, ...]:
    """Return every operation, in the order of their addresses."""
    return operations_in(__name__)


@cache
def _addresses() -> Map:
    return Map([Rule(each.address, methods=[each.method], endpoint=each) for each in operations()])


def answer(sent: Sent, given: Mapping[str, Any]) -> Answer:
    """Carry out the operation a request is addressed to.

    Parameters
    ----------
    sent : Sent
    given : mapping
        What the register knows and the operation asks for, by name.

    Raises
    ------
    Refused
        When there is no such operation, or what was sent does not have the stated form.
    """
    operation, sent = _found(sent)
    answer: Answer = operation.answer(sent, **given)
    return answer


def answer_otherwise(sent: Sent, reason: str) -> Answer | None:
    """Return the answer to a request that asks for too much; None where the operation has none."""
    operation, sent = _found(sent)
    return operation.answer_otherwise(reason, sent)


def _found(sent: Sent) -> tuple[Operation, Sent]:
    try:
        operation, path = _addresses().bind("desk").match(sent.address, sent.method)
    except NotFound:
        raise Refused(404, "Not Found", "there is nothing at this address") from None
    except MethodNotAllowed as error:
        allowed = ", ".join(error.valid_methods or ())
        raise Refused(
            405, "Method Not Allowed", f"this address takes {allowed}", headers={"Allow": allowed}
        ) from None
    return operation, Sent(sent.method, sent.address, path, sent.query, sent.body)
