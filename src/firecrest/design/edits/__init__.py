"""Edits: pure functions from a design and arguments to a new design."""
