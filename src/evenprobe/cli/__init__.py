"""`evenprobe`: the core at a shell. JSON in, JSON out; input errors on standard error, exit 2."""

import argparse
import json
import os
import sys
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import Any

from evenprobe import __version__
from evenprobe.formats import (
    FormatError,
    IsolationFile,
    KitFile,
    NetworkFile,
    SurveyFile,
    dead_tests_file,
    fitness_answer,
    forecast_answer,
    interpretation_answer,
    isolation_answer,
    parse,
    parse_json,
    supplies_answer,
    tests_answer,
)
from evenprobe.interpretation import bank_for, forecast, interpret, what_supply
from evenprobe.isolation import isolation
from evenprobe.testers.fitness import fitness

INPUT_ERROR = 2
READER_WENT_AWAY = 1


def _interpret(options: argparse.Namespace) -> dict[str, Any]:
    survey = parse(SurveyFile, _read(options.file))
    return interpretation_answer(
        (point.id, interpret(survey.facts(point), survey.readings(point), survey.kit())) for point in survey.points
    )


def _predict(options: argparse.Namespace) -> dict[str, Any]:
    survey = parse(SurveyFile, _read(options.file))
    facts = survey.facts(survey.single_point())
    if facts.no_lines:
        raise FormatError([("points[0].terminals", facts.no_lines)])
    bank = bank_for(facts)
    known = [condition.id for condition in bank.conditions]
    if options.condition not in known:
        raise FormatError(
            [("--condition", f"{options.condition!r} cannot be true here; use one of {', '.join(known)}")]
        )
    return forecast_answer(forecast(bank, options.condition))


def _identify(options: argparse.Namespace) -> dict[str, Any]:
    survey = parse(SurveyFile, _read(options.file))
    found = [(point.id, what_supply(survey.facts(point), survey.readings(point))) for point in survey.points]
    return supplies_answer(found, survey.practice)


def _solve(options: argparse.Namespace) -> dict[str, Any]:
    return parse(NetworkFile, _read(options.file)).solve()


def _fit(options: argparse.Namespace) -> dict[str, Any]:
    kit = parse(KitFile, _read(options.file))
    return fitness_answer(fitness(kit.the_task(), kit.held()))


def _isolate(options: argparse.Namespace) -> dict[str, Any]:
    return isolation_answer(isolation(parse(IsolationFile, _read(options.file)).log()))


def _judge(options: argparse.Namespace) -> dict[str, Any]:
    return tests_answer(parse(dead_tests_file(), _read(options.file)).outcomes())


def _read(name: str) -> Any:
    try:
        text = sys.stdin.buffer.read() if name == "-" else Path(name).read_bytes()
        return parse_json(text.decode("utf-8"))
    except OSError as error:
        raise FormatError([(name, error.strerror or "cannot be read")]) from None
    except UnicodeDecodeError:
        raise FormatError([(name, "not UTF-8 text")]) from None


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="evenprobe", description=__doc__)
    parser.add_argument("--version", action="version", version=__version__)
    commands = parser.add_subparsers(dest="command", required=True)

    def command(name: str, run: Callable[[argparse.Namespace], dict[str, Any]], what: str, file: str) -> Any:
        sub = commands.add_parser(name, help=what, description=what)
        sub.add_argument("file", metavar=file, help="a file, or - for standard input")
        sub.set_defaults(run=run)
        return sub

    command("interpret", _interpret, "what the readings can mean, verdict, next tests", "SURVEY")
    predict = command("predict", _predict, "what each pair would show under a condition", "SURVEY")
    predict.add_argument("--condition", required=True, metavar="ID")
    command("identify", _identify, "which supply an outlet's readings can be all right on", "SURVEY")
    command("solve", _solve, "two-point equivalents of an explicit network", "NETWORK")
    command("fit", _fit, "is this tester fit for this task", "KIT")
    command("isolate", _isolate, "state of a proof of death", "LOG")
    command("judge", _judge, "dead tests, residual-current tests, components against limits", "TESTS")
    return parser


def _written(answer: dict[str, Any]) -> str:
    """Raises FormatError where the input's numbers lie so far apart that there is none to give."""
    try:
        return json.dumps(answer, indent=1, ensure_ascii=False, allow_nan=False)
    except ValueError:
        raise FormatError([("", "these numbers lie too far apart to be reckoned with")]) from None


def main(arguments: Sequence[str] | None = None) -> int:
    options = _parser().parse_args(arguments)
    try:
        answer = _written(options.run(options))
    except FormatError as error:
        print(error, file=sys.stderr)
        return INPUT_ERROR
    try:
        print(answer, flush=True)
    except BrokenPipeError:
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return READER_WENT_AWAY
    return 0
