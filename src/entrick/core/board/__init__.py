"""From a solved plan and a kit to ordered steps at the drawing board, with settings."""

from .kit import Kit, default_kit
from .schedule import Counted, Schedule
from .steps import BoardStep, Setting, board_steps, counts, opened_steps, steps_by_statement

__all__ = [
    "BoardStep", "Counted", "Kit", "Schedule", "Setting", "board_steps", "counts", "default_kit", "opened_steps",
    "steps_by_statement",
]  # fmt: skip
