"""The open air around a box, as a place to which openings and cones lead."""

OUTSIDE = -1
"""Its number among the chambers."""
