"""Plots without pixels."""
