"""Measures: tables of stages, views and edits, printed by `python -m bench`."""
