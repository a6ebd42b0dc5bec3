"""The command line of ./gurvo: each command sets up what is missing, then does its work. Standard library only."""

import argparse
import sys
import time
from pathlib import Path
from typing import Any

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))

from tools import backups, checking, house, mutants, serving, torture, tryout


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="./gurvo", description="Gurvo: the bench companion of an engine builder.")
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND")
    for name, text in (("demo", "start with made-up demo data"), ("serve", "start the shop's own server")):
        command = commands.add_parser(name, help=text)
        command.add_argument("--port", type=int, default=8700 if name == "demo" else 8701)
        command.add_argument("--fresh", action="store_true", help="begin the demo anew") if name == "demo" else None
    test = commands.add_parser("test", help="run every test")
    test.add_argument("labels", nargs="*", help="only these, such as tests.core")
    commands.add_parser("lint", help="ruff, mypy, Biome, tsc, generated files")
    commands.add_parser("types", help="make the API document, the web's types and the engine schema anew")
    commands.add_parser("lock", help="resolve requirements.in to exact versions")
    bench = commands.add_parser("benchmark", help="measure the speed, as ratios in one run")
    bench.add_argument("--coverage", action="store_true", help="and how often the truth lies within the stated U")
    bench.add_argument("--judgement", action="store_true", help="and how often what is told of plucks and bolts is wrong")
    walk = commands.add_parser("walk", help="let a robot build every engine, right and with every mistake")
    walk.add_argument("families", nargs="*", help="only these, such as heath-4")
    changes = commands.add_parser("mutants", help="change a room's code in random places and look whether the core's tests notice")
    changes.add_argument("room", help="such as lash, fits, joints, timing, run")
    changes.add_argument("--of", type=int, default=30, metavar="COUNT", help="how many changes are tried")
    changes.add_argument("--seed", type=int, default=1)
    commands.add_parser("screenshots", help="make docs/screenshots anew from the demo data")
    _add_safekeeping(commands)
    person = commands.add_parser("person", help="add a person to the shop")
    person.add_argument("username")
    person.add_argument("role", choices=["viewer", "builder", "lead"])
    person.add_argument("name", nargs="?", default="")
    people = commands.add_parser("people", help="list people, or change one: role, password, pin, leave, back, unlock")
    people.add_argument("change", nargs="*", help="such as: role NAME lead")
    gauge = commands.add_parser("gauge", help="add a degree wheel or a dial to the shop")
    gauge.add_argument("code")
    gauge.add_argument("kind", choices=["wheel", "dial"])
    gauge.add_argument("resolution", help="smallest step read, degrees or mm")
    gauge.add_argument("uncertainty", help="expanded uncertainty (k = 2) of its calibration, degrees or mm")
    gauge.add_argument("name", nargs="?", default="")
    gauge.add_argument("--due", help="day its calibration is due, such as 2027-05-01")
    commands.add_parser("family", help="load an engine document into the shop").add_argument("file", type=Path)
    return parser


def _add_safekeeping(commands: Any) -> None:
    backup = commands.add_parser("backup", help="copy the shop's database, checked")
    backup.add_argument("file", type=Path, nargs="?", help="where to; a dated file in the shop's own folder when left out")
    backup.add_argument("--every", type=_hours, metavar="24h", help="go on doing so, into the shop's own folder")
    backup.add_argument("--keep", type=int, default=backups.KEEP, help="how many of the shop's own folder are kept")
    restore = commands.add_parser("restore", help="put a backup in place, checked")
    restore.add_argument("file", type=Path)
    restore.add_argument("--adopt", action="store_true", help="even if it is of another shop or of the demo")
    commands.add_parser("rehearse", help="restore the last backup into a scratch place and verify it there")
    commands.add_parser("tryout", help="do what docs/running.md says, in a scratch place: service, TLS, tablets, backup, update, move")
    kills = commands.add_parser("torture", help="kill a server over and over and look whether anything acknowledged is lost")
    kills.add_argument("rounds", type=int, nargs="?", default=200)
    kills.add_argument("--fuzz", type=int, metavar="CALLS", help="ask so many things at random instead, by every role")
    verify = commands.add_parser("verify", help="check that every ledger, or a record handed out, is as it was sealed")
    verify.add_argument("record", nargs="?", help="a record in JSON")
    verify.add_argument("--against", help="a backup, a record, a file with a shop's head, or the head itself as it is printed")


def _hours(text: str) -> float:
    """Seconds, from hours such as 24h."""
    hours = float(text.removesuffix("h"))
    if not 0 < hours < 10_000:
        raise ValueError(text)
    return hours * 3600


def _backup(args: argparse.Namespace) -> int:
    if args.every is None:
        return backups.backup(args.file)
    while True:
        try:
            backups.backup_and_thin(args.keep)
        except house.CannotError as error:  # a full disk may have room tomorrow
            print(f"gurvo: {error}", file=sys.stderr, flush=True)
        time.sleep(args.every)


def _verify_arguments(args: argparse.Namespace) -> list[str]:
    against = args.against and (str(Path(args.against).resolve()) if Path(args.against).exists() else args.against)
    return [*([str(Path(args.record).resolve())] if args.record else []), *(["--against", against] if against else [])]


def _gauge_arguments(args: argparse.Namespace) -> list[str]:
    given = [args.code, args.kind, args.resolution, args.uncertainty, args.name]
    return [*given, *(["--due", args.due] if args.due else [])]


def main() -> int:
    """Run one command."""
    args = _parser().parse_args()
    actions = {
        "demo": lambda: serving.demo(args.port, fresh=args.fresh),
        "serve": lambda: serving.serve(args.port),
        "test": lambda: checking.test(args.labels),
        "lint": checking.lint,
        "types": checking.make_types,
        "lock": house.lock,
        "benchmark": lambda: checking.benchmark(coverage=args.coverage, judgement=args.judgement),
        "walk": lambda: checking.walk(args.families),
        "screenshots": checking.screenshots,
        "mutants": lambda: mutants.mutants(args.room, args.of, args.seed),
        "backup": lambda: _backup(args),
        "restore": lambda: backups.restore(args.file, adopt=args.adopt),
        "torture": lambda: torture.fuzz(args.fuzz) if args.fuzz else torture.torture(args.rounds),
        "rehearse": backups.rehearse,
        "tryout": tryout.tryout,
        "verify": lambda: serving.manage_shop("verify", *_verify_arguments(args)),
        "person": lambda: serving.manage_shop("add_person", args.username, args.role, args.name),
        "people": lambda: serving.manage_shop("people", *args.change),
        "gauge": lambda: serving.manage_shop("add_gauge", *_gauge_arguments(args)),
        "family": lambda: serving.manage_shop("load_family", str(args.file.resolve())),
    }
    try:
        return actions[args.command]()
    except house.CannotError as error:
        print(f"gurvo: {error}", file=sys.stderr)
        return 1
    except KeyboardInterrupt:
        return 130


if __name__ == "__main__":
    sys.exit(main())
