"""A document as plain data for handing out: short, and yet nothing lost that was said."""

__all__ = ["plain_document"]

from typing import Any

from gurvo_core.engine.document import EngineDocument
from gurvo_core.engine.part import Part


def plain_document(document: EngineDocument) -> dict[str, Any]:
    """Return a document as JSON data without what is left out anyhow."""
    plain: dict[str, Any] = _plain(document)
    return plain


def _plain(value: Any) -> Any:
    if isinstance(value, Part):
        fields = type(value).model_fields.items()
        return {
            field.alias or name: _plain(getattr(value, name)) for name, field in fields if _is_said(getattr(value, name), field.default)
        }
    if isinstance(value, tuple | list):
        return [_plain(part) for part in value]
    if isinstance(value, dict):
        return {key: _plain(part) for key, part in value.items()}
    return value


def _is_said(value: object, default: object) -> bool:
    return value is not None or default is not None
