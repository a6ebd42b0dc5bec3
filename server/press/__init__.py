"""What takes long: paper, and the check of large documents. Knows nothing of Django, so that a process of its own loads it at once."""
