"""Drivers, chambers, ports, radiators and the one network solver."""
