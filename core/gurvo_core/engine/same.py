"""A document as a key of what is kept for it: by its identity, since comparing two documents costs more than most of what is kept."""

__all__ = ["Same", "kept_for"]

from collections.abc import Callable
from functools import lru_cache, wraps
from typing import Concatenate, ParamSpec, TypeVar

from gurvo_core.engine.document import EngineDocument

Rest = ParamSpec("Rest")
Found = TypeVar("Found")


class Same:
    """Two documents of the same content are two, which costs a little memory and never a deep comparison."""

    def __init__(self, document: EngineDocument) -> None:
        self.document = document

    def __hash__(self) -> int:
        return id(self.document)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Same) and other.document is self.document


def kept_for(work: Callable[Concatenate[EngineDocument, Rest], Found]) -> Callable[Concatenate[EngineDocument, Rest], Found]:
    """The same function of a document and of what can be hashed, worked out once for each."""

    @lru_cache(maxsize=2048)
    def kept(of: Same, *rest: Rest.args, **named: Rest.kwargs) -> Found:
        return work(of.document, *rest, **named)

    @wraps(work)
    def look(document: EngineDocument, *rest: Rest.args, **named: Rest.kwargs) -> Found:
        return kept(Same(document), *rest, **named)  # type: ignore[arg-type]  # what cannot be hashed is refused when it is asked

    return look  # type: ignore[return-value]
