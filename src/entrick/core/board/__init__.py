"""From a solved plan and a kit to ordered steps at the drawing board, with settings."""

from .kit import Kit, default_kit
from .steps import BoardStep, Setting, board_steps, opened_steps, steps_by_statement

__all__ = ["BoardStep", "Kit", "Setting", "board_steps", "default_kit", "opened_steps", "steps_by_statement"]
