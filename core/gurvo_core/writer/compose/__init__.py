"""From an outline to a whole engine document with its run of work."""

__all__: list[str] = []
