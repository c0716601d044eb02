"""Searching: candidates from the shelf put into the present design, many at once."""
