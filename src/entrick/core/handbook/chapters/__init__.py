"""The chapters of the handbook, a file for each."""
