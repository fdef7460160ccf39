"""Windows, doors and niches: where they stand, what they are made of, what is in their way."""
