"""Sentences, words and help."""
