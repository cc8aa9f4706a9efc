"""What is said, in the words of the practice it is said in."""

import importlib
import pkgutil
import re

import pytest

import evenprobe
from evenprobe.conditions import CONDITIONS
from evenprobe.formats import SurveyFile, parse
from evenprobe.formats.answers import InterpretationOut
from evenprobe.interpretation import interpret
from evenprobe.plugging.answer import may_plug_in
from evenprobe.plugging.needs import Needs
from evenprobe.practices import PRACTICES
from evenprobe.practices.practice import CALLED
from evenprobe.sentences import Sentences

FOREIGN = {
    "north-america": r"\b(earth|socket|consumer unit|RCDs?|MCB|protective conductor|residual-current)\b",
    "british": r"\b(ground|receptacle|panel|GFCIs?|residual-current)\b",
    "continental": r"\b(ground|receptacle|panel|GFCIs?|consumer unit|MCB|residual-current)\b",
}
"""Words that people of a practice do not use."""
ONE_PRACTICE = r"\b(earth|ground|socket|receptacle|RCD|GFCI|MCB|breaker|consumer unit|panel|residual-current device)\b"
VOLTS = [("L", "N", 120.3), ("L", "PE", 61.0), ("N", "PE", 58.0)]


def tables():
    for module in pkgutil.walk_packages(evenprobe.__path__, "evenprobe."):
        if module.name.endswith(".sentences"):
            for name, table in vars(importlib.import_module(module.name)).items():
                if isinstance(table, Sentences):
                    yield pytest.param(table, id=f"{module.name.split('.')[1]} {name}")


@pytest.mark.parametrize("table", list(tables()))
def test_no_table_says_what_only_one_practice_says(table):
    for key, words in table.words.items():
        assert not re.search(ONE_PRACTICE, re.sub(r"\{.*?\}", "", words)), f"{key}: {words}"
        assert "  " not in words, key
        assert words == words.strip(), key


@pytest.mark.parametrize("practice", PRACTICES.values(), ids=str)
def test_what_a_condition_is_called_does_and_is_mended_by_is_in_the_practice_s_words(practice):
    for condition in CONDITIONS.values():
        told = (condition.title, condition.symptom, condition.cause, condition.remedy)
        for text in map(practice.in_words, told):
            assert not re.search(FOREIGN[practice.id], text), text


@pytest.mark.parametrize("practice", PRACTICES.values(), ids=str)
def test_a_name_keeps_its_letters_in_a_sentence(practice):
    rcd = practice.words["residual-current device"]
    blind = CONDITIONS["residual-device-fails"]
    assert blind.name_in(practice).startswith(rcd)
    assert blind.title_in(practice).startswith(rcd)
    assert CONDITIONS["open-line"].title_in(practice)[0].isupper()
    assert CONDITIONS["open-line"].name_in(practice)[0].islower()


def test_a_text_names_only_what_every_practice_has_a_word_for():
    for practice in PRACTICES.values():
        assert set(practice.named) == set(CALLED)
        assert all(practice.named.values())


def told(answer):
    """Every sentence in an answer, wherever it is in it; an id has no space."""
    if isinstance(answer, dict):
        return [text for key, value in answer.items() if key not in ("source", "standard") for text in told(value)]
    if isinstance(answer, list):
        return [text for value in answer for text in told(value)]
    return [answer] if isinstance(answer, str) and " " in answer else []


def survey_of(practice, system):
    nominal = {"120": 1.0, "230": 230 / 120}[system]
    readings = [
        {"id": f"r{i}", "quantity": "voltage", "from": a, "to": b, "value": volts * nominal, "unit": "V"}
        for i, (a, b, volts) in enumerate(VOLTS)
    ]
    return parse(
        SurveyFile,
        {
            "format": "even-probe/survey",
            "version": 1,
            "practice": practice,
            "supply": {"system": system, "earthing": "TN-C-S"},
            "points": [{"id": "p", "kind": "outlet", "terminals": ["L", "N", "PE", "CASE"], "readings": readings}],
        },
    )


@pytest.mark.parametrize(("practice", "system"), [("north-america", "120"), ("british", "230"), ("continental", "230")])
def test_a_whole_answer_is_in_the_words_of_its_practice(practice, system):
    file = survey_of(practice, system)
    point, readings = file.facts(file.points[0]), file.readings(file.points[0])
    found = interpret(point, readings, file.kit())
    texts = told(InterpretationOut.of(found).model_dump(mode="json"))
    plug = may_plug_in(point, readings, Needs(1, 10.0, volts_to_neutral=point.system.nominal_volts), found)
    texts += [plug.says, *(text for check in plug.checks for text in (check.title, check.text))]
    assert len(texts) > 40
    for text in texts:
        assert not re.search(FOREIGN[practice], text), text
