"""Describing an engine: answers and edits in the words of the trade, a whole document with its run of work composed from them."""

__all__: list[str] = []
