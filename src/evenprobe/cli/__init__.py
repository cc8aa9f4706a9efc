"""`evenprobe`: the core at a shell. JSON in, JSON out; input errors on standard error, exit 2; not sound, exit 3."""

import argparse
import json
import os
import sys
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import Any

import evenprobe
from evenprobe.entries import FormatError, parse_json
from evenprobe.formats.answers.answer import Answer

_INPUT_ERROR = 2
_NOT_SOUND = 3
_READER_WENT_AWAY = 1


Run = Callable[[argparse.Namespace], Answer]


def _predict(options: argparse.Namespace) -> Answer:
    return evenprobe.predict(_content(options.file), options.condition)


def _verify(options: argparse.Namespace) -> Answer:
    return evenprobe.verify(_read(options.file))


def _one_file(name: str) -> Run:
    """The library's function of a command that takes its file and nothing else."""

    def run(options: argparse.Namespace) -> Answer:
        answer: Answer = getattr(evenprobe, name)(_content(options.file))
        return answer

    return run


def _read(name: str) -> bytes:
    try:
        return sys.stdin.buffer.read() if name == "-" else Path(name).read_bytes()
    except OSError as error:
        raise FormatError([(name, error.strerror or "cannot be read")]) from None


def _content(name: str) -> Any:
    try:
        return parse_json(_read(name).decode("utf-8"))
    except UnicodeDecodeError:
        raise FormatError([(name, "not UTF-8 text")]) from None


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="evenprobe", description=__doc__)
    parser.add_argument("--version", action="version", version=evenprobe.__version__)
    commands = parser.add_subparsers(dest="command", required=True)

    def command(name: str, what: str, file: str, run: Run | None = None) -> Any:
        sub = commands.add_parser(name, help=what, description=what)
        sub.add_argument("file", metavar=file, help="a file, or - for standard input")
        sub.set_defaults(run=run or _one_file(name))
        return sub

    command("interpret", "what the readings can mean, verdict, next tests", "SURVEY")
    predict = command("predict", "what each pair would show under a condition", "SURVEY", _predict)
    predict.add_argument("--condition", required=True, metavar="ID")
    command("identify", "which supply an outlet's readings can be all right on", "SURVEY")
    command("solve", "two-point equivalents of an explicit network", "NETWORK")
    command("fit", "is this tester fit for this task", "KIT")
    command("isolate", "state of a proof of isolation", "LOG")
    command("hunt", "where to open next: shorts, opens, poor joints, chains, board maps; guided hunts", "CIRCUIT")
    command("judge", "dead tests, residual-current tests, components against limits", "TESTS")
    command("verify", "is a saved sign-off as it was signed, and does this core agree with it", "FILE", _verify)
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
        found = options.run(options)
        answer = _written(found.as_json())
    except FormatError as error:
        print(error, file=sys.stderr)
        return _INPUT_ERROR
    try:
        print(answer, flush=True)
    except BrokenPipeError:
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return _READER_WENT_AWAY
    return 0 if getattr(found, "sound", True) else _NOT_SOUND
