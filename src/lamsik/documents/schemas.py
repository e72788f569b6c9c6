"""What a JSON Schema finds wrong, as a person reads it."""

from collections.abc import Mapping
from typing import Any

from jsonschema.exceptions import ValidationError

from lamsik.core.errors import Refused, brief


def refusal_of(error: ValidationError, path: str = "") -> Refused:
    """What a schema finds wrong, as a person reads it: the field, what was given, what is allowed."""
    path = path or ".".join(str(part) for part in error.absolute_path)
    given: Any = error.instance
    rule: Any = error.validator_value
    if error.validator == "required":
        lost = next(name for name in rule if name not in given)
        return Refused(f"{path}.{lost}".strip("."), None, "this field is needed")
    if error.validator == "additionalProperties":
        known = error.schema.get("properties", {}) if isinstance(error.schema, Mapping) else {}
        extra = next((name for name in given if name not in known), "")
        return Refused(
            f"{path}.{extra}".strip("."), given.get(extra), f"unknown field; known are {', '.join(known)}"
        )
    limits = error.schema if isinstance(error.schema, Mapping) else {}
    low, high = limits.get("minimum"), limits.get("maximum")
    allowed = {
        "minimum": f"allowed is {low} to {high}",
        "maximum": f"allowed is {low} to {high}",
        "enum": f"one of {', '.join(map(str, rule))}" if error.validator == "enum" else "",
        "const": f"must be {brief(rule)}",
        "type": (
            "must be"
            f" {' or '.join(KINDS_OF_JSON[kind] for kind in ([rule] if isinstance(rule, str) else rule))}"
            if error.validator == "type"
            else ""
        ),
        "maxItems": f"at most {rule}",
        "minItems": f"at least {rule}",
        "maxLength": f"at most {rule} characters",
        "minLength": "a text is needed",
    }.get(str(error.validator), "not of the kind that is needed; the published schema says which")
    return Refused(path or "document", given, allowed)


KINDS_OF_JSON = {
    "number": "a number",
    "integer": "a whole number",
    "string": "a text",
    "boolean": "true or false",
    "object": "an object",
    "array": "a list",
    "null": "null",
}
