"""Next moves: small named changes that may help, one module a kind, and in which order."""
