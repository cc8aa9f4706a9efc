"""Somebody going through a practice case over HTTP."""

import json
from uuid import uuid4

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
