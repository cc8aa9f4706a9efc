"""Somebody going through a practice case over HTTP."""

import json
from uuid import uuid4

from evenprobe.isolation import QUESTIONS
from tests.server.conftest import Person

KETTLE = "cold-kettle"
PAIRS = (("L", "N"), ("L", "PE"), ("N", "PE"))


class InACase(Person):
    """The same person, asking under the case's address."""

    def __init__(self, person, case):
        super().__init__(person.client)
        self.case = case
        self.testers = {t["label"]: t["id"] for t in self.get("/testers").json()}
        self.point = self.get("/practised").json()["point"]["id"]

    def _at(self, path):
        return f"/practice/{self.case}/api{path}"

    def get(self, path):
        return self.client.get(self._at(path))

    def put(self, path, body):
        return self.client.put(self._at(path), json.dumps(body), content_type="application/json")

    def post(self, path, body):
        return self.client.post(self._at(path), json.dumps(body), content_type="application/json")

    def does(self, doing, **more):
        return self.put(f"/practised/acts/{uuid4()}", {"doing": doing, **more})

    def shows(self, entry, tester="meter"):
        return self.post("/practised/shown", {"entry": entry, "tester": self.testers[tester]})

    def records(self, one, other, tester="meter", **wrong):
        about = {"quantity": "voltage", "mode": "ac", "from": one, "to": other}
        seen = self.shows(about, tester).json()["entry"]
        body = {"entry": {**about, **seen, **wrong}, "tester": self.testers[tester]}
        return self.put(f"/points/{self.point}/readings/{uuid4()}", body)


def begun(person, name=KETTLE, **more):
    case = str(uuid4())
    answer = person.put(f"/practice/{case}", {"name": name, **more})
    assert answer.status_code == 200, answer.content
    return InACase(person, case)


def proof_of(case, *events):
    """A proof of death begun in the case, and what happened to it."""
    [site] = case.get("/sites").json()
    [supply] = case.get(f"/sites/{site['id']}").json()["supplies"]
    proof = str(uuid4())
    begin = {
        "supply": supply["id"], "name": "pump", "what": "circuit", "terminals": ["L", "N", "PE"],
        "asked": {question.kind: False for question in QUESTIONS} | {"second-feed": True},
        "sources": [{"id": "s1", "label": "board, way 1"}, {"id": "s2", "label": "inverter", "kind": "second-feed"}],
    }  # fmt: skip
    answer = case.put(f"/proofs/{proof}", begin)
    assert answer.status_code == 200, answer.content
    for entry in events:
        answer = case.put(
            f"/proofs/{proof}/events/{uuid4()}",
            {"entry": entry, "tester": case.testers["two pole"] if entry["type"] in ("proved", "tested") else None},
        )
        assert answer.status_code == 200, answer.content
    return answer.json()


def proved_dead(case):
    """Both feeds off and locked, the tester proved, every pair dead, the tester proved again."""
    off = [{"type": what, "source": source} for source in ("s1", "s2") for what in ("off", "locked")]
    known = {"type": "proved", "at_least": 230.0, "against": "proving-unit"}
    pairs = [{"type": "tested", "from": one, "to": other, "below": 12.0} for one, other in PAIRS]
    return proof_of(case, *off, known, *pairs, known)
