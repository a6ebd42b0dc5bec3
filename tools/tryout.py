"""Tries what docs/running.md says, in a scratch place of this machine: a service, TLS in front, tablets, backups, an update and back, and a
move to another machine. Each step says what holds, or stops with what does not.
"""

import configparser
import http.client
import json
import os
import re
import shutil
import socket
import sqlite3
import ssl
import subprocess
import tempfile
import time
import uuid
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from tools.house import ROOT, VAR, WEB, CannotError, ensure_all, ensure_packages, must
from tools.real_server import free_port, wait_until_it_listens

RUNNING = ROOT / "docs" / "running"
NAME = "gurvo.shop.lan"
KEY = re.compile(r"first#(\S+)")
ENDS_WITHIN_S = 40
PASSWORD, PIN = "a shed full of cranks", "4812"
NEXT_VERSION = """from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [("shop", "{last}")]
    operations = [migrations.RunSQL("CREATE TABLE shop_tryout (id integer)", "DROP TABLE shop_tryout")]
"""


def _holds(what: str) -> None:
    print(f"holds: {what}", flush=True)


def _see(is_so: bool, otherwise: str) -> None:
    if not is_so:
        raise CannotError(f"does not hold: {otherwise}")


class House:
    """One machine: a checkout, its data, and its second disk."""

    def __init__(self, place: Path, name: str) -> None:
        self.home, self.data, self.disk = place / name / "gurvo", place / name / "data", place / name / "second-disk"
        for folder in (self.data / "stamps", self.disk):
            folder.mkdir(parents=True)
        must("Copying the sources", "git", "clone", "-q", str(ROOT), str(self.home))
        # installed once is enough to try this
        (self.home / ".venv").symlink_to(ROOT / ".venv")
        (self.home / "web" / "node_modules").symlink_to(WEB / "node_modules")
        shutil.copytree(WEB / "dist", self.home / "web" / "dist")
        shutil.copytree(VAR / "stamps", self.data / "stamps", dirs_exist_ok=True)
        self.port = free_port()
        self.log = place / name / "log"

    def unit(self) -> tuple[list[str], dict[str, str]]:
        """The command and environment of the unit, at the scratch place's paths."""
        said = configparser.RawConfigParser(strict=False, interpolation=None)
        text = (RUNNING / "gurvo.service").read_text("utf-8")
        pairs = dict(re.findall(r"^Environment=(\w+)=(.*)$", text, re.MULTILINE))
        said.read_string(re.sub(r"^Environment=.*$", "", text, flags=re.MULTILINE))
        command = [part.replace("/opt/gurvo", str(self.home)) for part in said["Service"]["ExecStart"].split()]
        command[-1] = str(self.port)
        return command, {**pairs, "GURVO_VAR": str(self.data), "GURVO_BACKUPS": str(self.disk)}

    @contextmanager
    def service(self) -> Iterator[subprocess.Popen[bytes]]:
        """The service as systemd would start it, and end it."""
        command, env = self.unit()
        with self.log.open("wb") as log:
            running = subprocess.Popen(command, env={**os.environ, **env}, stdout=log, stderr=subprocess.STDOUT)
        try:
            wait_until_it_listens(self.port)
            yield running
        finally:
            running.terminate()
            running.wait(ENDS_WITHIN_S)

    def command(self, *arguments: str | Path) -> tuple[int, str]:
        """Run ./gurvo there, on its data; return how it ended and what it said."""
        _, env = self.unit()
        command = [str(self.home / "gurvo"), *map(str, arguments)]
        done = subprocess.run(command, env={**os.environ, **env}, capture_output=True, text=True, check=False)
        return done.returncode, done.stdout + done.stderr


class Line(http.client.HTTPSConnection):
    """A line to this machine that asks for the shop by its name."""

    def __init__(self, port: int, authority: Path) -> None:
        super().__init__(NAME, port, context=ssl.create_default_context(cafile=str(authority)))
        self.trust = ssl.create_default_context(cafile=str(authority))

    def connect(self) -> None:
        """Here, whatever the name leads to elsewhere."""
        self.sock = self.trust.wrap_socket(socket.create_connection(("127.0.0.1", self.port)), server_hostname=NAME)


class Device:
    """A browser, as far as this needs one."""

    def __init__(self, port: int, authority: Path) -> None:
        self.line, self.cookies = Line(port, authority), dict[str, str]()
        self.origin = f"https://{NAME}:{port}"
        self.ask("GET", "/api/session")

    def ask(self, method: str, path: str, body: object = None) -> tuple[int, Any]:
        """One request over TLS; return its status and what it said."""
        headers = {"Content-Type": "application/json", "Origin": self.origin, "X-CSRFToken": self.cookies.get("csrftoken", "")}
        headers["Cookie"] = "; ".join(f"{name}={value}" for name, value in self.cookies.items())
        self.line.request(method, path, json.dumps(body) if body is not None else None, headers)
        answer = self.line.getresponse()
        text = answer.read()
        for name, value in answer.getheaders():
            if name.lower() == "set-cookie":
                _see("Secure" in value, f"the cookie {value.partition('=')[0]} goes over lines without TLS too")
                self.cookies[value.partition("=")[0]] = value.partition("=")[2].split(";")[0]
        return answer.status, json.loads(text) if text else None

    def must(self, method: str, path: str, body: object = None) -> Any:
        """The same where it has to be taken."""
        status, said = self.ask(method, path, body)
        _see(status < 300, f"{method} {path} was refused ({status}): {said}")
        return said


def _certificates(place: Path) -> tuple[Path, Path, Path]:
    """An authority and a certificate for the shop's name, as the page says."""
    ca, key, csr, crt, names = (place / name for name in ("ca.crt", "gurvo.key", "gurvo.csr", "gurvo.crt", "names"))
    names.write_text(f"subjectAltName=DNS:{NAME}")
    new = ("openssl", "req", "-newkey", "rsa:3072", "-nodes")
    must("Making an authority", *new, "-x509", "-days", "30", "-subj", "/CN=our shop", "-keyout", place / "ca.key", "-out", ca)
    must("Asking for a certificate", *new, "-subj", f"/CN={NAME}", "-keyout", key, "-out", csr)
    by = ("-CA", ca, "-CAkey", place / "ca.key", "-days", "30", "-extfile", names)
    must("Signing it", "openssl", "x509", "-req", "-in", csr, *by, "-out", crt)
    return ca, crt, key


@contextmanager
def _in_front(place: Path, behind: int) -> Iterator[tuple[int, Path]]:
    """Nginx with the site of the page, in front of a server; its port, and the authority to trust."""
    ca, crt, key = _certificates(place)
    port = free_port()
    site = (RUNNING / "nginx.conf").read_text("utf-8")
    for said, here in (
        ("listen 443 ssl", f"listen 127.0.0.1:{port} ssl"),
        ("http://127.0.0.1:8701", f"http://127.0.0.1:{behind}"),
        ("/etc/ssl/gurvo/gurvo.crt", str(crt)),
        ("/etc/ssl/gurvo/gurvo.key", str(key)),
    ):
        _see(said in site, f"nginx.conf says nothing of {said}")
        site = site.replace(said, here)
    paths = "".join(f"{kind}_temp_path {place};" for kind in ("client_body", "proxy", "fastcgi", "uwsgi", "scgi"))
    (place / "site.conf").write_text(site)
    (place / "main.conf").write_text(
        f"daemon off; pid {place}/nginx.pid; error_log {place}/nginx.log; events {{}} "
        f"http {{ access_log off; {paths} include {place}/site.conf; }}"
    )
    nginx = shutil.which("nginx") or "/usr/sbin/nginx"
    must("nginx's own test", nginx, "-t", "-q", "-c", place / "main.conf")
    running = subprocess.Popen([nginx, "-c", str(place / "main.conf")], stderr=subprocess.DEVNULL)
    try:
        wait_until_it_listens(port)
        yield port, ca
    finally:
        running.terminate()
        running.wait(ENDS_WITHIN_S)


def _a_service(house: House) -> None:
    """The unit is one, its command serves, ends when told, and never runs twice."""
    if shutil.which("systemd-analyze"):
        said = subprocess.run(
            ["systemd-analyze", "verify", "--man=no", str(RUNNING / "gurvo.service")], capture_output=True, text=True, check=False
        ).stderr
        faults = [
            line for line in said.splitlines() if "gurvo.service" in line and "not executable" not in line and "not found" not in line
        ]
        _see(not faults, f"systemd says: {' '.join(faults)}")
    with house.service():
        code, said = house.command("serve", "--port", str(free_port()))
        _see(code != 0 and "another ./gurvo serve is at work" in said, f"a second server was started: {said}")
    _holds("the unit starts the shop, ends it when told, and nothing starts a second one")


def _first_run(house: House, port: int, authority: Path) -> tuple[Device, str]:
    """The lead begins by the key in the log; an example, an engine, a note."""
    key = KEY.search(house.log.read_text("utf-8"))
    _see(key is not None, "no key stands in the service's log")
    assert key is not None
    lead = Device(port, authority)
    who = {"username": "ansel", "name": "Ansel Brook", "password": PASSWORD}
    lead.must("POST", "/api/session/first", {"key": key[1], "shop": "Fellside Works", "zone": "Europe/Zurich", **who})
    lead.must("PATCH", "/api/people/ansel", {"pin": PIN})
    lead.must("POST", "/api/examples/heath-4")
    lead.must("POST", "/api/engines", {"serial": "FW-1", "family": "heath-4", "purpose": "mower", "stand": 1, "promised": None})
    _holds("the first lead begins over TLS with the key from the log; an engine is on stand 1")
    return lead, "FW-1"


def _two_tablets(lead: Device, serial: str, new: Callable[[], Device]) -> list[Device]:
    """Each is paired by a code, lets a PIN in, and what one records the other is shown."""
    tablets = []
    for name in ("bench 1", "bench 2"):
        code = lead.must("POST", "/api/benches", {"name": name})
        _see(code["address"].startswith(f"https://{NAME}"), f"the square code leads to {code['address']}")
        tablet = new()
        tablet.must("POST", "/api/session/pair", {"code": code["code"]})
        tablet.must("POST", "/api/session/at-bench", {"username": "ansel", "password": PIN})
        tablets.append(tablet)
    first, second = tablets
    _note(first, serial, "seen at bench 1")
    _see("seen at bench 1" in json.dumps(second.must("GET", f"/api/engines/{serial}")), "the second tablet is not shown the note")
    _holds("two tablets are paired by their codes, a PIN opens them, and each is shown what the other records")
    return tablets


def _note(device: Device, serial: str, text: str) -> None:
    device.must("POST", f"/api/engines/{serial}/entries", {"id": str(uuid.uuid4()), "entry": {"kind": "note", "text": text}})


def _notes(house: House) -> str:
    """Every entry that stands in the shop's database."""
    with sqlite3.connect(house.data / "shop.sqlite3") as shop:
        return json.dumps(shop.execute("SELECT body FROM work_entry").fetchall())


def _backup_and_rehearsal(house: House) -> Path:
    """On the second disk, and sound."""
    file = house.disk / "before-update.sqlite3"
    for command in (("backup", file), ("backup",), ("rehearse",)):
        code, said = house.command(*command)
        _see(code == 0, f"./gurvo {command[0]} failed: {said}")
    _see(any(house.disk.glob("shop-*.sqlite3")), "no backup is on the second disk")
    _holds("backups lie on the second disk while the shop works, and the last one was restored and verified")
    return file


def _update_and_back(house: House, backup: Path) -> None:
    """A next version with a table of its own; then the version from before, which refuses that database until the backup is in place."""
    git = ("git", "-C", str(house.home), "-c", "user.name=tryout", "-c", "user.email=tryout@localhost")
    migrations = house.home / "server" / "shop" / "migrations"
    last = max(file.stem for file in migrations.glob("[0-9]*.py"))
    (migrations / "9999_tryout.py").write_text(NEXT_VERSION.format(last=last))
    must("Making a next version", *git, "add", ".")
    must("Making a next version", *git, "commit", "-qm", "the next version")
    with house.service():
        pass
    _holds("a next version brings the database into its shape by itself")
    must("Going back", *git, "checkout", "-q", "HEAD^")
    code, said = house.command("people")
    _see(code != 0 and "newer Gurvo" in said, f"an older version took a newer database: {said}")
    code, said = house.command("restore", backup)
    _see(code == 0 and "kept as shop-before-restore" in said, f"the backup was not restored: {said}")
    with house.service():
        _see("seen at bench 1" in _notes(house), "the note is lost")
    _holds("back again: the older version refuses the newer database, takes the backup, and what stood there is kept")


def _moving_house(old: House, new: House, authority_place: Path, tablet: Device) -> None:
    """A backup carried over; the tablets stay paired."""
    stick = old.disk / "moving.sqlite3"
    for house, command in ((old, ("backup", stick)), (new, ("restore", stick)), (new, ("verify", "--against", stick))):
        code, said = house.command(*command)
        _see(code == 0, f"./gurvo {command[0]} failed on the {'old' if house is old else 'new'} machine: {said}")
    with new.service(), _in_front(authority_place, new.port) as (port, authority):
        _see(KEY.search(new.log.read_text("utf-8")) is None, "the new machine asks for a first lead")
        same = Device(port, authority)
        same.cookies["bench"] = tablet.cookies["bench"]
        same.must("POST", "/api/session/at-bench", {"username": "ansel", "password": PIN})
        _note(same, "FW-1", "seen in the new house")
    _holds("on another machine everything fits what was carried over, and the tablets are still paired")


def tryout() -> int:
    """Try it all; some minutes."""
    ensure_all()
    ensure_packages([] if shutil.which("nginx") or Path("/usr/sbin/nginx").exists() else ["nginx-light"], "Trying TLS")
    began = time.monotonic()
    with tempfile.TemporaryDirectory() as folder:
        place = Path(folder)
        for name in ("tls", "other-tls"):
            (place / name).mkdir()
        house = House(place, "old")
        _a_service(house)
        with house.service(), _in_front(place / "tls", house.port) as (port, authority):
            lead, serial = _first_run(house, port, authority)
            tablets = _two_tablets(lead, serial, lambda: Device(port, authority))
            backup = _backup_and_rehearsal(house)
        _update_and_back(house, backup)
        _moving_house(house, House(place, "new"), place / "other-tls", tablets[0])
    print(f"Everything that docs/running.md says was done here, in {time.monotonic() - began:.0f} s.")
    return 0
