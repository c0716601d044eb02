"""The Voice stage."""
