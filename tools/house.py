"""Sets up what a command needs and rebuilds only what changed: Python packages, system libraries, the web app.

What was set up is remembered by a digest of its sources in var/stamps.
"""

import hashlib
import os
import secrets
import shutil
import subprocess
import sys
import venv
from collections.abc import Iterable
from ctypes.util import find_library
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
VAR = Path(os.environ.get("GURVO_VAR", ROOT / "var"))
VENV = ROOT / ".venv"
PYTHON = VENV / "bin" / "python"
WEB = ROOT / "web"
SHOP_LOCK, CHECKS_LOCK = ROOT / "requirements.lock", ROOT / "checks.lock"
PYTHON_AT_LEAST = "3.11"
NODE_AT_LEAST = 20
PRINT_PACKAGES = ["libpango-1.0-0", "libpangoft2-1.0-0", "libharfbuzz-subset0"]
CHROMIUM = "chromium-headless-shell"  # the same engine without windows and profiles: a page is there in half the time


class CannotError(Exception):
    """Why a command cannot go on, and what would help, in one sentence."""


def run(*command: str | Path, cwd: Path = ROOT, env: dict[str, str] | None = None, quiet: bool = False) -> int:
    """Run a program and return its exit code; say what it said only if it failed when quiet."""
    done = subprocess.run([str(part) for part in command], cwd=cwd, env={**os.environ, **(env or {})}, capture_output=quiet, check=False)
    if quiet and done.returncode:
        sys.stderr.write((done.stdout + done.stderr).decode(errors="replace")[-4000:])
    return done.returncode


def must(what: str, *command: str | Path, cwd: Path = ROOT, env: dict[str, str] | None = None) -> None:
    """Run a set-up program quietly, or stop with one sentence."""
    if run(*command, cwd=cwd, env=env, quiet=True):
        raise CannotError(f"{what} failed; what it said stands above.")


def ensure_var() -> None:
    """Make the folder that holds databases and stamps."""
    try:
        (VAR / "stamps").mkdir(parents=True, exist_ok=True)
        (VAR / "stamps" / ".writable").touch()
    except OSError as error:
        raise CannotError(f"the folder {VAR.name} cannot be written ({error.strerror}); make it writable or set GURVO_VAR.") from None


def digest(paths: Iterable[Path]) -> str:
    """Return a digest of files and of all files below folders."""
    total = hashlib.sha256()
    for path in paths:
        files = sorted(p for p in path.rglob("*") if p.is_file()) if path.is_dir() else [path]
        for file in files:
            total.update(file.relative_to(ROOT).as_posix().encode())
            total.update(file.read_bytes())
    return total.hexdigest()


def is_fresh(name: str, wanted: str, made: Path) -> bool:
    """Whether something was set up from these very sources and is still there."""
    stamp = VAR / "stamps" / name
    return made.exists() and stamp.exists() and stamp.read_text() == wanted


def stamp(name: str, wanted: str) -> None:
    """Remember what something was set up from."""
    (VAR / "stamps" / name).write_text(wanted)


def ensure_python(*, checks: bool = False) -> None:
    """Install the locked Python packages into .venv: what a shop runs, and if asked for what checks it too."""
    ensure_var()
    _ensure_locked("python", SHOP_LOCK)
    if checks:
        _ensure_locked("checks", CHECKS_LOCK)


def _ensure_locked(name: str, lock_file: Path) -> None:
    wanted = digest([lock_file]) + sys.version
    if is_fresh(name, wanted, PYTHON):
        return
    print("Setting up Python packages ..." if name == "python" else "Setting up what checks them ...", flush=True)
    if not PYTHON.exists():
        try:
            venv.create(VENV, with_pip=True)
        except (OSError, subprocess.CalledProcessError):
            raise CannotError("Python cannot make a virtual environment here; install python3-venv and run this again.") from None
    pip = (PYTHON, "-m", "pip", "install", "--quiet", "--disable-pip-version-check", "--require-hashes")
    must("Installing Python packages", *pip, "-r", lock_file)
    stamp(name, wanted)


def ensure_packages(missing: list[str], why: str) -> None:
    """Install Debian packages, or say which are missing."""
    if not missing:
        return
    if not shutil.which("apt-get") or os.geteuid() != 0:
        raise CannotError(f"{why} needs {', '.join(missing)}; install with: apt-get install {' '.join(missing)}")
    print(f"Installing {', '.join(missing)} ...", flush=True)
    quiet = {"DEBIAN_FRONTEND": "noninteractive"}
    must("Reading Debian's package lists", "apt-get", "update", "-qq", env=quiet)
    must("Installing Debian packages", "apt-get", "install", "-y", "-qq", "--no-install-recommends", *missing, env=quiet)


def ensure_print() -> None:
    """Have the libraries that lay out the printed record."""
    ensure_packages([] if find_library("pango-1.0") and find_library("harfbuzz-subset") else PRINT_PACKAGES, "Printing the record")


def ensure_chromium() -> None:
    """Have Debian's Chromium, and what looks into a PDF."""
    missing = [] if shutil.which(CHROMIUM) else [CHROMIUM]
    missing += [] if shutil.which("pdftotext") else ["poppler-utils"]  # reads and pictures the printed record
    ensure_packages(missing, "Driving the real interface")


def ensure_node() -> None:
    """Have Node and the locked npm packages."""
    if not shutil.which("node") or not shutil.which("npm"):
        raise CannotError("Node.js is not on this machine; install Node 20 or newer with npm and run this again.")
    said = subprocess.run(["node", "--version"], capture_output=True, text=True, check=False).stdout.strip().lstrip("v")
    if not said or int(said.split(".")[0]) < NODE_AT_LEAST:
        raise CannotError(f"Node {said or '?'} is too old; install Node {NODE_AT_LEAST} or newer and run this again.")
    wanted = digest([WEB / "package.json", WEB / "package-lock.json"]) + said
    if is_fresh("npm", wanted, WEB / "node_modules"):
        return
    print("Setting up the web's packages ...", flush=True)
    must("Installing the web's packages", "npm", "ci", "--silent", "--no-audit", "--no-fund", cwd=WEB)
    stamp("npm", wanted)


def ensure_web() -> None:
    """Build the web app when its sources changed."""
    ensure_node()
    sources = [WEB / "src", *sorted(p for p in WEB.iterdir() if p.is_file() and p.name != ".npmrc")]
    wanted = digest(sources)
    if is_fresh("web", wanted, WEB / "dist" / "index.html"):
        return
    print("Building the web app ...", flush=True)
    must("Building the web app", "npm", "run", "--silent", "build", cwd=WEB)
    must("Compressing the web app", PYTHON, "-m", "whitenoise.compress", WEB / "dist")
    stamp("web", wanted)


def ensure_all(*, checks: bool = False) -> None:
    """Set up all that a running Gurvo needs; with checks, what they need too: their packages and a browser."""
    ensure_python(checks=checks)
    ensure_print()
    if checks:
        ensure_chromium()
    ensure_web()


def python_env(settings: str = "shop", database: Path | None = None) -> dict[str, str]:
    """Return the environment for the server's Python."""
    env = {
        "PYTHONPATH": os.pathsep.join(map(str, (ROOT / "core", ROOT / "server", ROOT))),
        "DJANGO_SETTINGS_MODULE": f"config.settings.{settings}",
    }
    if settings == "shop":
        env["GURVO_SECRET_KEY"] = secret_key()
    if database:
        env["GURVO_DB"] = str(database)
    return env


def secret_key() -> str:
    """Return this machine's secret key, made once."""
    ensure_var()
    file = VAR / "secret-key"
    if not file.exists():
        file.touch(mode=0o600)
        file.write_text(secrets.token_urlsafe(64))
    return file.read_text()


def lock() -> int:
    """Resolve requirements.in, checks.in and package.json to exact versions with hashes, for every system that Gurvo runs on; lock files
    name no download addresses.
    """
    ensure_var()
    fresh = VAR / "lock-venv"
    shutil.rmtree(fresh, ignore_errors=True)
    venv.create(fresh, with_pip=True)
    must("Installing what resolves", fresh / "bin" / "pip", "install", "-q", "uv")
    resolve = (fresh / "bin" / "uv", "pip", "compile", "-q", "--universal", "--python-version", PYTHON_AT_LEAST, "--generate-hashes")
    plain = ("--no-header", "--no-annotate", "--native-tls", "--upgrade")
    must("Resolving what a shop runs", *resolve, *plain, "requirements.in", "-o", SHOP_LOCK, cwd=ROOT)
    both = ("requirements.in", "checks.in", "-c", SHOP_LOCK)
    must("Resolving what checks it", *resolve, *plain, *both, "-o", CHECKS_LOCK, cwd=ROOT)
    shutil.rmtree(fresh)
    must("Resolving the web's packages", "npm", "install", "--package-lock-only", cwd=WEB)
    web_lock = WEB / "package-lock.json"
    kept = [line for line in web_lock.read_text().splitlines(keepends=True) if '"resolved": ' not in line]
    web_lock.write_text("".join(kept))
    print("requirements.lock, checks.lock and package-lock.json are made anew.")
    return 0
