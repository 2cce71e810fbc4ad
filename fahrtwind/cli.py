"""The command line: serve, weather-office, simulated-instruments, calc, check, export, backup.

What a command needs is loaded by it.
"""

from __future__ import annotations

import argparse
import gc
import json
import os
import sys
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import date
from pathlib import Path
from typing import TYPE_CHECKING

from fahrtwind.core.errors import FahrtwindError, InputError, UnreadableFile

if TYPE_CHECKING:
    from fahrtwind.core.evaluate import Evaluation
    from fahrtwind.core.job.document import Job

DEFAULT_DATABASE = Path("data/fahrtwind.db")


def main(argv: list[str] | None = None) -> int:
    """Run a command. Exit codes: 0 fine, 1 a stop snag stands, 2 the input cannot be used, 130 interrupted,
    141 pipe closed.
    """
    args = _parser().parse_args(argv)
    try:
        code = int(args.run(args))
        sys.stdout.flush()
        return code
    except FahrtwindError as error:
        return _refused(str(error))
    except BrokenPipeError:
        os.dup2(
            os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno()
        )  # what is still buffered has nowhere to go
        return 141
    except KeyboardInterrupt:
        return 130
    except OSError as error:
        return _refused(f"{error.filename or 'The system'}: {error.strerror or error}.")


@contextmanager
def _loading() -> Iterator[None]:
    """While all is brought in that a command works with, hardly anything is thrown away: looking for garbage
    again and again takes a tenth of the time. What was brought in stays.
    """
    gc.disable()
    try:
        yield
    finally:
        gc.freeze()
        gc.enable()


def _refused(words: str) -> int:
    print(f"fahrtwind: {words}".replace("\n", " "), file=sys.stderr)
    return 2


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="fahrtwind", description="Plan how solar panels are held on vehicle roofs."
    )
    commands = parser.add_subparsers(required=True, metavar="command")
    serve = commands.add_parser("serve", help="start the application on this machine")
    serve.add_argument("--port", type=int, default=8765)
    serve.add_argument(
        "--host", default="127.0.0.1", help="127.0.0.1 unless you want others on your network to reach it"
    )
    serve.add_argument(
        "--name",
        action="append",
        default=[],
        help="a name others reach this machine by, for example shop.local",
    )
    serve.add_argument("--database", type=Path, default=DEFAULT_DATABASE)
    serve.add_argument("--demo", action="store_true", help="put the demo jobs into an empty database")
    serve.add_argument("--weather-office", help="address of a weather office that forecasts are fetched from")
    serve.add_argument("--phones-port", type=int, default=8777, help="where phones come in when let in")
    serve.add_argument("--instruments-port", type=int, help="listen to instruments here, on this machine")
    serve.set_defaults(run=_serve)
    office = commands.add_parser("weather-office", help="start the simulated weather office on this machine")
    office.add_argument("--port", type=int, default=8766)
    office.add_argument("--with-parent", action="store_true", help="end when standard input ends")
    office.set_defaults(run=_weather_office)
    spoken = commands.add_parser("simulated-instruments", help="speak as instruments would, to a listener")
    spoken.add_argument("--port", type=int, required=True)
    spoken.add_argument("--seed", type=int, default=1)
    spoken.add_argument("--with-parent", action="store_true", help="end when standard input ends")
    spoken.set_defaults(run=_simulated_instruments)
    calc = commands.add_parser("calc", help="run one calculation: JSON in on standard input, JSON out")
    calc.add_argument("name", nargs="?", help="leave out to list the calculations")
    calc.set_defaults(run=_calc)
    check = commands.add_parser("check", help="evaluate a job file: snags and figures")
    check.add_argument("job", type=Path)
    check.add_argument("--json", action="store_true", help="print the whole evaluation")
    check.set_defaults(run=_check)
    export = commands.add_parser("export", help="write work sheet, drill map, materials of a job file")
    export.add_argument("job", type=Path)
    export.add_argument("target", type=Path, help="folder to write into")
    export.set_defaults(run=_export)
    backup = commands.add_parser("backup", help="copy the database while it is in use")
    backup.add_argument("target", type=Path)
    backup.add_argument("--database", type=Path, default=DEFAULT_DATABASE)
    backup.set_defaults(run=_backup)
    return parser


def _serve(args: argparse.Namespace) -> int:
    with _loading():
        from fahrtwind.api.serve import Around, serve

    around = Around(tuple(args.name), args.demo, args.weather_office, args.phones_port, args.instruments_port)
    return _with_database(lambda: serve(args.database, args.host, args.port, around))


def _weather_office(args: argparse.Namespace) -> int:
    from fahrtwind.weather_office.office import run

    return run(args.port, with_parent=args.with_parent)


def _simulated_instruments(args: argparse.Namespace) -> int:
    from fahrtwind.instruments.simulated import run

    return run(args.port, args.seed, with_parent=args.with_parent)


def _with_database(work: Callable[[], int]) -> int:
    """What ``work`` returns; a database in trouble is told in one line."""
    from sqlalchemy.exc import DatabaseError

    from fahrtwind.store.database import trouble

    try:
        return work()
    except DatabaseError as error:
        return _refused(" ".join(trouble(error)))


def _calc(args: argparse.Namespace) -> int:
    with _loading():
        from fahrtwind.calc import CALCULATIONS, run
        from fahrtwind.calc.register import as_json

    if args.name is None:
        for found in CALCULATIONS.values():
            print(f"{found.name:36} {found.answers}")
        return 0
    try:
        data = json.load(sys.stdin)
    except (ValueError, RecursionError, OSError) as error:
        raise UnreadableFile(
            "Standard input is not JSON.", remedy="Pipe a JSON object in.", field="stdin"
        ) from error
    result = run(args.name, data)
    sys.stdout.write(as_json(args.name, result).decode() + "\n")
    return 0


def _load(path: Path) -> Job:
    from fahrtwind.files.job_file import read_job

    try:
        return read_job(path.read_bytes())
    except (OSError, ValueError) as error:
        why = getattr(error, "strerror", None) or error
        raise UnreadableFile(
            f"{path} cannot be read ({why}).", remedy="Check the path.", field="job"
        ) from error


def _evaluated(path: Path) -> tuple[Job, Evaluation]:
    with _loading():
        from fahrtwind.core.evaluate import evaluate

        job = _load(path)
        return job, evaluate(job)


def _check(args: argparse.Namespace) -> int:
    job, evaluation = _evaluated(args.job)
    if args.json:
        from pydantic import TypeAdapter

        from fahrtwind.core.evaluate import Evaluation

        sys.stdout.write(TypeAdapter(Evaluation).dump_json(evaluation, indent=1).decode() + "\n")
    else:
        _print_report(job, evaluation)
    return 1 if any(s.severity == "stop" for s in evaluation.snags) else 0


def _print_report(job: Job, evaluation: Evaluation) -> None:
    from fahrtwind.core.saying import say_speed

    plan = evaluation.findings.plan
    print(
        f"{job.name}: {len(job.panels)} panels, {len(evaluation.findings.feet)} feet, "
        f"{len(evaluation.findings.marks)} marks"
    )
    because = f": {'; '.join(evaluation.spoken.because)}" if evaluation.spoken.because else ""
    print(f"  {evaluation.spoken.word.upper()}{because}")
    if plan is not None:
        for words, speed in (
            ("required", plan.required_m_s),
            ("safe", plan.safe_m_s),
            ("let-go", plan.let_go_m_s),
            ("one foot lost", plan.lost_let_go_m_s),
        ):
            print(f"  {words:14} {say_speed(speed, job.units)}")
    for question in evaluation.findings.questions:
        print(f"OPEN     {question.ask}  [{question.path}]")
    for snag in evaluation.snags:
        print(f"{snag.severity.upper():8} {snag.title}: {snag.where}. {snag.why} {snag.remedy}  [{snag.id}]")


def _export(args: argparse.Namespace) -> int:
    from fahrtwind.files.drawing import Stamp
    from fahrtwind.files.exports import EXPORTS

    job, evaluation = _evaluated(args.job)
    try:
        args.target.mkdir(parents=True, exist_ok=True)
        for name, export in EXPORTS.items():
            try:
                written = export.write(job, evaluation, Stamp(date.today()))
            except InputError as missing:  # what this job has not is no reason to leave out the rest
                print(f"fahrtwind: {name} is left out. {missing}", file=sys.stderr)
                continue
            (args.target / name).write_bytes(written)
            print(args.target / name)
    except OSError as error:
        raise UnreadableFile(
            f"{error.filename} cannot be written ({error.strerror}).",
            remedy="Choose another folder.",
            field="target",
        ) from error
    return 0


def _backup(args: argparse.Namespace) -> int:
    from fahrtwind.store.database import backup

    def work() -> int:
        backup(args.database, args.target)
        return 0

    return _with_database(work)


if __name__ == "__main__":
    sys.exit(main())
