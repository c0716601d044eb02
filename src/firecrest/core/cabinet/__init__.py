"""Net volume, weight and cost of the case and what is in it."""
