"""What goes through roofs and hangs on them."""
