"""Design from and to JSON text, with messages a maker can act on."""

import json
from functools import lru_cache
from typing import Any

from pydantic import TypeAdapter, ValidationError

from firecrest.core.errors import DesignError, FirecrestError, guarded
from firecrest.design.design import SCHEMA_VERSION, Design
from firecrest.design.migrations import migrate

MOST_PROBLEMS = 6
LONGEST_PLACE = 40
MOST_VALUES = 60_000
"""Values in one text: a design of a hundred parts has some thousands."""


@lru_cache(maxsize=1)
def adapter() -> TypeAdapter[Design]:
    """Validator and serialiser of designs."""
    return TypeAdapter(Design)


def design_to_json(design: Design) -> str:
    """The design as JSON with its schema version first; keys in the order of the models."""
    body: dict[str, Any] = adapter().dump_python(design, mode="json")
    return json.dumps({"schema": SCHEMA_VERSION, **body}, indent=1, ensure_ascii=False) + "\n"


def design_from_json(text: str | bytes) -> Design:
    """Read a design of this or an older schema.

    Raises DesignError: not JSON, a newer schema, or fields that do not fit, each named.
    """
    with guarded("This design", DesignError):
        body = parsed(text, "This is not a design")
        if not isinstance(body, dict) or type(body.get("schema")) is not int:
            raise DesignError('This is not a design: it has no "schema" number.')
        body = migrate(body)
        body.pop("schema")
        try:
            return adapter().validate_json(json.dumps(body))
        except ValidationError as error:
            raise DesignError(explain(error)) from error


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
    schema["title"] = "Firecrest design"
    return schema
