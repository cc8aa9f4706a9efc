"""The core as a library: what the package offers, what importing it costs, and that its examples run."""

import doctest
import inspect
import json
import subprocess
import sys
from importlib import import_module
from pathlib import Path
from pkgutil import walk_packages

import pytest

import evenprobe
from evenprobe import cli
from evenprobe.entries import parse_json

SURVEY = {
    "format": "even-probe/survey",
    "version": 1,
    "practice": "british",
    "supply": {"system": "230", "earthing": "TN-S"},
    "points": [
        {
            "id": "p1",
            "kind": "outlet",
            "terminals": ["L", "N", "PE"],
            "readings": [{"id": "r1", "quantity": "voltage", "from": "L", "to": "N", "value": 231.0}],
        }
    ],
}
TESTER = {"id": "m", "kind": "multimeter", "category": "III", "rated_v": 600, "battery": "ok"}
KIT = {
    "format": "even-probe/kit",
    "version": 1,
    "practice": "british",
    "task": {"purpose": "live-voltage", "place": "installation", "system": "230"},
    "tester": TESTER,
}
NETWORK = {
    "format": "even-probe/network",
    "version": 1,
    "frequency_hz": 50,
    "earth": "earth",
    "branches": [{"between": ["a", "earth"], "ohm": 1.0, "emf_v": 230.0}],
    "ask": [["a", "earth"]],
}
LOG = {
    "format": "even-probe/isolation",
    "version": 1,
    "practice": "british",
    "at": "2026-11-28T10:00:00+00:00",
    "supply": {"system": "230"},
    "terminals": ["L", "N", "PE"],
    "sources": [{"id": "s1", "label": "way 1"}],
}
TESTS = {
    "format": "even-probe/tests",
    "version": 1,
    "practice": "british",
    "tests": [{"id": "t", "kind": "continuity", "measured_ohm": 0.2}],
}
CIRCUIT = {
    "format": "even-probe/circuit",
    "version": 1,
    "practice": "british",
    "hunt": "short",
    "points": [{"id": "p1", "after": "board", "length_m": 8}, {"id": "p2", "after": "p1", "length_m": 5}],
    "seen": [{"at": "board", "onward": True}],
}
CASE = {
    "format": "even-probe/case",
    "version": 1,
    "title": "The kettle stays cold",
    "step": 1,
    "complaint": "It did nothing this morning.",
    "installation": {**SURVEY, "points": [{**SURVEY["points"][0], "readings": []}]},
    "hidden": {"condition": "no-supply", "seed": 1},
    "solved": {"among": ["no-supply", "open-line"]},
    "minutes": 20,
}
COMMANDS = {
    "interpret": (SURVEY, []),
    "identify": (SURVEY, []),
    "predict": (SURVEY, ["--condition", "open-earth"]),
    "solve": (NETWORK, []),
    "fit": (KIT, []),
    "isolate": (LOG, []),
    "judge": (TESTS, []),
    "hunt": (CIRCUIT, []),
    "practise": (CASE, []),
}
MODULES = [m.name for m in walk_packages(evenprobe.__path__, "evenprobe.") if not m.name.endswith("__main__")]


@pytest.mark.parametrize("name", COMMANDS)
def test_a_function_answers_what_its_command_prints(name, tmp_path, capsys):
    content, options = COMMANDS[name]
    file = tmp_path / "file.json"
    file.write_text(json.dumps(content))
    assert cli.main([name, str(file), *options]) == 0
    answer = getattr(evenprobe, name)(content, *options[1:])
    assert json.loads(capsys.readouterr().out) == answer.as_json()
    assert type(answer).model_validate(answer.as_json()) == answer, "its model reads what it writes"


@pytest.mark.parametrize("name", COMMANDS)
def test_a_function_says_where_its_file_is_wrong(name):
    content, options = COMMANDS[name]
    with pytest.raises(evenprobe.FormatError, match="unknown key") as refused:
        getattr(evenprobe, name)({**content, "colour": "blue"}, *options[1:])
    assert refused.value.problems == (("colour", "unknown key"),)


def test_every_function_is_offered_and_documented():
    offered = {*COMMANDS, "verify"}
    assert offered | {"FormatError"} == set(evenprobe.__all__)
    for name in offered:
        text = getattr(evenprobe, name).__doc__
        assert "Raises\n    ------\n    FormatError" in text
    with pytest.raises(AttributeError, match="no attribute 'guess'"):
        evenprobe.guess  # noqa: B018


def test_importing_the_package_loads_nothing_it_does_not_need_yet():
    script = "import sys, evenprobe; print([m for m in ('numpy', 'scipy', 'pydantic') if m in sys.modules])"
    found = subprocess.run([sys.executable, "-c", script], capture_output=True, text=True, check=True)
    assert found.stdout.strip() == "[]"


def exported():
    """Every function and class that a package offers, by where it is written."""
    packages = [import_module(name) for name in MODULES]
    for package in (p for p in packages if hasattr(p, "__all__")):
        for name in package.__all__:
            offered = getattr(package, name)
            if inspect.isfunction(offered) or inspect.isclass(offered):
                yield f"{offered.__module__}.{name}", offered


def test_what_a_package_offers_is_documented_whole():
    """NumPy's style: every parameter of a function, and what it returns; of a class at least what it is."""
    incomplete = []
    for name, offered in exported():
        own = offered.__doc__ or ""
        if inspect.isclass(offered):
            complete = bool(own) and own != inspect.getdoc(offered.__mro__[1])
        else:
            told = inspect.signature(offered)
            returns = told.return_annotation in (None, "None") or "Returns\n" in own
            complete = returns and all(f"    {parameter}" in own for parameter in told.parameters)
        if not complete:
            incomplete.append(name)
    assert not incomplete


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ('{"value": NaN}', "NaN is not a number that can be measured"),
        ('{"value": -Infinity}', "-Infinity is not a number that can be measured"),
        ('{"value": 1, "value": 2}', "the key 'value' stands twice in one object"),
        (f'{{"value": {"9" * 5000}}}', "more digits than anything that can be measured"),
        ("[" * 100_000, "nested too deeply"),
        ('{"value": 1', "not JSON: .* at line 1, column"),
    ],
)
def test_what_is_no_json_of_ours_is_named_for_what_it_is(text, said):
    with pytest.raises(evenprobe.FormatError, match=said):
        parse_json(text)


@pytest.mark.parametrize("name", MODULES)
def test_the_examples_of_a_module_run(name):
    found = doctest.testmod(import_module(name))
    assert found.failed == 0


def test_the_ten_lines_of_the_page_run(capsys):
    page = (Path(__file__).parents[2] / "docs/library.md").read_text()
    lines = page.split("```python")[1].split("```")[0]
    exec(lines, {})
    printed = capsys.readouterr().out.splitlines()
    assert printed[0].startswith("unconfirmed - Most likely: correct. Not excluded yet: ")
    assert "open-earth" in printed[1]
    assert printed[-1] == "230 V"
