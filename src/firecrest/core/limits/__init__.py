"""What gives out first: limit factors, ceiling, promises."""
