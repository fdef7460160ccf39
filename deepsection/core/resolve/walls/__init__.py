"""Walls: in plan, how high they go, their layers and frames."""
