"""The stages of the work: one module per stage, all built from the same few pieces."""
