"""What stands around every stage: meters, chain, rail, moves, fields."""
