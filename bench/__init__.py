"""Measurements beside the budgets of the architecture: ``make bench``."""
