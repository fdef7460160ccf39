"""Backgrounds: somebody else's drawing or picture that lies under a view, to be drawn over."""
