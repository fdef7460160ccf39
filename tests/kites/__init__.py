"""A made-up trade: kites over a house. A test puts this folder among the trades of a copy of the program."""
