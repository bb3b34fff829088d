"""Processes that work out what is asked for, and how requests come to them."""
