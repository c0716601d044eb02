"""Amplifier, cells, pack, supply and runtime."""
