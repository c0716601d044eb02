"""A design as plain numbers: the records (`inputs`), its parts, and the whole of it."""
