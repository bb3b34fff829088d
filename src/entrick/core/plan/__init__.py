"""The document: its statements, the grammar that reads them, the writer, and errors with place and
suggestion."""
