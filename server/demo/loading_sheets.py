"""Load the demo crew's dead tests: past rounds at the mill board, each with its proof, and single sheets."""

from datetime import datetime, timedelta
from typing import Any

from django.utils import timezone

from crews.models import Crew
from demo.crew import FULL_NAME, demo_id
from demo.proofs import LOOM_PAIRS
from demo.sheets import LOADS_OUT, MILL, PAIRS, SHEETS, VISITS, DemoSheet, DemoVisit, tested
from evenprobe.isolation import QUESTIONS
from kit.hands import in_hand
from kit.models import Tester
from proofs.models import Proof, ProofEvent
from sheets.models import Sheet
from sheets.records import SheetView
from sheets.services import begin, put_down
from sites.models import Board, Circuit

TESTERS = dict[str, Tester]
_MINUTES_A_CIRCUIT = 6.0


def load_sheets(crew: Crew, user: Any, testers: TESTERS) -> None:
    """Run again, it changes nothing but the sheet that goes with a proof made anew."""
    for visit in VISITS:
        _visit(crew, user, testers, visit)
    for sheet in SHEETS:
        _single(crew, user, testers, sheet)


def _visit(crew: Crew, user: Any, testers: TESTERS, visit: DemoVisit) -> None:
    board = Board.objects.get(id=demo_id(*MILL))
    first = demo_id("visit", str(visit.days_ago))
    earlier = Proof.objects.filter(id=first).first()
    start = earlier.begun_at if earlier else _morning(visit.days_ago)
    proof = earlier or _board_proof(board, user, testers["t1"], first, start, len(visit.mohm))
    for number, (name, mohms) in enumerate(visit.mohm.items()):
        sheet_id = demo_id("sheet", str(visit.days_ago), name)
        if Sheet.objects.filter(id=sheet_id).exists():
            continue
        at = start + timedelta(minutes=12 + _MINUTES_A_CIRCUIT * number)
        circuit = demo_id(*MILL, name)
        begin(crew, user, sheet_id, circuit, proof.id, "ordinary", False, visit.temperature_c, at)
        put_down(crew, user, sheet_id, demo_id(str(sheet_id), "loads"), LOADS_OUT, at=at)
        for pair, mohm in zip(PAIRS, mohms, strict=True):
            line = next(x.id for x in SheetView(Sheet.objects.get(id=sheet_id)).lines if x.id in _names(pair))
            entry = tested(line, measured_mohm=mohm)
            entry_id = demo_id(str(sheet_id), pair)
            put_down(crew, user, sheet_id, entry_id, entry, testers["i3"].id, at=at + timedelta(minutes=1))


def _names(pair: str) -> set[str]:
    a, b = pair.split("-")
    return {f"insulation {a}-{b}", f"insulation {b}-{a}"}


def _morning(days_ago: int) -> datetime:
    return (timezone.now() - timedelta(days=days_ago)).replace(hour=8, minute=30, second=0, microsecond=0)


def _board_proof(board: Board, user: Any, tester: Tester, proof_id: Any, start: datetime, circuits: int) -> Proof:
    """A proof of a past day: too old to be put down through the door that keeps today's clock."""
    supply = board.supply
    proof = Proof.objects.create(
        id=proof_id,
        site=supply.site,
        name=f"{board.name}, insulation round",
        what="board",
        system=supply.system,
        earthing=supply.earthing,
        terminals=["L1", "L2", "L3", "N", "PE"],
        place="installation",
        sources=[{"id": "s1", "label": "Mill main switch", "kind": "device"}],
        asked={str(q.kind): False for q in QUESTIONS},
        rules={},
        begun_at=start,
        by=user,
        by_name=FULL_NAME,
    )
    held = in_hand(tester, timezone.now()).model_dump(mode="json", exclude_none=True, exclude={"id", "proved"})
    proved = {"against": "proving-unit", "shows_v": 239.0, "mode": "ac"}
    events: list[tuple[float, str, dict[str, Any]]] = [
        (0, "off", {"source": "s1"}),
        (0.5, "locked", {"source": "s1", "lock": "F-01", "tag": True}),
        (1, "proved", proved),
        *((1.5 + i / 4, "tested", {"from": a, "to": b, "shows_v": 0.0, "mode": "ac"}) for i, (a, b) in
          enumerate(LOOM_PAIRS)),
        (5, "proved", proved),
        (6, "stated", {}),
        *((6 + 20.0 * i, "returned", {}) for i in range(1, 2 + int(_MINUTES_A_CIRCUIT * circuits / 20))),
        (20 + _MINUTES_A_CIRCUIT * circuits, "closed", {}),
    ]  # fmt: skip
    for number, (minute, kind, entry) in enumerate(events):
        by_tester = kind in ("proved", "tested")
        ProofEvent.objects.create(
            id=demo_id(str(proof_id), str(number)),
            proof=proof,
            type=kind,
            entry=entry,
            tester=tester if by_tester else None,
            held=held if by_tester else None,
            at=start + timedelta(minutes=minute),
            by=user,
            by_name=FULL_NAME,
        )
    return proof


def _single(crew: Crew, user: Any, testers: TESTERS, demo: DemoSheet) -> None:
    circuit = Circuit.objects.get(id=demo_id(*demo.on))
    proof = Proof.objects.filter(circuit=circuit, name=demo.with_proof).first() if demo.with_proof else None
    sheet_id = demo_id("sheet", str(proof.id if proof else ""), *demo.on)
    if Sheet.objects.filter(id=sheet_id).exists():
        return
    last = demo.put[-1][0]
    start = timezone.now() - timedelta(days=demo.days_ago, minutes=last + 1)
    begin(
        crew, user, sheet_id, circuit.id, proof.id if proof else None, "ordinary", demo.ring, demo.temperature_c, start
    )
    names = {p.name: str(p.id) for p in circuit.points.all()}
    for number, (minute, tester, entry) in enumerate(demo.put):
        put_down(
            crew,
            user,
            sheet_id,
            demo_id(str(sheet_id), str(number)),
            _with_ids(entry, names),
            testers[tester].id if tester else None,
            at=start + timedelta(minutes=minute),
        )


def _with_ids(entry: dict[str, Any], names: dict[str, str]) -> dict[str, Any]:
    """Points are named in the data; on the sheet they go by their ids."""
    found = dict(entry)
    for name, point in names.items():
        if str(found.get("line", "")).endswith(f" {name}"):
            found["line"] = found["line"].removesuffix(name) + point
    test = found.get("test", {})
    if "points" in test:
        found["test"] = {**test, "points": [{**p, "id": names[p["id"]], "label": p["id"]} for p in test["points"]]}
    return found
