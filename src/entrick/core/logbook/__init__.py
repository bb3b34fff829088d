"""What was done at the board: measured against computed with the slip named, and what sittings
teach."""
