"""What the desk keeps for whoever asks: a file for each subject, with what is sent and what comes
back."""

from __future__ import annotations

from ..operation import Operation, operations_in


def operations() -> tuple[Operation, ...]:
    """Return every operation on the register."""
    return operations_in(__name__)
