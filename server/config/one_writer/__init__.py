"""Django's own backend for SQLite, with writers standing in line instead of trying again and again."""
