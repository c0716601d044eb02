"""What the Parts stage shows."""
