"""Simulated stand-ins for offices outside of this one: they take files and answer with files."""
