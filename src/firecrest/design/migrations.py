"""Designs of older schemas made new: one function per step, with the reason for it."""

from collections.abc import Callable, Mapping
from typing import Any

from firecrest.core.errors import DesignError
from firecrest.design.design import SCHEMA_VERSION


def _parts_got_sheets(body: dict[str, Any]) -> dict[str, Any]:
    """2: parts carry origins, ranges and their shelf; every new key has a default."""
    return body


def _boxes_got_pairs_and_places(body: dict[str, Any]) -> dict[str, Any]:
    """3: isobaric pairs, places, pipe resonances, washers, rooms; every new key has a default."""
    return body


STEPS: Mapping[int, Callable[[dict[str, Any]], dict[str, Any]]] = {
    1: _parts_got_sheets,
    2: _boxes_got_pairs_and_places,
}
"""From version -> function that returns the body of the next version."""


def migrate(body: dict[str, Any]) -> dict[str, Any]:
    """``body`` brought to the present schema; DesignError when it is newer or unknown."""
    version = body["schema"]
    if version > SCHEMA_VERSION:
        raise DesignError(
            f"This design has schema {version!s:.12}; this Firecrest reads up to {SCHEMA_VERSION}. "
            "Open it with a newer Firecrest."
        )
    while version < SCHEMA_VERSION:
        if version not in STEPS:
            raise DesignError(f"Schema {version!s:.12} is not known.")
        body = STEPS[version](body)
        version += 1
    return {**body, "schema": version}
