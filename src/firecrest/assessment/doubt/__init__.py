"""How sure an assessment is: which figures may be off, what that does, and which matters most."""
