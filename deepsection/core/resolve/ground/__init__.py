"""The ground around a house."""
