"""Processes beside the server that the core is asked in."""

import json
import os
import signal
import subprocess
import sys
import time
from pathlib import Path
from types import SimpleNamespace

import pytest
from django.core.cache import cache

from crews.models import Crew
from readings import interpreters, questions
from readings.interpretations import interpretation_of
from readings.interpreter import CoreFailed
from readings.point_view import view_of
from tests.server.in_a_process import ensembles_kept, fails, lost, process_of
from tests.server.requests import entry, record


@pytest.fixture
def one(settings, monkeypatch):
    """An interpreter beside the server, gone in the end; and nothing that settles by itself."""
    monkeypatch.setattr("readings.settling._beside", lambda: SimpleNamespace(wake=lambda: None))
    settings.INTERPRETERS = 1
    interpreters._interpreters.cache_clear()
    yield interpreters._interpreters()[0]
    for each in interpreters._interpreters():
        if each._pool is not None:
            each._pool.shutdown(cancel_futures=True)
    interpreters._interpreters.cache_clear()


def test_the_answer_is_the_same_and_from_another_process(anna, place, one, settings):
    record(anna, place, entry(119.8))
    view = view_of(Crew.objects.get(name="ours"), place["point"])
    beside = interpretation_of(view)
    settings.INTERPRETERS = 0
    cache.clear()
    assert interpretation_of(view) == beside
    settings.INTERPRETERS = 1
    assert interpreters.ask("outlets", process_of, "{}") != os.getpid()


def test_a_failure_there_is_told_with_its_traceback(one):
    with pytest.raises(CoreFailed, match="ZeroDivisionError: nobody foresaw it"):
        interpreters.ask("outlets", fails, "{}")
    assert interpreters.ask("outlets", questions.made_ready, SURVEY) is None


def test_a_process_that_is_lost_is_made_again(one):
    first = interpreters.ask("outlets", process_of, "{}")
    os.kill(first, signal.SIGKILL)
    assert interpreters.ask("outlets", process_of, "{}") != first
    with pytest.raises(RuntimeError):
        interpreters.ask("outlets", lost, "{}")
    assert interpreters.ask("outlets", process_of, "{}") > 0
    assert one.waiting == 0


def test_what_is_asked_ahead_of_a_lost_process_fails_nobody(one):
    os.kill(interpreters.ask("outlets", process_of, "{}"), signal.SIGKILL)
    time.sleep(0.5)
    for _ in range(3):
        interpreters.ask_ahead("outlets", questions.made_ready, SURVEY)
    assert interpreters.ask("outlets", process_of, "{}") > 0


SURVEY = json.dumps(
    {
        "format": "even-probe/survey", "version": 1, "practice": "british",
        "supply": {"system": "230", "earthing": "TN-S"},
        "points": [{"id": "p", "kind": "outlet", "terminals": ["L", "N", "PE"], "readings": []}],
    }
)  # fmt: skip


def test_it_forgets_what_it_drew_where_it_grew_too_large(settings, one):
    settings.INTERPRETER_MB = 1
    interpreters.ask("outlets", questions.made_ready, SURVEY)
    assert interpreters.ask("outlets", ensembles_kept, "{}") == 0


def test_points_of_one_sort_go_to_the_same_process_until_people_wait_there(settings, one):
    settings.INTERPRETERS = 3
    interpreters._interpreters.cache_clear()
    first = interpreters._interpreter_of("outlets")
    assert all(interpreters._interpreter_of("outlets") is first for _ in range(5))
    first.waiting = 2
    second = interpreters._interpreter_of("outlets")
    assert second is not first
    for each in interpreters._interpreters():
        each.waiting = 2
    assert interpreters._interpreter_of("outlets") is first


def test_they_end_with_the_server():
    script = (
        "import os, django; django.setup()\n"
        "from django.conf import settings; settings.INTERPRETERS = 1\n"
        "from readings import interpreters\nfrom tests.server.in_a_process import process_of\n"
        "if __name__ == '__main__':\n"
        " print(interpreters.ask('outlets', process_of, '{}'), flush=True); os.kill(os.getpid(), 9)\n"
    )
    root = Path(__file__).parents[2]
    env = {**os.environ, "DJANGO_SETTINGS_MODULE": "project.settings", "PYTHONPATH": f"{root / 'server'}:{root}"}
    ended = subprocess.run([sys.executable, "-c", script], env=env, capture_output=True, text=True, timeout=60)
    assert ended.stdout.strip(), ended.stderr
    other = int(ended.stdout)
    for _ in range(50):
        if not Path(f"/proc/{other}").exists():
            return
        time.sleep(0.1)
    pytest.fail("it is still there")
