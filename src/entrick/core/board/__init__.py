"""From a solved plan and a kit to ordered steps at the drawing board, with settings."""
