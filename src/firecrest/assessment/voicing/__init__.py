"""What the Voice stage asks of an assessment: ways, sums, alignment, limits, EQ."""
