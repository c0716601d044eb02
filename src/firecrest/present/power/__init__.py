"""What the Power stage shows."""
