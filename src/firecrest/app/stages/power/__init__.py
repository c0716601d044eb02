"""Power: stage, and what feeds what on it."""
