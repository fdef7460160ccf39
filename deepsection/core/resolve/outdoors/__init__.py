"""Posts, beams, steps and rails."""
