"""A sheet filled in through the API."""

from uuid import uuid4

from evenprobe.deadtests.sheet import LOOK_FOR

UNLOCKED = {"type": "unlocked", "source": "s1"}
LOOKED = [{"type": "looked", "item": item.id, "good": True} for item in LOOK_FOR]
OUT = {"type": "loads", "loads": "disconnected", "neutral": "lifted"}
NULLED = {"type": "leads", "null_ohm": 0.1}
SAID = [{"type": "said", "what": what} for what in ("boxes-closed", "people-told")]
DISCHARGED = {"type": "discharged"}
ENERGISED = {"type": "energised"}
REASON = "the freezer cannot wait, seen with the owner"


def put(person, place, entry, entry_id=None, **more):
    return person.put(f"/sheets/{place['sheet']}/entries/{entry_id or uuid4()}", {"entry": entry, **more})


def put_test(person, place, line, tester, entry_id=None, supersedes=None, **test):
    more = {"tester": place[tester]} if tester else {}
    if supersedes:
        more["supersedes"] = supersedes
    return put(person, place, {"type": "tested", "line": line, "test": test}, entry_id, **more)


def lines(person, place):
    answer = person.get(f"/sheets/{place['sheet']}")
    assert answer.status_code == 200, answer.content
    return {line["id"]: line for line in answer.json()["lines"]}


def codes(answer):
    assert answer.status_code == 200, answer.content
    return [w["code"] for w in answer.json()["gate"]["in_the_way"]]


def fill(person, place):
    """Everything of a sound circuit put down."""
    for entry in (*LOOKED, OUT, NULLED):
        assert put(person, place, entry).status_code == 200
    for line in lines(person, place).values():
        if line["step"] == "continuity":
            answer = put_test(person, place, line["id"], "low_ohm", measured_ohm=0.2)
        elif line["step"] == "separation":
            answer = put_test(person, place, line["id"], "low_ohm", over_range=True)
        elif line["step"] == "device":
            answer = put_test(person, place, line["id"], "low_ohm", open_over_range=True, closed_ohm=0.13, latches=True)
        else:
            answer = put_test(person, place, line["id"], "insulation", measured_mohm=220)
        assert answer.status_code == 200, answer.content
    for entry in (DISCHARGED, *SAID):
        answer = put(person, place, entry)
    return answer
