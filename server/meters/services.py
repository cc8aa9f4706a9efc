"""Which tester has a link, and what it shows at a point now. Nothing here is recorded: that is `readings`'."""

from uuid import UUID

from django.conf import settings
from django.db import transaction

from base.problems import NotFoundHere, Refused
from crews.models import Crew
from evenprobe.wiring import Terminal
from kit.models import Tester
from kit.services import tester_of
from meters.line import address_of
from meters.models import Link
from meters.scpi import FUNCTIONS
from meters.wire import Live, Setup, live
from sites.models import Point
from sites.services import find


def _allowed(address: str) -> None:
    """Refuses what is no address, and what an administrator did not allow: the server is not led anywhere else."""
    try:
        name = address_of(address).name
    except ValueError as error:
        raise Refused(("address", str(error))) from None
    if name not in settings.METER_LINKS:
        allowed = ", ".join(settings.METER_LINKS) or "none"
        raise Refused(("address", f"this server may not reach {name}; its setting METER_LINKS allows {allowed}"))


@transaction.atomic
def put_link(crew: Crew, tester_id: UUID, address: str) -> Tester:
    """Where the tester answers; an empty address takes it off the wire."""
    tester, wanted = tester_of(crew, tester_id), address.strip()
    if wanted:
        _allowed(wanted)
    Link.objects.filter(tester=tester).delete()
    if wanted:
        Link.objects.create(tester=tester, address=wanted)
    return tester


def links_of(crew: Crew) -> list[Link]:
    return list(Link.objects.filter(tester__crew=crew, tester__retired_at=None).select_related("tester"))


def live_at(crew: Crew, point_id: UUID, tester_id: UUID, setup: Setup, *, begin_anew: bool) -> tuple[Live, float]:
    """What the tester's meter shows with its probes there, and the highest volts it can show."""
    point = find(crew, Point, point_id)
    ends = {*point.terminals, str(Terminal.REF)}
    between = [("load_between", end) for end in setup.load_between or ()]
    for key, end in (("from", setup.measuring), ("to", setup.reference), *between):
        if end not in ends:
            raise Refused((key, f"{end!r} is no terminal of this point; use {', '.join(sorted(ends))}"))
    return shown_by(crew, tester_id, setup, begin_anew=begin_anew)


def shown_by(crew: Crew, tester_id: UUID, setup: Setup, *, begin_anew: bool = False) -> tuple[Live, float]:
    """What the tester's meter shows wherever its probes are, and the highest volts it can show."""
    tester = tester_of(crew, tester_id)
    if setup.function not in FUNCTIONS:
        raise Refused(("function", f"a meter on a wire shows {', '.join(FUNCTIONS)}"))
    link = Link.objects.filter(tester=tester).first()
    if link is None:
        raise NotFoundHere("link")
    _allowed(link.address)
    ability = tester.instrument().instrument().volts()
    return live(link.address, setup, begin_anew=begin_anew), ability.top if ability else 0.0
