"""Roofs: blocks, how they meet, and what they are built of."""
