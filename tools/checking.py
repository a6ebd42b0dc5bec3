"""Tests, lint, benchmark, screenshots, generated files."""

import os
import subprocess
import tempfile
from pathlib import Path

from tools.house import PYTHON, ROOT, VENV, WEB, CannotError, ensure_all, ensure_node, ensure_python, must, python_env, run
from tools.serving import MANAGE
from tools.share import say_share

BIN = VENV / "bin"
SCHEMA = WEB / "src" / "api" / "openapi.json"
TYPES = WEB / "src" / "api" / "schema.d.ts"
ENGINE_SCHEMA = ROOT / "docs" / "formats" / "gurvo-engine.schema.json"


def test(labels: list[str]) -> int:
    """Run every test, or those named. All are shared by several processes, each with a database and a Chromium of its own."""
    ensure_all(checks=True)
    say_share()
    env = {**os.environ, **python_env("test"), "PYTHONWARNINGS": "error::DeprecationWarning:gurvo_core"}
    env.pop("PYTHONDONTWRITEBYTECODE", None)  # some twenty processes read the same sources
    command = [str(PYTHON), str(MANAGE), "test", "--noinput", "--top-level-directory", str(ROOT)]
    if not labels:  # one more process than cores: tests of time-outs wait more than they work
        labels, env["GURVO_TESTS_PROCESSES"] = ["tests"], str((os.cpu_count() or 1) + 1)
    return subprocess.run([*command, *labels], cwd=ROOT, env=env, check=False).returncode


def _export(schema: Path, types: Path, engine_schema: Path) -> None:
    env = python_env("test")
    must(
        "Exporting the API document",
        PYTHON,
        MANAGE,
        "export_openapi_schema",
        "--api",
        "config.api.api",
        "--sorted",
        "--indent",
        "1",
        "--output",
        schema,
        env=env,
    )
    must("Making the web's types", "npx", "openapi-typescript", schema, "--output", types, cwd=WEB)
    must("Writing the engine document's schema", PYTHON, "-m", "tools.schema", engine_schema, env=env)


def make_types() -> int:
    """Make the API document, the web's types and the engine document's JSON Schema anew."""
    ensure_python(checks=True)
    ensure_node()
    _export(SCHEMA, TYPES, ENGINE_SCHEMA)
    return 0


def _types_are_current() -> int:
    with tempfile.TemporaryDirectory() as folder:
        kept = (SCHEMA, TYPES, ENGINE_SCHEMA)
        made = tuple(Path(folder) / file.name for file in kept)
        _export(*made)
        stale = [new.name for new, old in zip(made, kept, strict=True) if not old.exists() or new.read_text() != old.read_text()]
    if stale:
        print(f"{' and '.join(stale)} no longer fit the code: run ./gurvo types and commit what it makes.")
    return 1 if stale else 0


def lint() -> int:
    """Run all checks and say which failed."""
    ensure_python(checks=True)
    ensure_node()
    python = python_env("test")
    checks = {
        "ruff": lambda: run(BIN / "ruff", "check", "."),
        "ruff format": lambda: run(BIN / "ruff", "format", "--check", "--quiet", "."),
        "mypy": lambda: run(BIN / "mypy", "core/gurvo_core", "server", env={**python, "MYPYPATH": "core:server"}),
        "arrows": lambda: run(BIN / "lint-imports", "--no-cache", env=python, quiet=True),
        "biome": lambda: run("npx", "biome", "ci", "--error-on-warnings", "--colors=off", ".", "../tests/web", cwd=WEB),
        "tsc": lambda: run("npx", "tsc", "--noEmit", cwd=WEB),
        "types": _types_are_current,
        "migrations": lambda: run(PYTHON, MANAGE, "makemigrations", "--check", "--dry-run", env=python, quiet=True),
    }
    failed = [name for name, check in checks.items() if check()]
    if failed:
        raise CannotError(f"lint found faults: {', '.join(failed)}.")
    print("lint: nothing found")
    return 0


def benchmark(*, coverage: bool = False, judgement: bool = False) -> int:
    """Measure the speed, and how honest the stated uncertainties are when asked."""
    ensure_all(checks=True)
    more = [*(["--coverage"] if coverage else []), *(["--judgement"] if judgement else [])]
    return run(PYTHON, "-m", "benchmarks.main", *more, env=python_env("shop"))


def walk(families: list[str]) -> int:
    """Let a robot build engines from nothing to a signed record, in the core."""
    ensure_python(checks=True)
    return run(PYTHON, "-m", "tools.walking", *families, env=python_env("test"))


def screenshots() -> int:
    """Make docs/screenshots anew."""
    ensure_all(checks=True)
    return run(PYTHON, "-m", "tools.screenshots", env=python_env("shop"))
