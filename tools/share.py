"""Says how large the tests are beside the code: they are to be a quarter of all hand-written lines."""

import re
import shutil
import subprocess

from tools.house import ROOT

CODE = {".py", ".ts", ".tsx", ".css", ".sh", ".html"}
GENERATED = re.compile(r"(^|/)(migrations|dist|node_modules)/|schema\.d\.ts$")


def say_share() -> None:
    """Print lines of code and of tests, blank ones left out; says nothing where there is no git."""
    if shutil.which("git") is None:
        return
    known = subprocess.run(["git", "ls-files", "-co", "--exclude-standard"], cwd=ROOT, capture_output=True, text=True, check=False).stdout
    lines = {"code": 0, "tests": 0}
    for name in known.splitlines():
        file = ROOT / name
        if file.suffix in CODE and file.exists() and not GENERATED.search(name):
            kind = "tests" if name.startswith("tests/") else "code"
            lines[kind] += sum(1 for line in file.read_text("utf-8").splitlines() if line.strip())
    total = sum(lines.values())
    if total:
        print(
            f"{lines['code']} lines of code, {lines['tests']} of tests: tests are {100 * lines['tests'] / total:.0f} % of all lines",
            flush=True,
        )
