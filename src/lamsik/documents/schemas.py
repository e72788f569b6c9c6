"""JSON Schemas of documents, made from their types, and what one finds wrong, as a person reads it."""

from collections.abc import Callable, Collection, Mapping
from dataclasses import dataclass, field
from typing import Any

from jsonschema.exceptions import ValidationError
from pydantic import TypeAdapter

from lamsik.core.errors import Allowed, Refused, Within, named, rule

Schema = dict[str, Any]
TYPED = {
    "type": "object",
    "maxProperties": 200,
    "additionalProperties": {"type": "string", "maxLength": 40},
    "description": "the text as typed, by field path",
}
"""What was typed into a document."""


@dataclass(frozen=True)
class Raw:
    """A field whose schema is written out."""

    schema: Schema = field(hash=False)

    def __get_pydantic_json_schema__(self, core: Any, handler: Callable[[Any], Schema]) -> Schema:
        """Asked for by name where a schema is made."""
        return dict(self.schema)


def Const(value: str | int) -> Raw:  # noqa: N802 - it stands among types
    """A field that has one value."""
    return Raw({"const": value})


@dataclass(frozen=True)
class PartBeside:
    """A row that holds the fields of one of its parts beside its own."""

    part: type
    name: str

    def __get_pydantic_json_schema__(self, core: Any, handler: Any) -> Schema:
        """Asked for by name where a schema is made."""
        own = dict(handler.resolve_ref_schema(handler(core)))
        rest = {name: one for name, one in own["properties"].items() if name != self.name}
        own["properties"] = {"key": rest["key"], **TypeAdapter(self.part).json_schema()["properties"], **rest}
        return own


def schema_of(kind: type, title: str, may_lack: Collection[str] = ()) -> Schema:
    """The JSON Schema of a document of this type: nothing besides its fields, and all of them but those that
    it may lack (`Class.field`).
    """
    schema = TypeAdapter(kind).json_schema()
    whole = _written_out(schema, schema.get("$defs", {}), may_lack)
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", "title": title, **whole}


def _written_out(node: Any, known: Schema, may_lack: Collection[str]) -> Any:
    """A schema without references, titles and defaults; what may be null says so in its type."""
    if isinstance(node, list):
        return [_written_out(one, known, may_lack) for one in node]
    if not isinstance(node, dict):
        return node
    if "$ref" in node:
        node = {**known[node["$ref"].rpartition("/")[2]], **{k: v for k, v in node.items() if k != "$ref"}}
    if "anyOf" in node:
        some = [_written_out(one, known, may_lack) for one in node["anyOf"]]
        rest = {name: one for name, one in node.items() if name not in ("anyOf", "default", "title")}
        kinds = [one["type"] for one in some if "type" in one]
        joined = {name: value for one in some for name, value in one.items()}
        return {**joined, **rest, **({"type": kinds} if kinds else {})}
    written = {
        name: _written_out(one, known, may_lack)
        for name, one in node.items()
        if name not in ("title", "default", "$defs", "required", "properties")
    }
    if "properties" in node:
        names = node["properties"]
        written["properties"] = {name: _written_out(one, known, may_lack) for name, one in names.items()}
        written["required"] = [name for name in names if f"{node.get('title')}.{name}" not in may_lack]
        written["additionalProperties"] = False
    return written


def refusal_of(error: ValidationError, path: str = "") -> Refused:
    """What a schema finds wrong, as a person reads it: the field, what was given, what is allowed."""
    path = path or ".".join(str(part) for part in error.absolute_path)
    given: Any = error.instance
    must: Any = error.validator_value
    if error.validator == "required":
        lost = next(name for name in must if name not in given)
        return Refused(f"{path}.{lost}".strip("."), None, rule("needed"))
    if error.validator == "additionalProperties":
        known = error.schema.get("properties", {}) if isinstance(error.schema, Mapping) else {}
        extra = next((name for name in given if name not in known), "")
        return Refused(
            f"{path}.{extra}".strip("."), given.get(extra), rule("known-fields", known=tuple(known))
        )
    limits = error.schema if isinstance(error.schema, Mapping) else {}
    allows = ALLOWS.get(str(error.validator))
    return Refused(path or "document", given, allows(must, limits) if allows else rule("schema"))


def _between(_must: Any, limits: Mapping[str, Any]) -> Allowed:
    return Within(limits.get("minimum", 0), limits.get("maximum", 0), limits.get("unit", ""))


def _rows(_must: Any, limits: Mapping[str, Any]) -> Allowed:
    low, high = limits.get("minItems", 0), limits.get("maxItems", "any number")
    return rule("just-rows", most=low) if low == high else rule("rows", least=low, most=high)


def _of_kind(must: Any, _limits: Mapping[str, Any]) -> Allowed:
    kinds = [KINDS_OF_JSON[kind] for kind in ([must] if isinstance(must, str) else must)]
    return rule("of-kind", kinds=" or ".join(kinds))


KINDS_OF_JSON = {
    "number": "a number",
    "integer": "a whole number",
    "string": "a text",
    "boolean": "true or false",
    "object": "an object",
    "array": "a list",
    "null": "null",
}


ALLOWS: Mapping[str, Callable[[Any, Mapping[str, Any]], Allowed]] = {
    "minimum": _between,
    "maximum": _between,
    "enum": lambda must, _limits: named(map(str, must)),
    "const": lambda must, _limits: rule("just-so", value=must),
    "type": _of_kind,
    "maxItems": _rows,
    "minItems": _rows,
    "maxLength": lambda must, _limits: rule("at-most-characters", most=must),
    "minLength": lambda _must, _limits: rule("a-text"),
}
"""What is allowed, by the word of the schema that is broken, from what it asks for and what stands beside."""
