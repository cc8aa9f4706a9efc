"""Testers over HTTP."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest
from ninja import Router, Schema

from crews.services import crew_of
from kit.models import Tester
from kit.services import put_tester
from project.problems import Problems

router = Router(tags=["kit"])


class TesterOut(Schema):
    id: UUID
    label: str
    kind: str
    proved: bool | None
    rated_v: float | None
    category: str | None
    low_z: bool
    steps_v: list[float]


class TesterIn(Schema):
    label: str
    kind: str
    proved: bool | None = None
    rated_v: float | None = None
    category: str | None = None
    steps_v: list[float] | None = None


def tester_out(tester: Tester) -> TesterOut:
    entry = tester.instrument()
    ability = entry.instrument().volts()
    return TesterOut(
        id=tester.id,
        label=entry.label or entry.kind,
        kind=entry.kind,
        proved=entry.proved,
        rated_v=entry.rated_v,
        category=entry.category,
        low_z=ability is not None and ability.low_input_ohm is not None,
        steps_v=entry.steps_v or [],
    )


@router.get("/testers", response=list[TesterOut])
def testers(request: HttpRequest) -> list[TesterOut]:
    found = [tester_out(t) for t in Tester.objects.filter(crew=crew_of(request))]
    return sorted(found, key=lambda t: t.label)


@router.put("/testers/{tester_id}", response={200: TesterOut, 422: Problems})
def save_tester(request: HttpRequest, tester_id: UUID, data: TesterIn) -> TesterOut:
    entry: dict[str, Any] = data.dict(exclude_none=True)
    return tester_out(put_tester(crew_of(request), tester_id, entry))
