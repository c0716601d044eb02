"""Shapes of cases: for each its volumes, panels and inner walls."""
