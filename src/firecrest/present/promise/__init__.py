"""What the Promise stage shows."""
