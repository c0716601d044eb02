"""The design: frozen, validated models, edits on them, and their history."""
