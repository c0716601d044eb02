"""The case and all in it: one drawing from which air, fit, weight and pieces come."""
