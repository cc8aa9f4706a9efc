"""Every table that leaves with a record, a row each: what of it is a site's and a crew's, in an order that holds.

A row comes after those it refers to. What belongs to this server alone does not leave: accounts, links to meters,
what came from which file.
"""

from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

from django.db import models
from django.db.models import Q
from django.db.models.functions import Coalesce

from base.append_only import Told
from crews.models import Crew
from history.models import Change
from hunts.models import Hunt, HuntEvent
from kit.models import Check, Part, Tester, TesterFault
from photos.models import Photo, PhotoOn
from plugging.models import Equipment
from proofs.models import Proof, ProofEvent
from readings.models import Reading
from rounds.models import Round, RoundEvent
from sheets.models import Sheet, SheetEntry
from signoffs.models import SignOff
from sites.models import Board, Circuit, Point, Site, Supply
from visits.models import Visit, VisitEvent

_STAYS = {"crew", "by", "brought", "known_as", "taken_over_at", "taken_over_by"}
"""Fields that do not leave."""


@dataclass(frozen=True)
class Table:
    """`title`: what it is called. `crew`: the way to it.

    `site`: the way to a site, none for what is a crew's; what of it goes with a site is looked for otherwise.
    `but`: of its rows those that stay here.
    """

    name: str
    title: str
    model: type[models.Model]
    crew: str
    site: str = ""
    but: Q = field(default_factory=Q)

    @cached_property
    def fields(self) -> "tuple[models.Field[Any, Any], ...]":
        """Those that leave; a row is known by its `id`, whatever its table counts by."""
        counted = self.model._meta.pk.name if issubclass(self.model, Told) else ""
        return tuple(f for f in self.model._meta.concrete_fields if f.name not in {*_STAYS, counted})

    @property
    def order(self) -> tuple[str | Coalesce, ...]:
        """So that what follows another comes after it, and always the same, under whatever id it is known."""
        if issubclass(self.model, Told):
            return ("at", "number")
        known = Coalesce("known_as", "id")
        return ("recorded_at", known) if self.model is Reading else (known,)

    def rows(self, crew: Crew, site: Site | None) -> models.QuerySet[Any]:
        """Of a crew, or of one of its sites."""
        kept = self.model._default_manager.filter(**{self.crew: crew})
        kept = kept.exclude(self.but) if self.but else kept
        own = kept.select_related("brought").order_by(*self.order)
        if site is None:
            return own
        return own.filter(**{self.site: site.id}) if self.site else own.filter(_used_at(self.name, site))


def _used_at(name: str, site: Site) -> Q:
    """Which of the crew's kit and pictures go with a site: what was used there."""
    if name == "photos":
        named = {*_named_pictures(site), *PhotoOn.objects.filter(site=site).values_list("photo_id", flat=True)}
        return Q(id__in=named)
    way = {"testers": "id", "faults": "tester_id", "parts": "id"}.get(name)
    if way is None:
        return Q(pk__in=[])
    testers = set(_testers_at(site))
    if name == "parts":
        return Q(id__in=set(Tester.objects.filter(id__in=testers).values_list("usual_leads_id", flat=True)))
    return Q(**{f"{way}__in": testers})


def _testers_at(site: Site) -> Iterator[Any]:
    for table in TABLES:
        if table.site and any(field.name == "tester" for field in table.fields):
            yield from (
                table.model._default_manager.filter(**{table.site: site.id}, tester__isnull=False)
                .values_list("tester_id", flat=True)
                .distinct()
                .order_by()
            )


def _named_pictures(site: Site) -> Iterator[Any]:
    """Those that an entry of a sheet or an event of a hunt shows."""
    for table in TABLES:
        if table.name in ("sheet_entries", "hunt_events"):
            shown = table.model._default_manager.filter(**{table.site: site.id}, entry__photo__isnull=False)
            yield from shown.values_list("entry__photo", flat=True)


_SITE = "circuit__board__supply__site"
TABLES: tuple[Table, ...] = (
    Table("parts", "Leads and adapters", Part, "crew"),
    Table("testers", "Testers", Tester, "crew"),
    Table("checks", "Checks of testers", Check, "tester__crew"),
    Table("faults", "Faults of testers", TesterFault, "tester__crew"),
    Table("equipment", "Equipment", Equipment, "crew"),
    Table("sites", "Sites", Site, "crew", "pk"),
    Table("supplies", "Supplies", Supply, "site__crew", "site"),
    Table("boards", "Boards", Board, "supply__site__crew", "supply__site"),
    Table("circuits", "Circuits", Circuit, "board__supply__site__crew", "board__supply__site"),
    Table("points", "Points", Point, f"{_SITE}__crew", _SITE),
    Table("photos", "Photos", Photo, "crew"),
    Table("proofs", "Proofs of isolation", Proof, "site__crew", "site"),
    Table("proof_events", "Events of proofs", ProofEvent, "proof__site__crew", "proof__site"),
    Table("sheets", "Sheets of dead tests", Sheet, f"{_SITE}__crew", _SITE),
    Table("sheet_entries", "Entries on sheets", SheetEntry, f"sheet__{_SITE}__crew", f"sheet__{_SITE}"),
    Table("readings", "Readings", Reading, f"point__{_SITE}__crew", f"point__{_SITE}"),
    Table("rounds", "Rounds", Round, "site__crew", "site"),
    Table("round_events", "Events of rounds", RoundEvent, "round__site__crew", "round__site"),
    Table("hunts", "Hunts", Hunt, "site__crew", "site"),
    Table("hunt_events", "Events of hunts", HuntEvent, "hunt__site__crew", "hunt__site"),
    Table("visits", "Visits", Visit, "site__crew", "site"),
    Table("visit_events", "Events of visits", VisitEvent, "visit__site__crew", "visit__site"),
    Table("photos_on", "Where photos hang", PhotoOn, "photo__crew", "site"),
    Table("sign_offs", "Sign-offs", SignOff, "crew", "site"),
    Table("changes", "Changes of structure", Change, "crew", "site", but=Q(what="person")),
)
BY_NAME = {table.name: table for table in TABLES}
