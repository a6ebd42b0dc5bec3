"""What is said alike of several entries about valve clearances that cannot be."""

__all__ = ["NO_SUCH", "ONCE_DONE"]

ONCE_DONE = "open it again first"
NO_SUCH = "this engine's run has no step that sets valve clearances by that name; load the bench again"
