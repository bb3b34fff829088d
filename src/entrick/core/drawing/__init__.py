"""What can be drawn: strokes and their roles, notes that keep their size, the marks on paper,
widths of lines."""
