"""Widgets of our own: meters, fields, plots, chain, rail."""
