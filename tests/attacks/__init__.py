"""Scripted attacks on the program: each has a seed, a count and a time bound."""
