"""How sure a figure is: draws of what is uncertain, and the spread of what follows."""
