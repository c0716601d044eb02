"""Compare: variants beside each other."""
