"""What carries what, down to the ground."""
