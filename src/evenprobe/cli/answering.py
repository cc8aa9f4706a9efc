"""What a command answers: its file read, its answer printed. Imported when there is one: `--help` needs none of it."""

import argparse
import json
import os
import sys
from collections.abc import Callable
from pathlib import Path
from typing import Any

import evenprobe
from evenprobe.entries import FormatError, parse_json
from evenprobe.formats.answers.answer import Answer

_INPUT_ERROR = 2
_NOT_SOUND = 3
_READER_WENT_AWAY = 1


def answer(options: argparse.Namespace) -> int:
    """Print what a command found. Gives the exit status."""
    try:
        found = _found(options)
        written = _written(found.as_json())
    except FormatError as error:
        print(error, file=sys.stderr)
        return _INPUT_ERROR
    try:
        print(written, flush=True)
    except BrokenPipeError:
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return _READER_WENT_AWAY
    return 0 if getattr(found, "sound", True) else _NOT_SOUND


def _found(options: argparse.Namespace) -> Answer:
    return _OTHERWISE.get(options.command, _of_its_file)(options)


def _of_its_file(options: argparse.Namespace) -> Answer:
    """The library's function of a command that takes its file and nothing else."""
    found: Answer = getattr(evenprobe, options.command)(_content(options.file))
    return found


def _predict(options: argparse.Namespace) -> Answer:
    return evenprobe.predict(_content(options.file), options.condition)


def _verify(options: argparse.Namespace) -> Answer:
    return evenprobe.verify(_read(options.file))


_OTHERWISE: dict[str, Callable[[argparse.Namespace], Answer]] = {"predict": _predict, "verify": _verify}


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


def _written(answer: dict[str, Any]) -> str:
    """Raises FormatError where the input's numbers lie so far apart that there is none to give."""
    try:
        return json.dumps(answer, indent=1, ensure_ascii=False, allow_nan=False)
    except ValueError:
        raise FormatError([("", "these numbers lie too far apart to be reckoned with")]) from None
