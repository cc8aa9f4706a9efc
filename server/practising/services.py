"""Going through a case: begun, done at, shown by its testers. A retry is the same, not a second."""

import secrets
from collections.abc import Mapping
from datetime import datetime
from typing import Any
from uuid import UUID, uuid4

from django.db import transaction
from django.db.models import QuerySet
from django.utils import timezone

from base.problems import Refused
from crews.models import Crew
from crews.services import membership_of, name_of
from evenprobe.formats import CaseFile, FormatError, InstrumentEntry, parse
from evenprobe.formats.case import shipped
from evenprobe.formats.case_of import case_of
from evenprobe.formats.drawn import HIGHEST_SEED, drawn
from evenprobe.formats.shown import unread
from evenprobe.practising import Danger, Doing, Progress, refusal
from evenprobe.practising.acts import OF_THE_FEED, locks_what_is_on
from evenprobe.quantities import Measurement, Reading
from evenprobe.wiring.circumstances import Device
from kit.services import testers_of as kit_of
from practising.looking_back import hint
from practising.models import Practised, PractisedAct
from practising.on_a_hunt import is_on_a_hunt, place_of, probes_of
from practising.on_a_sheet import is_on_a_sheet, is_tips_together, reading_of
from practising.open_cases import file_of, how_far, number_of, simulated, testers_of, trips
from practising.sandbox import set_up
from proofs.logs import dead_at
from proofs.models import Proof
from readings.interpreters import ask_ahead
from readings.point_view import view_of
from readings.questions import made_ready

_FROM_A_FILE = "from a file"


def practised_by(user: Any) -> QuerySet[Practised]:
    return Practised.objects.filter(user=user.pk).select_related("sandbox", "debrief").prefetch_related("acts")


def chosen(name: str, content: Mapping[str, Any] | None, step_and_seed: tuple[int, int] | None) -> tuple[str, CaseFile]:
    """One that ships, by its name, one from a file, or one drawn; with what it is called among those gone through."""
    if step_and_seed is not None:
        file = drawn(*step_and_seed)
        return file.title, file
    if content is not None:
        return _FROM_A_FILE, parse(CaseFile, dict(content))
    known = shipped()
    if name not in known:
        raise Refused(("name", f"no case of this name comes with the program; use one of {', '.join(known)}"))
    return name, known[name]


def made_of(crew: Crew, point_id: UUID, told: Mapping[str, Any]) -> CaseFile:
    """A case with the facts of one of the crew's points and its testers in use, by no name of any."""
    survey = view_of(crew, point_id).checked
    kit = [tester.instrument() for tester in kit_of(crew) if not tester.is_strange]
    return case_of(survey, kit, seed=secrets.randbelow(HIGHEST_SEED), **told)


def make_ready(name: str) -> None:
    """What the first readings at a case that ships will need, so that it opens at once; a hunt needs nothing."""
    file = shipped()[name]
    if len(file.installation.points) == 1 and file.hunted is None:
        facts = file.installation.facts(file.installation.single_point())
        ask_ahead(repr(facts), made_ready, file.installation.model_dump_json(by_alias=True, exclude_none=True))


@transaction.atomic
def begin(user: Any, case_id: UUID, name: str, file: CaseFile) -> Practised:
    """Open a case. The same again changes nothing."""
    existing = Practised.objects.filter(pk=case_id).first()
    if existing is not None:
        if existing.user_id != user.pk or existing.name != name:
            raise Refused(("id", "this id is taken"), status=409)
        return existing
    sandbox = Crew.objects.create(id=uuid4(), name=f"Practice {case_id}")
    point = set_up(sandbox, user, case_id, file)
    return Practised.objects.create(
        id=case_id,
        user=user,
        by_name=name_of(user),
        home=membership_of(user).crew,
        sandbox=sandbox,
        name=name,
        case=as_kept(file),
        point=point.id,
        begun_at=timezone.now(),
    )


def as_kept(file: CaseFile) -> dict[str, Any]:
    return file.model_dump(mode="json", by_alias=True, exclude_none=True)


def do(
    practised: Practised,
    act_id: UUID,
    doing: Doing,
    conditions: list[str],
    entry: Mapping[str, Any],
    tester: str,
    point: UUID | None = None,
) -> None:
    """Do something at the case, with what comes of it. The same id again changes nothing. `point`: of a round."""
    if _is_done(practised, act_id, doing):
        return
    now, found = timezone.now(), how_far(practised)
    case = file_of(practised)
    why = refusal(found, doing) or _not_here(case, found, doing)
    if why:
        raise Refused(("doing", why))
    _refuse_unknown(practised, conditions)
    came: dict[str, Any] = {"conditions": conditions} if conditions else {}
    danger: Danger | None = None
    if doing is Doing.PROBED:
        came["tester"] = tester
        danger = _put_on(practised, found, entry, tester, point, now)
    elif doing is Doing.OPENED:
        came["box"] = place_of(practised, case, entry)
        danger = _touched(practised, found, now)
    elif doing is Doing.ON and trips(case):
        danger = Danger.ONTO_FAULT
    elif doing is Doing.TOUCHED:
        danger = _touched(practised, found, now)
        came |= {"ends": True} if case.solved.dead and danger is None else {}
    elif locks_what_is_on(found, doing):
        danger = Danger.LIVE_LOCK
    elif doing is Doing.HINT:
        came["said"] = hint(practised, found)
    if danger is not None:
        came["danger"] = str(danger)
    with transaction.atomic():
        if not _is_done(practised, act_id, doing):
            PractisedAct.objects.create(id=act_id, of=practised, doing=doing, entry=came, at=now)


def _not_here(case: CaseFile, found: Progress, doing: Doing) -> str:
    """Why a case of this sort does not have it."""
    if doing in OF_THE_FEED and not (found.looked and case.hidden.other_feed):
        return "nobody found anything else that feeds it"
    if doing is Doing.CONCLUDED and case.solved.dead:
        return "this case is over with your hands on it, proved dead"
    if doing is Doing.OPENED and case.hunted is None:
        return "there is no box to open in this case"
    return ""


def _fed(practised: Practised, found: Progress) -> Device:
    return found.fed(simulated(practised).other_feed)


def _is_done(practised: Practised, act_id: UUID, doing: Doing) -> bool:
    """Raises Refused where something else was done under this id."""
    existing = PractisedAct.objects.filter(id=act_id).first()
    if existing is not None and (existing.of_id, existing.doing) != (practised.pk, doing):
        raise Refused(("id", "this id already belongs to something else that was done"), status=409)
    return existing is not None


def _refuse_unknown(practised: Practised, conditions: list[str]) -> None:
    known = file_of(practised).possible()
    for name in conditions:
        if name not in known:
            raise Refused(("conditions", f"{name!r} cannot be true at this point"))


def _put_on(
    practised: Practised, found: Progress, entry: Mapping[str, Any], tester: str, point: UUID | None, now: datetime
) -> Danger | None:
    fed = _fed(practised, found)
    if is_on_a_hunt(entry):
        probes = probes_of(practised, file_of(practised), entry, found.opened)
        return Danger.BLOWN if simulated(practised).blows_along(probes, device=fed) else None
    number = number_of(practised, point)
    measurement = _measured(practised, entry, tester, number)
    if measurement.neutral == "lifted" and fed == "closed":
        return Danger.LIFTED_LIVE
    at = (now - practised.begun_at).total_seconds()
    return Danger.BLOWN if simulated(practised, number).blows(measurement, device=fed, at=at) else None


def _touched(practised: Practised, found: Progress, now: datetime) -> Danger | None:
    """What a hand meets: dead only where it is dead, and known only where it was proved."""
    at = (now - practised.begun_at).total_seconds()
    if simulated(practised).is_live(device=_fed(practised, found), at=at):
        return Danger.TOUCHED_LIVE
    return None if _is_proved_dead(practised, now) else Danger.TOUCHED_UNPROVED


def _is_proved_dead(practised: Practised, now: datetime) -> bool:
    proofs = Proof.objects.filter(site__crew=practised.sandbox).prefetch_related("events")
    return any(dead_at(proof, now) for proof in proofs)


def shows(
    practised: Practised, entry: Mapping[str, Any] | None, tester: str, point: UUID | None = None
) -> Reading | None:
    """What the tester shows now with its probes there, on a known source without; None where it is broken.

    `point`: of a round. Raises Refused for what cannot be shown.
    """
    found = how_far(practised)
    if tester in found.blown or found.is_over:
        return None
    at = (timezone.now() - practised.begun_at).total_seconds()
    try:
        if entry is None:
            return simulated(practised).on_a_known_source(_held(practised, tester).instrument())
        if is_tips_together(entry):
            return simulated(practised).tips_together(_held(practised, tester).instrument())
        if is_on_a_hunt(entry):
            probes = probes_of(practised, file_of(practised), entry, found.opened)
            held = _held(practised, tester).instrument()
            return simulated(practised).along(probes, held, device=_fed(practised, found))
        number = number_of(practised, point)
        measured = _measured(practised, entry, tester, number)
        shown = simulated(practised, number).shows(measured, device=_fed(practised, found), at=at)
        return simulated(practised).through_leads(shown) if is_on_a_sheet(entry) else shown
    except FormatError:
        raise
    except ValueError as why:
        raise Refused(("entry", f"it shows nothing here: {why}")) from None


def _measured(practised: Practised, entry: Mapping[str, Any], tester: str, number: int) -> Measurement:
    """With the case's own tester, whose errors are its own whenever the case is opened. `number`: of the point."""
    told = reading_of(practised, entry) if is_on_a_sheet(entry) else dict(entry)
    return unread(file_of(practised).installation.points[number], told, _held(practised, tester))


def _held(practised: Practised, tester: str) -> InstrumentEntry:
    file, names = file_of(practised), testers_of(practised)
    held = next((i for i in file.installation.instruments if i.id == names.get(tester)), None)
    if held is None:
        raise Refused(("tester", "take one of the testers at hand in this case"))
    return held
