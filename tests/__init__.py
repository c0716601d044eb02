"""Tests, and what holds during all of them."""

import dataclasses
import sys

REPLACE = dataclasses.replace


def replace(item, /, **changes):
    """Models are rebuilt, and so checked again, by the edits of the design alone."""
    asking = sys._getframe(1).f_globals.get("__name__", "")
    model = hasattr(type(item), "__pydantic_fields__")
    assert not (model and asking.startswith("firecrest.") and ".edits." not in asking), asking
    return REPLACE(item, **changes)


dataclasses.replace = replace  # before any module takes it by name
