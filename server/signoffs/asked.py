"""What somebody asks a report or a sign-off of: a circuit, a whole site, or a visit with the circuits it was for."""

from uuid import UUID

from base.problems import NotFoundHere
from crews.models import Crew
from evenprobe.formats.signed import SignedVisit
from signoffs.snapshot import Asked
from sites.models import Circuit
from sites.services import find, site_of
from visits.on_site import looked_into, records_of
from visits.presenters import view_of
from visits.services import with_others


def asked_of(crew: Crew, what: str, of: UUID) -> Asked:
    """Raises NotFoundHere for what is another crew's, or is nothing that can be asked of."""
    if what == "circuit":
        circuit = find(crew, Circuit, of)
        site = circuit.board.supply.site
        own = records_of([site])[site.id].circuits.get(str(of))
        return Asked(what, of, circuit.name, site, looked_into([own] if own else []))
    if what == "site":
        site = site_of(crew, of)
        return Asked(what, of, site.name, site, looked_into(list(records_of([site])[site.id].circuits.values())))
    if what == "visit":
        return _of_visit(crew, of)
    raise NotFoundHere(what)


def _of_visit(crew: Crew, of: UUID) -> Asked:
    visit, others = with_others(crew, of)
    view = view_of(visit, others)
    told = SignedVisit(
        id=str(visit.id),
        why=visit.why,
        begun_at=view.begun_at,
        closed_at=view.closed_at,
        people=view.people,
        open=[one.text for one in view.open],
    )
    return Asked("visit", of, visit.why, visit.site, looked_into(view.circuits), told, view.begun_at)
