"""Filters of the signal processor, as biquads and as analogue prototypes."""
