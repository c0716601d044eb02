"""One circuit of air, cones and wire: its elements, and the solver."""
