"""`evenprobe`: the core at a shell. JSON in, JSON out; input errors on standard error, exit 2; not sound, exit 3."""

import argparse
from collections.abc import Sequence

import evenprobe


def main(arguments: Sequence[str] | None = None) -> int:
    options = _parser().parse_args(arguments)
    from evenprobe.cli.answering import answer

    return answer(options)


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="evenprobe", description=__doc__)
    parser.add_argument("--version", action="version", version=evenprobe.__version__)
    commands = parser.add_subparsers(dest="command", required=True)

    def command(name: str, what: str, file: str) -> argparse.ArgumentParser:
        sub = commands.add_parser(name, help=what, description=what)
        sub.add_argument("file", metavar=file, help="a file, or - for standard input")
        return sub

    command("interpret", "what the readings can mean, verdict, next tests", "SURVEY")
    predict = command("predict", "what each pair would show under a condition", "SURVEY")
    predict.add_argument("--condition", required=True, metavar="ID")
    command("identify", "which supply an outlet's readings can be all right on", "SURVEY")
    command("solve", "two-point equivalents of an explicit network", "NETWORK")
    command("fit", "is this tester fit for this task", "KIT")
    command("isolate", "state of a proof of isolation", "LOG")
    command("hunt", "where to open next: shorts, opens, poor joints, chains, board maps; guided hunts", "CIRCUIT")
    command("judge", "dead tests, residual-current tests, components against limits", "TESTS")
    command("practise", "a practice case played by the planner: can it be solved as it claims", "CASE")
    command("verify", "is a saved sign-off as it was signed, and does this core agree with it", "FILE")
    return parser
