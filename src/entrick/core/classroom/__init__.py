"""For a class: sets of papers with their keys, answers marked, what weeks of it show."""
