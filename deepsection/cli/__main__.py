"""`python -m deepsection.cli`."""

from . import app

app()
