"""Joist floors, ceilings and vaults."""
