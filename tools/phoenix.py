"""A server that rises again: loads Gurvo once, serves from a child, and starts a fresh child whenever one is killed.

Each child's process id is printed when it is about to serve. Run by ``tools.torture`` with the database in the environment.
"""

import os
import sys
from importlib import import_module

import waitress

from tools.serving import bounds


def main(port: int) -> None:
    """Serve for ever, child after child."""
    application = import_module("config.wsgi").application  # everything is loaded before the first child is born
    given = {name.replace("-", "_"): value for name, value in bounds(port).items()}
    while True:
        child = os.fork()
        if child == 0:
            waitress.serve(application, asyncore_use_poll=True, _quiet=True, **given)
        print(child, flush=True)
        os.waitpid(child, 0)


if __name__ == "__main__":
    main(int(sys.argv[1]))
