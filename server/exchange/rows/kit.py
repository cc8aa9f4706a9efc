"""Kit of a spreadsheet against the register: testers, leads and adapters. What comes in is strange at first."""

from collections.abc import Sequence
from datetime import UTC, datetime
from typing import Any

from brought.models import BroughtFile
from crews.models import Crew
from evenprobe.formats import InstrumentEntry, parse
from evenprobe.formats.kit import AdapterEntry, LeadsEntry
from evenprobe.formats.tables import KIT
from evenprobe.testers.kinds import KINDS
from exchange.rows.fates import Cannot, RowFate, fate_of, made_by, readable
from exchange.rows.names import plain
from exchange.rows.own_ids import OwnIds, once
from kit.models import Part, Tester
from tables.others import part_row, tester_row

_BESIDE = {"id", "kind", "usual leads", "faulty", "suspect from"}
_LONGEST_FAULT = 400
_EVER = datetime(1970, 1, 1, tzinfo=UTC)
_PARTS = {str(Part.Role.LEADS): LeadsEntry, str(Part.Role.ADAPTER): AdapterEntry}


class Kit:
    """The rows of one file."""

    def __init__(self, crew: Crew, _site: Any, rows: Sequence[RowFate], file: BroughtFile | None) -> None:
        self._crew, self._file, self._rows = crew, file, readable(rows)
        written = [row.entry.get("id") for row in self._rows]
        self._ids = {model: OwnIds(crew, model, "crew", written) for model in (Tester, Part)}
        own_testers = Tester.objects.filter(crew=crew).select_related("usual_leads", "brought")
        own_parts = list(Part.objects.filter(crew=crew).select_related("brought"))
        self._there = {one.id: tester_row(one) for one in own_testers} | {one.id: part_row(one) for one in own_parts}
        self._leads = {plain(one): one for one in own_parts if one.role == Part.Role.LEADS}
        self._lines: dict[Any, int] = {}

    def look(self) -> None:
        """Give every row that could be read its fate, and what it makes; leads before what they are on."""
        for row in sorted(self._rows, key=lambda one: one.entry["kind"] not in _PARTS):
            with fate_of(row, KIT):
                self._one(row)

    def in_order(self) -> list[Tester | Part]:
        """Parts before testers."""
        return sorted(made_by(self._rows), key=lambda one: isinstance(one, Tester))

    def _one(self, row: RowFate) -> None:
        entry, kind = row.entry, str(row.entry["kind"])
        if kind not in _PARTS and kind not in KINDS:
            raise Cannot(("kind", f"must be one of {', '.join([*KINDS, *_PARTS])}"))
        about = {key: value for key, value in entry.items() if key not in _BESIDE}
        model = Part if kind in _PARTS else Tester
        id_, known_as = self._ids[model].of(entry.get("id"), self._crew.id, {"kind": kind, "label": entry["label"]})
        once(self._lines, id_, row.line)
        if id_ in self._there:
            row.fate = "here" if KIT.agrees(entry, self._there[id_]) else "differs"
            return
        ids = {"id": id_, "known_as": known_as, "crew": self._crew, "brought": self._file}
        if model is Part:
            part = Part(role=kind, entry=_kept(_PARTS[kind], about), **ids)
            self._leads.setdefault(plain(part), part)
            row.made = [part]
        else:
            checked = _kept(InstrumentEntry, {**about, "kind": kind, "id": str(id_)})
            fault, since = _fault(entry)
            usual = self._usual(entry.get("usual leads"))
            row.made = [Tester(entry=checked, usual_leads=usual, fault=fault, suspect_from=since, **ids)]

    def _usual(self, label: str | None) -> Part | None:
        if not label:
            return None
        found = self._leads.get(plain(label))
        if found is None:
            raise Cannot(("usual leads", f"there are no leads called “{label}”, here or in the file"))
        return found


def _fault(entry: dict[str, Any]) -> tuple[str, datetime | None]:
    """What was found faulty, and since when it may have been: always, where nothing is said."""
    fault = entry.get("faulty") or ""
    if len(fault) > _LONGEST_FAULT:
        raise Cannot(("faulty", f"is longer than {_LONGEST_FAULT} characters"))
    return fault, entry.get("suspect from", _EVER) if fault else None


def _kept(model: Any, about: dict[str, Any]) -> dict[str, Any]:
    kept: dict[str, Any] = parse(model, about).model_dump(
        mode="json", exclude_none=True, exclude={"id", "leads", "adapters"}
    )
    return kept
