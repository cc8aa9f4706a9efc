"""What is sent in the tests: readings, and a body for every route."""

import json
from uuid import uuid4

from tests.server.conftest import PICTURE, proof_body


def entry(value, pair=("L", "N"), **more):
    return {"quantity": "voltage", "mode": "ac", "from": pair[0], "to": pair[1], "value": value, "unit": "V", **more}


def record(person, place, content, reading_id=None, **more):
    path = f"/points/{place['point']}/readings/{reading_id or uuid4()}"
    return person.put(path, {"entry": content, **more})


def filled(body, fill):
    text = json.dumps(body)
    for name, value in fill.items():
        text = text.replace(f"{{{name}}}", value)
    return text


HOLDING = {"practice": "british", "purpose": "prove-dead", "place": "installation", "system": "230"}
STRANGE = {"supply": {"system": "120"}, "outlet": {"name": "Pitch 4", "terminals": ["L", "N", "PE"]}}
VISIT = {
    "site": "{site}", "why": "x", "planned_for": "2026-12-01", "circuits": ["{circuit}"], "works": ["live-tests"],
}  # fmt: skip
ROUTES = [
    ("get", "/sites/{site}", None),
    ("get", "/sites/{site}/survey", None),
    ("get", "/points/{point}/bench", None),
    ("get", "/points/{point}/survey", None),
    ("get", "/points/{point}/trends", None),
    ("get", "/points/{point}/capabilities/{tester}", None),
    ("put", "/testers/{tester}/link", {"address": "TCPIP::127.0.0.1::5025::SOCKET"}),
    ("post", "/points/{point}/live/{tester}", {"function": "volts", "from": "L", "to": "N"}),
    ("put", "/sites/{site}", {"name": "x", "practice": "british"}),
    ("put", "/sites/{site}/survey", {"survey": None}),
    ("put", "/supplies/{supply}", {"site": "{site}", "name": "x", "system": "120", "earthing": "TT"}),
    ("put", "/boards/{board}", {"supply": "{supply}", "name": "x"}),
    ("put", "/circuits/{circuit}", {"board": "{board}", "name": "x"}),
    ("put", "/points/{point}", {"circuit": "{circuit}", "name": "x", "kind": "outlet", "terminals": ["L", "N"]}),
    ("post", "/supplies/{supply}/effects", {"site": "{site}", "name": "x", "system": "120", "earthing": "TT"}),
    ("post", "/circuits/{circuit}/effects", {"board": "{board}", "name": "x"}),
    ("post", "/points/{point}/effects", {"circuit": "{circuit}", "name": "x", "kind": "outlet", "terminals": ["L"]}),
    ("put", "/points/{point}/readings/{new}", {"entry": entry(120.0)}),
    ("post", "/points/{point}/judge", {"entry": entry(120.0)}),
    ("put", "/points/{point}/withdrawals/{new}", {"reading": "{reading}"}),
    ("put", "/points/{point}/cannot", {"cannot": ["load"]}),
    ("put", "/testers/{tester}", {"label": "x", "kind": "multimeter"}),
    ("put", "/testers/{new}", {"label": "x", "kind": "multimeter", "usual_leads": "{leads}"}),
    ("get", "/testers/{tester}", None),
    ("get", "/testers/{tester}/leaning?since=2026-11-24T10:00:00Z", None),
    ("put", "/testers/{tester}/faults/{new}", {"what": "reads 0"}),
    ("put", "/testers/{tester}/checks/{new}", {"entry": {"battery": "good"}}),
    ("post", "/testers/{tester}/holding", HOLDING),
    ("put", "/testers/{tester}/ours", {}),
    ("get", "/sites/{site}/record", None),
    ("get", "/sign-offs/{signed}/code", None),
    ("put", "/kit/{tester}/back", {}),
    ("put", "/kit/{leads}/back", {}),
    ("put", "/parts/{leads}", {"role": "leads", "label": "x"}),
    ("get", "/proofs/{proof}", None),
    ("get", "/proofs/{proof}/log", None),
    ("put", "/proofs/{proof}/log", {"log": None}),
    ("put", "/proofs/{new}/log", {"log": None}),
    ("put", "/proofs/{proof}", {"proof": None}),
    ("put", "/proofs/{new}", {"proof": None}),
    ("put", "/proofs/{proof}/events/{new}", {"event": None}),
    ("get", "/sheets/{sheet}", None),
    ("put", "/sheets/{sheet}", {"circuit": "{circuit}"}),
    ("put", "/sheets/{new}", {"circuit": "{circuit}"}),
    ("put", "/sheets/{sheet}/entries/{new}", {"entry": {"type": "discharged"}}),
    ("post", "/sheets/{sheet}/judge", {"test": {"kind": "continuity", "measured_ohm": 0.2}}),
    ("get", "/sheets/{sheet}/tests", None),
    ("put", "/sheets/{sheet}/tests", {"tests": {}}),
    ("get", "/rounds/{round}", None),
    ("put", "/rounds/{round}", {"site": "{site}", "circuit": "{circuit}"}),
    ("put", "/rounds/{new}", {"site": "{site}", "room": "Workshop"}),
    ("put", "/rounds/{round}/events/{new}", {"point": "{point}", "kind": "pressed"}),
    ("get", "/hunts/{hunt}", None),
    ("get", "/sites/{site}/hunts/intake", None),
    ("post", "/hunts/{hunt}/live/{tester}", {"at": "board", "function": "volts", "from": "L", "to": "N"}),
    ("put", "/hunts/{new}", {"board": "{board}", "happened": "unlabelled", "kind": "map", "ways": ["a"]}),
    ("put", "/hunts/{hunt}", {"circuit": "{circuit}", "happened": "dead", "kind": "open"}),
    ("put", "/hunts/{new}", {"circuit": "{circuit}", "happened": "dead", "kind": "open"}),
    ("put", "/hunts/{hunt}/events/{new}", {"kind": "seen", "entry": {"at": "board", "onward": True}}),
    ("put", "/equipment/{equipment}", {"label": "x", "lines": 1, "amperes": 1, "volts_to_neutral": 120}),
    ("get", "/points/{point}/plug-in/{equipment}", None),
    ("post", "/points/{point}/case", {"hidden": "open-earth", "title": "x", "step": 1}),
    ("put", "/outlets/{point}", {**STRANGE, "site": "{site}"}),
    ("put", "/outlets/{new}", {**STRANGE, "site": "{site}"}),
    ("put", "/outlets/{new}", {**STRANGE, "site": "{site}", "new_site": {"name": "x", "practice": "british"}}),
    ("put", "/loose-outlets/{point}", {"practice": "north-america", "terminals": ["L", "N", "PE"]}),
    ("put", "/points/{point}/filed", {"circuit": "{circuit}", "name": "x"}),
    *(
        ("put", f"/places/{what}/{{{what}}}/retired", {"retired": True})
        for what in ("site", "supply", "board", "circuit", "point")
    ),
    ("get", "/sites/{site}/plannable", None),
    *(("get", f"/sites/{{site}}/tables/{what}", None) for what in ("readings", "circuits", "dead-tests", "kit")),
    ("get", "/boards/{board}/schedule", None),
    ("get", "/sites/{site}/labels", None),
    ("get", "/sites/{site}/lock-tags", None),
    ("get", "/visits/{visit}", None),
    ("put", "/visits/{visit}", VISIT),
    ("put", "/visits/{new}", VISIT),
    ("put", "/visits/{visit}/events/{new}", {"kind": "begun"}),
    ("get", "/drafts/visit/{visit}", None),
    ("get", "/drafts/visit/{visit}/report", None),
    ("get", "/sign-offs/{signed}", None),
    ("get", "/sign-offs/{signed}/file", None),
    ("get", "/sign-offs/{signed}/report", None),
    ("put", "/sign-offs/{new}", {"what": "circuit", "of": "{circuit}", "typed_name": "x"}),
    ("put", "/sign-offs/{signed}", {"what": "circuit", "of": "{circuit}", "typed_name": "x"}),
    *(("get", f"/timeline/{scope}/{{{scope}}}", None) for scope in ("point", "circuit", "site", "tester")),
    ("put", "/hung/{new}", {"photo": "{photo}", "on": "point", "of": "{point}"}),
    ("get", "/photos/{photo}", None),
    ("put", "/photos/{photo}", {"image": PICTURE}),
]


AN_ISOLATION_LOG = {
    "format": "even-probe/isolation",
    "version": 1,
    "practice": "north-america",
    "at": "2026-11-24T10:00:00+00:00",
    "supply": {"system": "120/240"},
    "terminals": ["L", "N", "PE"],
    "sources": [{"id": "s1", "label": "way 1"}],
}


def whole_body(body, ids, survey):
    """A body of ROUTES filled in; those too long to write there are named by their one key."""
    match body:
        case {"survey": None}:
            return {"survey": survey}
        case {"proof": None}:
            return proof_body(ids)
        case {"log": None}:
            return {"supply": ids["supply"], "log": AN_ISOLATION_LOG}
        case {"event": None}:
            return {"entry": {"type": "off", "source": "s1"}}
    return json.loads(filled(body, ids))
