#!/usr/bin/env python3
"""Django's own command line, with the core on the path."""

import os
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent


def main() -> None:
    """Run one Django command."""
    sys.path[:0] = [str(ROOT / "core"), str(ROOT / "server"), str(ROOT)]
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings.dev")
    from django.core.management import execute_from_command_line

    execute_from_command_line(sys.argv)


if __name__ == "__main__":
    main()
