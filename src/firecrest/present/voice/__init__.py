"""What the Voice stage shows: lanes, plots of ways and sums, advice."""
