"""Writes the JSON Schema of the engine document to a file: python -m tools.schema FILE."""

import json
import sys
from pathlib import Path

from gurvo_core.engine import EngineDocument


def main(file: Path) -> None:
    """Write it, with its name and version on top."""
    schema = EngineDocument.model_json_schema()
    head = {"$schema": "https://json-schema.org/draft/2020-12/schema", "title": "gurvo-engine, version 2"}
    file.write_text(json.dumps(head | {key: value for key, value in schema.items() if key != "title"}, indent=1, ensure_ascii=False) + "\n")


if __name__ == "__main__":
    main(Path(sys.argv[1]))
