"""Porch and terrace slabs."""
