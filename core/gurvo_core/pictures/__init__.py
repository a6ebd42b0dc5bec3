"""Pictures of an engine: what is entered of them, and which steps want one. The pictures themselves the server keeps, by their digest."""

__all__: list[str] = []
