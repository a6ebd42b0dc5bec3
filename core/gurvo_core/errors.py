"""What the core says when it cannot go on: one sentence, with the field it is about.

The family::

    CoreError (ValueError)
    ├── WordRefused      a typed line of which one word cannot be read (says which)
    ├── FigureError      a typed figure that is no number, or out of what can be
    ├── GeometryError    dimensions that cannot turn over
    ├── ReadingError     a reading that cannot belong to this wheel, lobe or method
    ├── DocumentError    an engine document with faults (carries all of them)
    ├── EntryRefused     an entry the ledger cannot take now
    ├── AskFirst         an entry it takes only when somebody says why
    └── NotConverged     a solver that found no answer (carries its data)
"""

__all__ = [
    "AskFirst",
    "CoreError",
    "DocumentError",
    "EntryRefused",
    "Fault",
    "FigureError",
    "GeometryError",
    "NotConverged",
    "ReadingError",
    "WordRefused",
]

from pydantic import BaseModel, ConfigDict


class CoreError(ValueError):
    """A refusal: which input, what it was, the rule it breaks and what would be right."""

    code = "refused"

    def __init__(self, field: str, value: object, rule: str) -> None:
        self.field = field
        self.value = value
        self.rule = rule
        super().__init__(f"{rule[0].upper()}{rule[1:]}")

    def under(self, path: str) -> "CoreError":
        """Return the same refusal with its field placed below ``path``."""
        return type(self)(f"{path}.{self.field}" if self.field else path, self.value, self.rule)


class FigureError(CoreError):
    """A typed figure that is not a number, or lies outside what can be."""

    code = "figure"


class WordRefused(CoreError):  # noqa: N818 - said as it happens
    """A typed line that cannot be read from ``begin`` to ``end``."""

    code = "word"

    def __init__(self, field: str, word: str, rule: str, *, begin: int = 0) -> None:
        self.begin, self.end = begin, begin + len(word)
        super().__init__(field, word, rule)

    def under(self, path: str) -> "WordRefused":
        """Return the same refusal with its field placed below ``path``."""
        return WordRefused(f"{path}.{self.field}" if self.field else path, str(self.value), self.rule, begin=self.begin)


class GeometryError(CoreError):
    """Dimensions that cannot be an engine."""

    code = "geometry"


class ReadingError(CoreError):
    """A reading that cannot belong to this wheel, this lobe or this method."""

    code = "reading"


class EntryRefused(CoreError):  # noqa: N818 - said as it happens
    """An entry the ledger cannot take as things stand."""

    code = "entry"


class AskFirst(CoreError):  # noqa: N818 - said as it happens
    """An entry the ledger takes only when somebody says why; ``way_out`` says who may."""

    code = "ask"

    def __init__(self, field: str, rule: str, way_out: str) -> None:
        self.way_out = way_out
        super().__init__(field, None, rule)

    def under(self, path: str) -> "AskFirst":
        """Return the same question with its field placed below ``path``."""
        return AskFirst(f"{path}.{self.field}" if self.field else path, self.rule, self.way_out)


class NotConverged(CoreError):  # noqa: N818 - said as it happens
    """A solver that found no answer."""

    code = "not_converged"


class Fault(BaseModel):
    """One fault of an engine document: where (JSON path) and what, in one sentence."""

    model_config = ConfigDict(extra="forbid", frozen=True)

    path: str
    sentence: str


class DocumentError(CoreError):
    """An engine document with faults; ``faults`` holds every one of them."""

    code = "document"

    def __init__(self, faults: list[Fault]) -> None:
        self.faults = faults
        first = faults[0]
        super().__init__(first.path, None, first.sentence)
