"""One module per format: what writes it, and what takes it apart. Each is imported by itself, since many are heavy."""
