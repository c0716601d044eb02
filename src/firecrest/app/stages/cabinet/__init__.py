"""The Cabinet stage."""
