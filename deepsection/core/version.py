"""Which version of the program this is: what writes a document says so beside it."""

VERSION = "0.2.0"
