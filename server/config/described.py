"""Every property and parameter of the API's document with a line that says what it is, where its model does not say so itself."""

__all__ = ["describe"]

import tomllib
from collections.abc import Iterator
from pathlib import Path
from typing import Any

WORDS = tomllib.loads((Path(__file__).parent / "property_words.toml").read_text("utf-8"))
PARAMETERS = WORDS.pop("parameters")


def describe(schema: dict[str, Any]) -> None:
    """Say of each property and parameter what it is; what is described beside its model stays as it is."""
    for name, model in schema["components"]["schemas"].items():
        for key, value in model.get("properties", {}).items():
            if words := WORDS.get(f"{name}.{key}", WORDS.get(key)):
                value.setdefault("description", words)
    for operation in _operations(schema):
        for parameter in operation.get("parameters", ()):
            name = parameter["name"]
            words = PARAMETERS.get(f"{operation['operationId']}.{name}", PARAMETERS.get(name, WORDS.get(name)))
            if words:
                parameter.setdefault("description", words)


def _operations(schema: dict[str, Any]) -> Iterator[dict[str, Any]]:
    for path in schema["paths"].values():
        yield from path.values()
