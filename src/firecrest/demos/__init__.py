"""Demo designs from the house workshop, as design.json files inside the package."""
