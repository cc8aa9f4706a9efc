"""Whatever a file holds, it is refused by path or answered; nothing in between, and what is answered is JSON."""

import json
from datetime import UTC, datetime, timedelta

from hypothesis import given, settings
from hypothesis import strategies as st

import evenprobe
from evenprobe.formats import FormatError, IsolationFile, KitFile, parse
from evenprobe.isolation import EventType, SourceKind
from evenprobe.practices import PRACTICES
from evenprobe.supplies import SYSTEMS
from evenprobe.testers import KINDS
from evenprobe.testers.purposes import Purpose
from evenprobe.testers.ratings import Place
from tests.core.judging import shown

START = datetime(2026, 11, 24, 9, 0, tzinfo=UTC)
STATES = {"energised", "isolated", "proving", "proved-dead", "void", "closed"}
TERMINALS = (
    ["L", "N"],
    ["L", "N", "PE"],
    ["L1", "L2", "N", "PE"],
    ["L1", "L2", "L3", "N", "PE", "CASE"],
    ["L", "CASE"],
)

some = st.sampled_from
volts = some([0.0, 0.4, 1.0, 1.1, 25.0, 49.9, 50.0, 118.0, 239.0, -12.0])
names = some(["s1", "s2", "s3"])


def optional(**keys):
    return st.fixed_dictionaries({}, optional=keys)


rating = optional(category=some(["II", "III", "IV"]), rated_v=some([150, 300, 600, 690]), damage=st.booleans())
leads = st.builds(lambda r, more: {**r, **more}, rating, optional(tip_covers=st.booleans(), ohm=shown(0, 2)))
tester = st.builds(
    lambda kind, r, more: {"kind": str(kind), **r, **more},
    some(list(KINDS)),
    rating,
    optional(
        battery=some(["ok", "low", "unknown"]),
        self_check=st.booleans(),
        always_on_light=st.booleans(),
        known_issue=some(["", "sticks"]),
        calibration_due=some(["2026-01-01", "2027-01-01"]),
        functions=some([[], ["voltage-ac"], ["resistance"]]),
        test_ma=some([5, 30]),
        test_v=some([[], [500]]),
        fuse=some(["ok", "blown"]),
        leads=leads,
        adapters=st.lists(rating, max_size=2),
    ),
)
event = st.builds(
    lambda kind, keys: {"type": str(kind), **keys},
    some(list(EventType)),
    optional(
        **{"from": some(["L", "L1", "L2", "N", "PE", "CASE", "REF"]), "to": some(["N", "PE", "L2", "REF"])},
        source=names,
        label=some(["feed", ""]),
        kind=some([str(k) for k in SourceKind]),
        tester=some(["t0", "t1"]),
        against=some(["proving-unit", "known-live"]),
        shows_v=volts,
        at_least=some([12, 50]),
        below=some([12, 50, 120]),
        mode=some(["ac", "dc"]),
        range=some(["", "auto", "600"]),
        input=some(["high-z", "low-z"]),
        alarm=st.booleans(),
    ),
)


def mended(one, number, terminals):
    """The event with whatever it cannot do without, so that most logs get as far as being replayed."""
    ends = {"from": terminals[0], "to": terminals[-1]}
    whole = {"source": "s1", "tester": "t0", "alarm": False, "shows_v": 0.4, **ends, **one, **ends}
    whole["source"] = f"found {number}" if one["type"] == "source-found" else "s1"
    whole["label"] = "feed"
    if "at_least" in one or "below" in one:
        whole = {k: v for k, v in whole.items() if k not in ("shows_v", "at_least")} | {"below": one.get("below", 12)}
    if whole.get("mode") != "dc" and "shows_v" in whole:
        whole["shows_v"] = abs(whole["shows_v"])
    return whole


@st.composite
def logs(draw):
    minutes, events = 0.0, []
    terminals = draw(some(TERMINALS))
    mend = draw(st.integers(0, 9)) > 0
    for number, one in enumerate(draw(st.lists(event, max_size=12))):
        minutes += draw(some([0, 0.5, 2, 11, 31]))
        at = (START + timedelta(minutes=minutes)).isoformat()
        events.append({"at": at, **(mended(one, number, terminals) if mend else one)})
    return {
        "format": "even-probe/isolation",
        "version": 1,
        "practice": str(draw(some(list(PRACTICES.values())))),
        "at": (START + timedelta(minutes=minutes + draw(some([0, 5, 40])))).isoformat(),
        "supply": {"system": draw(some(list(SYSTEMS)))},
        "terminals": terminals,
        "place": str(draw(some(list(Place)))),
        "wet": draw(st.booleans()),
        "sources": [{"id": "s1", "label": "way 1"}],
        "testers": [{"id": f"t{i}", **draw(tester)} for i in range(2)],
        "events": events,
    }


def parsed(log):
    try:
        return parse(IsolationFile, log), ()
    except FormatError as error:
        return None, error.problems


@given(logs())
@settings(max_examples=500, deadline=None)
def test_any_isolation_log_is_answered_or_refused_by_path(log):
    file, refused = parsed(log)
    assert (file is None) == bool(refused)
    assert all(path for path, _ in refused)
    if file is None:
        return
    answer = evenprobe.isolate(file).as_json()
    assert json.loads(json.dumps(answer, allow_nan=False)) == answer
    assert answer["state"] in STATES
    assert (answer["state"] == "proved-dead") == (answer["proved_at"] is not None)
    assert answer["state"] != "proved-dead" or not answer["missing"]
    assert {p["event"] for p in answer["problems"]} <= set(range(len(log["events"])))
    assert all(pair["done"] for pair in answer["pairs"]) or answer["state"] != "proved-dead"


@given(tester, some(list(Purpose)), some(list(Place)), some(list(SYSTEMS)), some(list(PRACTICES.values())))
@settings(max_examples=300, deadline=None)
def test_any_kit_is_answered_and_unfit_says_why(held, purpose, place, system, practice):
    task = {"purpose": str(purpose), "place": str(place), "system": system, "on": "2026-11-24"}
    data = {"format": "even-probe/kit", "version": 1, "practice": str(practice), "task": task}
    file = parse(KitFile, {**data, "tester": {"id": "x", **held}})
    answer = evenprobe.fit(file).as_json()
    assert json.loads(json.dumps(answer, allow_nan=False)) == answer
    assert answer["fit"] == (answer["problems"] == [])
    assert all(f["text"] and f["code"] for f in (*answer["problems"], *answer["warnings"]))
