"""Starts Gurvo: the demo with a database of its own, or the shop's own server."""

import os
import socket
from pathlib import Path

from tools.house import PYTHON, ROOT, VAR, CannotError, ensure_all, must, python_env, run

SHOP_DB = VAR / "shop.sqlite3"
DEMO_DB = VAR / "demo.sqlite3"
MANAGE = ROOT / "server" / "manage.py"
DEMO_SIGN_INS = """
  lead     oren    hillside-lead
  builder  della   hillside-builder
  viewer   tibb    hillside-viewer"""


def _ensure_port(port: int) -> None:
    with socket.socket() as door:
        door.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            door.bind(("127.0.0.1", port))
        except OSError:
            raise CannotError(f"port {port} is in use; stop what uses it, or choose another with --port.") from None


def migrate(database: Path) -> dict[str, str]:
    """Bring a database up to date and return the environment to use it."""
    env = python_env("shop", database)
    must("Bringing the database up to date", PYTHON, MANAGE, "migrate", "--verbosity", "0", env=env)
    must("Bringing the Floor up to date", PYTHON, MANAGE, "refresh_summaries", env=env)
    return env


def load_demo(database: Path) -> dict[str, str]:
    """Make a demo database, once."""
    made = database.exists()
    env = migrate(database)
    if not made:
        must("Loading the demo", PYTHON, "-m", "demo.scenario", env=env)
    return env


def _serve(port: int, env: dict[str, str]) -> int:
    command = [str(PYTHON), "-m", "gunicorn", "config.wsgi", "--bind", f"127.0.0.1:{port}", "--threads", "8", "--log-level", "warning"]
    os.chdir(ROOT / "server")
    os.execve(command[0], command, {**os.environ, **env})


def demo(port: int, *, fresh: bool = False) -> int:
    """Start with demo data."""
    ensure_all()
    _ensure_port(port)
    if fresh:
        for file in VAR.glob("demo.sqlite3*"):
            file.unlink()
    env = load_demo(DEMO_DB)
    print(f"\nGurvo demo: http://127.0.0.1:{port}\n{DEMO_SIGN_INS}\n\nCtrl-C stops it.", flush=True)
    return _serve(port, env)


def serve(port: int) -> int:
    """Start the shop's own server."""
    ensure_all()
    _ensure_port(port)
    first_time = not SHOP_DB.exists()
    env = migrate(SHOP_DB)
    if first_time:
        print("The shop is empty: add people with ./gurvo person, gauges with ./gurvo gauge, engine families with ./gurvo family.")
    print(f"\nGurvo: http://127.0.0.1:{port}\n\nCtrl-C stops it.", flush=True)
    return _serve(port, env)


def manage_shop(*command: str) -> int:
    """Run one of Django's commands on the shop's database."""
    ensure_all()
    return run(PYTHON, MANAGE, *command, env=migrate(SHOP_DB))
