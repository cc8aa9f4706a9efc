"""What is found of a circuit, a site or a visit now, in words and as evidence: what is reported and signed."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime
from importlib.metadata import version
from typing import Any
from uuid import UUID

from django.utils import timezone

from evenprobe.formats.signed import Evidence, SignedContent, SignedOf, SignedTester, SignedVisit
from evenprobe.practices import PRACTICES
from evenprobe.testers.fitness import attention
from evenprobe.this_core import this_core
from kit.hands import Hands
from kit.models import Tester
from photos.services import hung_on
from proofs.logs import log_of
from readings.point_view import PointView
from readings.surveys import survey_of
from sheets.files import tests_of
from sheets.records import SheetView
from signoffs.of_circuit import OfCircuit, Photos, worst
from sites.models import Site
from visits.on_site import CircuitRecord

_PROGRAM = version("even-probe")


@dataclass(frozen=True)
class Asked:
    """What a snapshot is of. `since`: of a visit when it began; dead tests and proofs are looked at from then on."""

    what: str
    of: UUID
    name: str
    site: Site
    circuits: Sequence[CircuitRecord]
    visit: SignedVisit | None = None
    since: datetime | None = None


def snapshot(asked: Asked, by: str, hands: Hands) -> SignedContent:
    """As it is now. Nobody has signed it; what was not tested has no reason yet."""
    practice = PRACTICES[asked.site.practice]
    now = timezone.now()
    photos = _photos(asked)
    found = [OfCircuit(record, asked.since, practice, now, photos) for record in asked.circuits]
    views = [view for one in found for view in one.record.views]
    proofs = [proof for one in found for proof in one.proofs]
    return SignedContent(
        signed_at=now,
        by=by,
        crew=asked.site.crew.name,
        core=this_core(),
        program=_PROGRAM,
        of=SignedOf(what=asked.what, id=str(asked.of), name=asked.name),
        site=asked.site.name,
        practice=practice,
        visit=asked.visit,
        circuits=[one.signed() for one in found],
        not_tested=[item for one in found for item in one.not_tested()],
        next=[to_do for _, to_do in sorted((t for one in found for t in one.to_do()), key=lambda t: worst(t[0]))],
        testers=_testers({t.id: t for one in found for t in one.testers()}.values(), hands, now),
        limits=list({(limit.id, limit.says): limit for one in found for limit in one.limits()}.values()),
        evidence=Evidence(
            survey=_survey(asked.site, views),
            tests=_tests([sheet for one in found for sheet in one.sheets]),
            isolations=[log_of(proof, now) for proof in proofs],
        ),
    )


def _photos(asked: Asked) -> Photos:
    """What hangs on anything that is reported, in one query."""
    things: list[UUID] = []
    for record in asked.circuits:
        things.append(record.circuit.id)
        things += [entry.id for sheet in record.sheets for entry in sheet.entries]
        things += [one for view in record.views for one in (view.point.id, *(row.id for row in view.rows))]
    return hung_on(asked.site.crew, things)


def _survey(site: Site, views: Sequence[PointView]) -> dict[str, Any] | None:
    if not views:
        return None
    return survey_of(site, {view.point: [*view.rows, *view.dead_tests] for view in views}, whole=True)


def _tests(sheets: Sequence[SheetView]) -> dict[str, Any] | None:
    files = [tests_of(sheet.sheet) for sheet in sheets]
    tests = [test for file in files for test in file["tests"]]
    return {**files[0], "label": "Dead tests", "tests": tests} if tests else None


def _testers(testers: Iterable[Tester], hands: Hands, now: datetime) -> list[SignedTester]:
    found = []
    for tester in testers:
        entry, check = hands.holding(tester, now), hands.check_in_force(tester, now)
        rating = f"category {entry.category} {entry.rated_v:g} V" if entry.category and entry.rated_v else ""
        found.append(
            SignedTester(
                id=str(tester.id),
                label=str(tester),
                kind=entry.kind.name,
                rating=rating,
                calibration_due=entry.calibration_due,
                checked_at=check.at if check else None,
                attention=[f.text for f in attention(entry.held(), timezone.localdate())],
            )
        )
    return sorted(found, key=lambda one: one.label)
