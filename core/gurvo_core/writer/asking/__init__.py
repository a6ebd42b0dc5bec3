"""The asking: questions a builder can answer at the bench, each with what it costs to leave it open."""

__all__: list[str] = []
