"""Projects from and to JSON text, with messages a maker can act on."""

import json
from collections.abc import Mapping
from functools import lru_cache
from typing import Any

from pydantic import TypeAdapter, ValidationError

from firecrest.core.errors import DesignError, FirecrestError, guarded
from firecrest.design.design import SCHEMA_VERSION
from firecrest.design.migrations import migrate
from firecrest.design.project import Project

SUBJECT, FAILURE = "This design", "This is not a design"
ONLY_VARIANT = "variants.0."
"""Left out of places: most projects have one variant, which goes without saying."""
MOST_PROBLEMS = 6
LONGEST_PLACE = 40
MOST_VALUES = 60_000
"""Values in one text: a design of a hundred parts has some thousands."""


@lru_cache(maxsize=1)
def adapter() -> TypeAdapter[Project]:
    """Validator and serialiser of projects."""
    return TypeAdapter(Project)


def project_to_json(project: Project) -> str:
    """The project as JSON with its schema version first; keys in the order of the models."""
    return body_text(project_body(project))


def project_body(project: Project) -> dict[str, Any]:
    """The project as a JSON tree, its schema version first."""
    return {"schema": SCHEMA_VERSION, **adapter().dump_python(project, mode="json")}


def body_text(body: Mapping[str, Any]) -> str:
    """A JSON tree as it is written."""
    return json.dumps(body, indent=1, ensure_ascii=False) + "\n"


def project_from_json(text: str | bytes) -> Project:
    """Read a project of this or an older schema.

    Raises DesignError: not JSON, a newer schema, or fields that do not fit, each named.
    """
    with guarded(SUBJECT, DesignError):
        return project_of_body(parsed(text, FAILURE))


def project_of_body(body: Any) -> Project:
    """A project of its JSON tree; DesignError as ``project_from_json``."""
    with guarded(SUBJECT, DesignError):
        if not isinstance(body, dict) or type(body.get("schema")) is not int:
            raise DesignError(f'{FAILURE}: it has no "schema" number.')
        body = migrate(body)
        body.pop("schema")
        try:
            project = adapter().validate_json(json.dumps(body))
            for variant in project.variants:
                project.design_of(variant)
        except ValidationError as error:
            raise DesignError(explain(error)) from error
    return project


def parsed(
    text: str | bytes,
    failure: str,
    *,
    kind: type[FirecrestError] = DesignError,
    most: int = MOST_VALUES,
) -> Any:
    """JSON with a bound on its values and depth; an error of ``kind`` begins with ``failure``."""
    try:
        body = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise kind(f"{failure}: it is not readable JSON ({error!s:.200}).") from error
    if more_values_than(body, most):
        raise kind(f"{failure}: it holds more than {most} values.")
    return body


def more_values_than(body: Any, most: int) -> bool:
    """Whether a JSON tree has more values than ``most``; it is not walked further than that."""
    waiting, count = [body], 0
    while waiting:
        node = waiting.pop()
        children = node.values() if isinstance(node, dict) else node
        if isinstance(node, dict | list):
            count += len(node)
            if count > most:
                return True
            waiting.extend(c for c in children if isinstance(c, dict | list))
    return False


def explain(error: ValidationError) -> str:
    """What is wrong and where, one line per problem."""
    lines = []
    for item in error.errors(include_url=False, include_context=False)[:MOST_PROBLEMS]:
        place = ".".join(str(part)[:LONGEST_PLACE] for part in item["loc"]) or "the design"
        place = place.removeprefix(ONLY_VARIANT)
        reason = item["msg"].removeprefix("Value error, ")
        if isinstance(item["input"], str | int | float | bool):
            reason += f" (found {item['input']!r:.60})"
        lines.append(f"{place}: {reason}")
    more = error.error_count() - len(lines)
    if more > 0:
        lines.append(f"and {more} more")
    return "\n".join(lines)


def json_schema() -> dict[str, Any]:
    """JSON Schema of design.json, generated from the models."""
    schema = adapter().json_schema()
    schema["properties"] = {
        "schema": {"const": SCHEMA_VERSION, "title": "Schema version"},
        **schema["properties"],
    }
    schema["required"] = ["schema", *schema.get("required", [])]
    schema["title"] = "Firecrest project"
    return schema
