"""Whether what was held could clear anything by a dead test."""

from collections.abc import Mapping
from datetime import date
from typing import Any

from evenprobe.deadtests.kinds import DEAD_TESTS
from evenprobe.deadtests.sentences import IN_DOUBT
from evenprobe.practices import Practice
from evenprobe.supplies import SupplySystem
from evenprobe.testers.fitness import Held, known_problems
from evenprobe.testers.ratings import Place
from evenprobe.testers.tasks import Task


def why_unfit(practice: Practice, system: SupplySystem, test: Mapping[str, Any], held: Held | None, on: date) -> str:
    """Why what was held could clear nothing by a test, in words; empty where it could."""
    if held is None:
        return str(IN_DOUBT.say("no-tester"))
    task = Task(
        DEAD_TESTS[test["kind"]].purpose, Place.INSTALLATION, system, practice, test_volts=test.get("test_v"), on=on
    )
    return known_problems(task, held)
