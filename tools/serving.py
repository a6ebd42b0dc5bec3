"""Starts Gurvo: the demo with a database of its own, or the shop's own server."""

import os
import secrets
import signal
import socket
import sqlite3
import subprocess
import sys
from contextlib import closing
from pathlib import Path
from typing import TextIO

from tools.house import PYTHON, ROOT, VAR, CannotError, ensure_all, must, python_env, run
from tools.locks import held

SHOP_DB = VAR / "shop.sqlite3"
BACKUPS = Path(os.environ.get("GURVO_BACKUPS", VAR / "backups"))
DAY_S = 24 * 3600
ENDING = (signal.SIGTERM, signal.SIGHUP, signal.SIGQUIT)
STOPS_WITHIN_S = 15
DEMO_DB = VAR / "demo.sqlite3"
MANAGE = ROOT / "server" / "manage.py"
DEMO_SIGN_INS = """
  lead     oren    hillside-lead     PIN 4071
  builder  della   hillside-builder  PIN 2846
  viewer   tibb    hillside-viewer   PIN 9153"""


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
    must("Bringing the database up to date", PYTHON, MANAGE, "bring_up_to_date", env=env)
    return env


def load_demo(database: Path, *, whole: bool = True) -> dict[str, str]:
    """Make a demo database, once; not whole, without the engines whose run of work is long."""
    made = database.exists()
    env = migrate(database)
    if not made:
        must("Loading the demo", PYTHON, "-m", "demo.scenario", *([] if whole else ["--short"]), env=env)
    return env


def bounds(port: int) -> dict[str, str | int]:
    """What bounds the server in front of Django: sizes, idle time, the number of sockets."""
    return {
        "listen": f"127.0.0.1:{port}",
        "threads": 24,  # an instrument that is looked at holds one, and so does whatever waits before a gate
        "outbuf-high-watermark": 1024 * 1024 * 1024,  # what nobody reads waits on the disk, and holds no worker
        "channel-timeout": 30,
        "connection-limit": 2000,
        "max-request-header-size": 16 * 1024,
        "max-request-body-size": 2 * 1024 * 1024,
        "ident": "gurvo",
    }


def server_command(port: int, program: str = "waitress") -> list[str]:
    """The server in front of Django. It reads each request whole before a worker is bound to it, so that a client that stalls holds
    a socket and never a worker.
    """
    given = [f"--{name}={value}" for name, value in bounds(port).items()]
    proxy = os.environ.get("GURVO_PROXY")
    if proxy:  # its word is taken for scheme, host and address; what others claim is cleared
        headers = "x-forwarded-for x-forwarded-proto x-forwarded-host"
        given += [f"--trusted-proxy={proxy}", f"--trusted-proxy-headers={headers}", "--clear-untrusted-proxy-headers"]
    return [str(PYTHON), "-m", program, "--asyncore-use-poll", *given, "config.wsgi:application"]


def _serve(port: int, env: dict[str, str]) -> int:
    command = server_command(port)
    os.chdir(ROOT / "server")
    os.execve(command[0], command, {**os.environ, **env})


def _has_nobody(database: Path) -> bool:
    with closing(sqlite3.connect(database)) as shop:
        return not shop.execute("SELECT 1 FROM auth_user LIMIT 1").fetchall()


def first_key() -> str:
    """What whoever begins a new shop has to have read where the server was started."""
    letters = "".join(secrets.choice("abcdefghjkmnpqrstuvwxyz23456789") for _ in range(12))
    return "-".join(letters[at : at + 4] for at in (0, 4, 8))


def _serve_and_keep(port: int, env: dict[str, str], lock: TextIO) -> int:
    """Run the shop's server, and beside it, at once and once a day, verify every ledger and back the shop up.

    On every signal the server ends first. Should this be killed without warning, the server misses the other end of its pipe and ends by
    itself; as long as it lives it holds the lock.
    """
    for number in ENDING:
        signal.signal(number, _end)
    command = server_command(port, "tools.answering")
    server = subprocess.Popen(command, cwd=ROOT / "server", env={**os.environ, **env}, stdin=subprocess.PIPE, pass_fds=[lock.fileno()])
    try:
        while True:
            _daily(env)
            try:
                return server.wait(timeout=DAY_S)
            except subprocess.TimeoutExpired:
                continue
    except KeyboardInterrupt:
        return 130
    finally:
        _stop(server)


def _end(number: int, _frame: object) -> None:
    raise SystemExit(128 + number)


def _stop(server: subprocess.Popen[bytes]) -> None:
    """Let it finish what it is answering, then see that it is gone."""
    assert server.stdin is not None
    server.stdin.close()
    try:
        server.wait(timeout=STOPS_WITHIN_S)
    except subprocess.TimeoutExpired:
        server.kill()
        server.wait()


def _daily(env: dict[str, str]) -> None:
    """Verify, and back up unless that was done within a day. What cannot be done is said; the server goes on."""
    from tools.backups import backup_and_thin, last_backup, last_backup_s

    before = last_backup()
    run(PYTHON, MANAGE, "verify", *(["--against", before] if before else []), env=env)
    try:
        if last_backup_s() > DAY_S - 60:
            backup_and_thin()
    except CannotError as error:
        print(f"gurvo: {error}", file=sys.stderr)


def demo(port: int, *, fresh: bool = False) -> int:
    """Start with demo data."""
    _ensure_port(port)
    ensure_all()
    if fresh:
        for file in VAR.glob("demo.sqlite3*"):
            file.unlink()
    env = load_demo(DEMO_DB)
    print(f"\nGurvo demo: http://127.0.0.1:{port}\n{DEMO_SIGN_INS}\n\nCtrl-C stops it.", flush=True)
    # ends by itself when this process, or the server it becomes, is gone
    standins = subprocess.Popen(
        [str(PYTHON), "-m", "standins.serve"], cwd=ROOT, env={**os.environ, **env}, stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True
    )
    assert standins.stdin is not None and standins.stdout is not None
    os.set_inheritable(standins.stdin.fileno(), True)
    base = standins.stdout.readline().strip()
    if not base:
        return 1  # it has said why
    return _serve(port, {**env, "GURVO_STANDINS": base})


def serve(port: int) -> int:
    """Start the shop's own server."""
    _ensure_port(port)
    ensure_all()
    serving = SHOP_DB.with_name(f"{SHOP_DB.name}.serving")  # one server; people, gauges and backups may come beside it
    with held(serving, "another ./gurvo serve is at work; stop it first.") as lock:
        return _serve_shop(port, lock)


def _serve_shop(port: int, lock: TextIO) -> int:
    env = migrate(SHOP_DB)
    SHOP_DB.chmod(0o600)
    address = f"http://127.0.0.1:{port}"
    if _has_nobody(SHOP_DB):
        env["GURVO_FIRST_KEY"] = key = first_key()
        print(f"\nThe shop is empty. Its first lead begins here: {address}/first#{key}\n(the key, if it is asked for: {key})")
    print(f"\nGurvo: {address}\n\nCtrl-C stops it.", flush=True)
    return _serve_and_keep(port, env, lock)


def manage_shop(*command: str) -> int:
    """Run one of Django's commands on the shop's database."""
    ensure_all()
    return run(PYTHON, MANAGE, *command, env=migrate(SHOP_DB))
