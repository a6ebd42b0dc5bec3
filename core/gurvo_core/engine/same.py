"""A document as a key of what is kept for it: by its identity, since comparing two documents costs more than most of what is kept."""

__all__ = ["Same"]

from gurvo_core.engine.document import EngineDocument


class Same:
    """Two documents of the same content are two, which costs a little memory and never a deep comparison."""

    def __init__(self, document: EngineDocument) -> None:
        self.document = document

    def __hash__(self) -> int:
        return id(self.document)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Same) and other.document is self.document
