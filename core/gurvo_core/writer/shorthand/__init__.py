"""What is typed on one line, read and written back in one form; a refusal points at the word."""

__all__: list[str] = []
