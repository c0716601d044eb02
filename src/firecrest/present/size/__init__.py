"""What the Size stage shows."""
