"""What the rows of a record file hold, checked by the formats of the core as it is where it is written by hand."""

import base64
import hashlib
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field
from datetime import UTC, datetime
from functools import cached_property
from typing import Any

from base.problems import Refused
from evenprobe.conditions.symptoms import SYMPTOMS
from evenprobe.entries import FormatError, parse_json
from evenprobe.formats import InstrumentEntry, IsolationFile, PointEntry, parse, reading_at
from evenprobe.formats.kit import AdapterEntry, CheckEntry, LeadsEntry
from evenprobe.formats.needs import NeedsEntry
from evenprobe.formats.signed import SignedContent
from evenprobe.formats.supply import SupplyEntry
from evenprobe.formats.survey import CircuitEntry
from evenprobe.planning import Work
from evenprobe.practices import PRACTICES
from evenprobe.signing import canonical
from hunts.logs import content_of, file_of, stands
from hunts.models import Hunt, HuntEvent
from kit.models import Part
from photos.decoding import kind_of
from proofs.logs import frame_of
from proofs.models import Proof
from sheets.completing import check_entry
from sites.models import Site
from visits.models import VisitEvent

Row = Mapping[str, Any]
Problem = tuple[str, str]
_EVENTS = "rows.{}[{}].entry.{}"


@dataclass
class Contents:
    """The rows of a file whose shapes are right, by table and by id."""

    rows: Mapping[str, list[dict[str, Any]]]
    links: set[tuple[int, str, str]]
    _testers: dict[str, InstrumentEntry] = field(default_factory=dict)

    def by_id(self, table: str) -> dict[str, dict[str, Any]]:
        return {row["id"]: row for row in self.rows[table]}

    def problems(self) -> Iterator[Problem]:
        """With the paths of the file."""
        for table, check in _CHECKS.items():
            for number, row in enumerate(self.rows[table]):
                for key, text in _found(check, self, row):
                    yield f"rows.{table}[{number}].{key}".rstrip("."), text
        yield from self._whole("proofs", "proof_events", "proof", _proof)
        yield from self._whole("hunts", "hunt_events", "hunt", _hunt)

    def _whole(self, table: str, of_events: str, key: str, check: "Whole") -> Iterator[Problem]:
        """What is only seen of something and its events together."""
        events: dict[str, list[tuple[int, Row]]] = {row["id"]: [] for row in self.rows[table]}
        for number, event in enumerate(self.rows[of_events]):
            events[event[key]].append((number, event))
        for number, row in enumerate(self.rows[table]):
            own = events[row["id"]]
            try:
                check(self, row, [event for _, event in own])
            except FormatError as error:
                for path, text in error.problems:
                    yield _path_of(path, table, number, of_events, own), text
            except (KeyError, TypeError, AttributeError, ValueError):
                yield f"rows.{table}[{number}]", "what happened to it cannot be read"

    @cached_property
    def practices(self) -> dict[str, str]:
        return {row["id"]: row["practice"] for row in self.rows["sites"]}

    @cached_property
    def points(self) -> dict[str, PointEntry]:
        return {row["id"]: _point_entry(row) for row in self.rows["points"]}

    def held(self, row: Row) -> InstrumentEntry | None:
        """What was in the hand, read once for all that were taken with the same."""
        if row["held"] is None:
            return None
        known = canonical(row["held"]).decode()
        if known not in self._testers:
            try:
                self._testers[known] = parse(InstrumentEntry, {"id": "held", **row["held"]})
            except FormatError as error:
                raise FormatError([(f"held.{path}", text) for path, text in error.problems]) from None
        return self._testers[known]


Check = Callable[[Contents, Row], object]
Whole = Callable[[Contents, Row, list[Row]], object]


def _found(check: Check, contents: Contents, row: Row) -> Iterator[Problem]:
    try:
        check(contents, row)
    except FormatError as error:
        yield from error.problems
    except Refused as error:
        yield from error.problems
    except (TypeError, KeyError, AttributeError):
        yield "", "cannot be read"


def _path_of(path: str, table: str, number: int, of_events: str, own: list[tuple[int, Row]]) -> str:
    """`events[2].shows_v` of one proof as the row of the file that it is."""
    for listed in ("events[", "seen["):
        if path.startswith(listed):
            index, _, rest = path.removeprefix(listed).partition("]")
            return _EVENTS.format(of_events, own[int(index)][0], rest.lstrip(".")) if int(index) < len(own) else path
    return f"rows.{table}[{number}]: {path}"


def _named(key: str, text: str) -> FormatError:
    return FormatError([(key, text)])


def _inside(key: str, model: Any, data: Any) -> None:
    try:
        parse(model, data)
    except FormatError as error:
        raise FormatError([(f"{key}.{path}".rstrip("."), text) for path, text in error.problems]) from None


def _part(_contents: Contents, row: Row) -> None:
    _inside("entry", LeadsEntry if row["role"] == Part.Role.LEADS else AdapterEntry, row["entry"])


def _tester(_contents: Contents, row: Row) -> None:
    _inside("entry", InstrumentEntry, {"id": row["id"], **row["entry"]})


def _site(_contents: Contents, row: Row) -> None:
    if row["practice"] not in PRACTICES:
        raise _named("practice", f"must be one of {', '.join(PRACTICES)}")


def _supply(contents: Contents, row: Row) -> None:
    parse(SupplyEntry, {"system": row["system"], "earthing": row["earthing"]})
    practice = contents.practices[row["site"]]
    if practice in PRACTICES and row["system"] not in PRACTICES[practice].supplies:
        raise _named("system", f"{row['system']} is not used with this practice")


def _circuit(_contents: Contents, row: Row) -> None:
    keys = ("rating_a", "conductor", "residual_ma", "curve")
    parse(CircuitEntry, {key: row[key] if row[key] != "" else None for key in keys})
    strange = [one for one in row["noticed"] if one not in SYMPTOMS]
    if strange:
        raise _named("noticed", f"{strange[0]!r} is nothing that can be noticed")


def _point_entry(row: Row) -> PointEntry:
    about = {key: row[key] for key in ("id", "kind", "terminals")}
    return parse(PointEntry, about)


def _point(_contents: Contents, row: Row) -> None:
    _point_entry(row)
    parse(CircuitEntry, {"length_m": row["length_m"]})


def _photo(_contents: Contents, row: Row) -> None:
    content = base64.b64decode(row["image"])
    if kind_of(content) != row["kind"]:
        raise _named("kind", f"the picture is {kind_of(content)}")
    if hashlib.sha256(content).hexdigest() != row["sha256"]:
        raise _named("sha256", "is not the picture's")


def _reading(contents: Contents, row: Row) -> None:
    if row["entry"] is not None:
        try:
            reading_at(contents.points[row["point"]], {**row["entry"], "id": row["id"]}, contents.held(row))
        except FormatError as error:
            raise FormatError([(p if p.startswith("held") else f"entry.{p}", t) for p, t in error.problems]) from None


def _sheet_entry(contents: Contents, row: Row) -> None:
    contents.held(row)
    if row["entry"] is not None:
        check_entry(row["id"], row["entry"])


def _round_event(_contents: Contents, row: Row) -> None:
    known = {"reason": str, "tripped": bool}
    for key, value in row["entry"].items():
        if key not in known or not isinstance(value, known[key]):
            raise _named(f"entry.{key}", "is nothing a round has")


def _visit(contents: Contents, row: Row, key: str = "") -> None:
    circuits, works = row["circuits"], row["works"]
    if not set(circuits) <= contents.by_id("circuits").keys():
        raise _named(f"{key}circuits", "must name circuits of the file by their ids")
    if not set(works) <= {str(work) for work in Work}:
        raise _named(f"{key}works", f"must be some of {', '.join(Work)}")


def _visit_event(contents: Contents, row: Row) -> None:
    wanted = {"planned": {"circuits", "works"}, "left-open": {"what"}, "noted": {"what"}, "put-right": {"event"}}
    if row["entry"].keys() != wanted.get(row["kind"], set()):
        raise _named("entry", f"is not what {row['kind']!r} has")
    if row["kind"] == VisitEvent.Kind.PLANNED:
        _visit(contents, row["entry"], "entry.")
    elif not all(isinstance(text, str) for text in row["entry"].values()):
        raise _named("entry", "must be text")


def _sign_off(contents: Contents, row: Row) -> None:
    """As it was signed: its bytes, its hash, and a link of a chain that is in the file."""
    if hashlib.sha256(row["content"].encode()).hexdigest() != row["content_sha256"]:
        raise _named("content", "is not what was signed")
    _inside("content", SignedContent, parse_json(row["content"]))
    if (row["number"], row["content_sha256"], row["link_sha256"]) not in contents.links:
        raise _named("link_sha256", "is in no chain of this file")


def _proof(contents: Contents, row: Row, events: list[Row]) -> None:
    """Its log as the isolation format has it, that of a file as it came."""
    if row["file"] is not None:
        parse(IsolationFile, row["file"])
        return
    kept = {key: row[key] for key in ("name", "system", "earthing", "terminals", "place", "wet", "sources", "rules")}
    proof = Proof(**kept, site=Site(practice=contents.practices[row["site"]]))
    times = [datetime.fromisoformat(event["at"]) for event in events]
    begun = datetime.fromisoformat(row["begun_at"])
    log = frame_of(proof, max([begun, *times], default=datetime.now(UTC)))
    log["testers"] = [{"id": f"held {n}", **e["held"]} for n, e in enumerate(events) if e["held"] is not None]
    log["events"] = [
        {
            "at": event["at"],
            "type": event["type"],
            **event["entry"],
            **({"tester": f"held {number}"} if event["held"] is not None else {}),
        }
        for number, event in enumerate(events)
    ]
    parse(IsolationFile, log)


def _hunt(contents: Contents, row: Row, events: list[Row]) -> None:
    hunt = Hunt(kind=row["kind"], layout=row["layout"], site=Site(practice=contents.practices[row["site"]]))
    told = [HuntEvent(id=event["id"], kind=event["kind"], entry=event["entry"]) for event in events]
    file_of(content_of(hunt, stands(told)))


_CHECKS: Mapping[str, Check] = {
    "parts": _part,
    "testers": _tester,
    "checks": lambda _contents, row: _inside("entry", CheckEntry, row["entry"]),
    "equipment": lambda _contents, row: _inside("entry", NeedsEntry, row["entry"]),
    "sites": _site,
    "supplies": _supply,
    "circuits": _circuit,
    "points": _point,
    "photos": _photo,
    "readings": _reading,
    "sheet_entries": _sheet_entry,
    "round_events": _round_event,
    "visits": _visit,
    "visit_events": _visit_event,
    "sign_offs": _sign_off,
}
