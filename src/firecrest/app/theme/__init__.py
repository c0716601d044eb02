"""Colour roles, type and the style sheet: no colour is named anywhere else."""
