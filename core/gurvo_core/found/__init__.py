"""Facts found at the bench: what a document leaves open, asked once of whoever has the thing in his hand.

``wanted`` what is asked and where, ``filled`` the document with what was found, ``job`` the same on the bench. A found fact fills what
the book left open and never replaces a figure; it must pass the document's own checks.
"""

__all__ = ["Fact", "Wanted", "filled", "is_open", "wanted_in"]

from gurvo_core.found.filled import Fact, filled, is_open
from gurvo_core.found.wanted import Wanted, wanted_in
