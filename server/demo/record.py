"""The demo crew's record: three visits, a circuit signed off, a meter that was found faulty."""

from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

from django.utils import timezone

from crews.models import Crew
from crews.services import name_of
from demo.crew import demo_id
from kit.faults import found_faulty
from kit.models import TesterFault
from signoffs.models import SignOff
from signoffs.services import draft, sign
from sites.models import Circuit
from visits.models import Visit, VisitEvent
from visits.services import Planned, keep, put_visit


@dataclass(frozen=True)
class DemoVisit:
    """`in_days`: from today, negative for one that was. `circuits`: board and name; none for all.

    `events`: minutes from the start, what, and in words.
    """

    site: str
    why: str
    in_days: int
    works: tuple[str, ...]
    circuits: tuple[tuple[str, str], ...] = ()
    events: tuple[tuple[float, str, str], ...] = ()


VISITS = (
    DemoVisit(
        "Fennwick Weaving Shed",
        "Insulation of the dye room, looked at again after half a year",
        -178,
        ("dead-tests",),
        (("Mill board", "Dye room sockets"),),
        (
            (0, "begun", ""),
            (40, "noted", "Walls are wet to shoulder height; the owner asks what drying would cost"),
            (75, "closed", ""),
        ),
    ),
    DemoVisit(
        "Larkspur Hill Observatory",
        "Yearly test before the visitors' season",
        0,
        ("dead-tests", "live-tests"),
        events=((0, "begun", ""), (12, "left-open", "Cover of the box under the warm room desk")),
    ),
    DemoVisit(
        "Fennwick Mill Cottage",
        "The kitchen ring reads high at the larder",
        3,
        ("dead-tests",),
        (("Cottage consumer unit", "Kitchen ring"),),
    ),
)
_SIGNED = ("Fennwick Weaving Shed", "Mill board", "Loom motor")
_NOT_TESTED_WHY = "Not part of this visit"
FAULTY, FAULT = "m6", "Reads a fifth too low on its 400 V range, compared with M2"
_SUSPECT_DAYS = 40
_BEGUN_BEFORE = timedelta(minutes=25)


def load_record(crew: Crew, user: Any) -> None:
    """Run again, it changes nothing."""
    for visit in VISITS:
        _visit(crew, user, visit)
    fault = demo_id("fault", FAULTY)
    if not TesterFault.objects.filter(id=fault).exists():
        since = timezone.now() - timedelta(days=_SUSPECT_DAYS)
        found_faulty(crew, user, demo_id("tester", FAULTY), fault, FAULT, since)
    signed, circuit = demo_id("signed", *_SIGNED), demo_id(*_SIGNED)
    if not SignOff.objects.filter(id=signed).exists():
        whys = {item.id: _NOT_TESTED_WHY for item in draft(crew, user, "circuit", circuit).not_tested}
        sign(crew, user, signed, "circuit", circuit, name_of(user), whys, "The loom may run again.")


def _morning(in_days: int) -> datetime:
    """Before the sheets of that day, which begin at half past eight."""
    return (timezone.now() + timedelta(days=in_days)).replace(hour=8, minute=20, second=0, microsecond=0)


def _visit(crew: Crew, user: Any, demo: DemoVisit) -> None:
    visit = demo_id("planned", demo.site, demo.why)
    if Visit.objects.filter(id=visit).exists():
        return
    site = demo_id(demo.site)
    on_site = Circuit.objects.filter(board__supply__site=site).order_by("board__position", "position")
    circuits = [demo_id(demo.site, *circuit) for circuit in demo.circuits] or [c.id for c in on_site]
    day = timezone.localdate() + timedelta(days=demo.in_days)
    put_visit(crew, user, visit, site, Planned(demo.why, day, circuits, list(demo.works)))
    start = timezone.now() - _BEGUN_BEFORE if demo.in_days == 0 else _morning(demo.in_days)
    for number, (minute, kind, words) in enumerate(demo.events):
        entry = {"what": words} if words else {}
        at = start + timedelta(minutes=minute)
        keep(crew, user, visit, demo_id(str(visit), str(number)), VisitEvent.Kind(kind), entry, at)
