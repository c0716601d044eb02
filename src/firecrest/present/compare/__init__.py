"""What the Compare stage shows: variants beside each other."""
