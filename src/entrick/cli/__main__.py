"""``python -m entrick.cli``."""

from . import main

main()
