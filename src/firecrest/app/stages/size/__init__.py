"""The Size stage: views over the picture of the box, its fields, and what follows from them."""
