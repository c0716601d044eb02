"""From a design to its assessment: a pure function of an immutable value."""
