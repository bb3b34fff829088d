"""Entrick, a setting-out desk for single-view part profiles."""
