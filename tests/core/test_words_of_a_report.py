"""Nothing stands on a report by its id: every verdict, answer, result, state, limit and urgency has words."""

import ast
from pathlib import Path

import pytest

from evenprobe.deadtests.judgement import Result
from evenprobe.formats import report_words
from evenprobe.interpretation import Verdict
from evenprobe.interpretation.findings import State
from evenprobe.isolation import State as Isolated
from evenprobe.limits import titles
from evenprobe.planning import BY_WHEN
from evenprobe.practices import PRACTICES

CORE = Path(titles.__file__).parents[1]


@pytest.mark.parametrize(
    ("table", "ids"),
    [("VERDICTS", Verdict), ("STATES", State), ("RESULTS", Result), ("PROOFS", Isolated)],
)
def test_every_id_has_its_words(table, ids):
    words = getattr(report_words, table)
    assert set(words) == set(ids)
    assert all(words.values())


def test_whatever_is_not_safe_says_by_when():
    assert {verdict for verdict in Verdict if not verdict.is_safe} == set(BY_WHEN)


def limit_ids():
    """Every limit there is, as whatever makes one names it."""
    for module in sorted(CORE.rglob("*.py")):
        for node in ast.walk(ast.parse(module.read_text())):
            if isinstance(node, ast.Call) and getattr(node.func, "id", "") == "Limit" and node.args:
                [name, *_] = node.args
                if isinstance(name, ast.Constant):
                    yield name.value


def test_every_limit_has_a_title_in_the_practice_s_words():
    found = set(limit_ids())
    assert len(found) > 12
    for limit in sorted(found):
        title = titles.title_of(limit)
        assert limit in titles._TITLES, limit
        for practice in PRACTICES.values():
            assert "{" not in practice.in_words(title)
