"""The kit file: a task, a tester, its leads and adapters; and a tester as every other file writes it too."""

from datetime import date
from typing import Annotated, Literal

from pydantic import Field

from evenprobe.entries import Name, NotNegative, Positive, Strict, SystemId, Text, YesNo
from evenprobe.formats.fields import KindId, PracticeName
from evenprobe.practices import Practice
from evenprobe.supplies import SYSTEMS
from evenprobe.testers import Instrument
from evenprobe.testers.fitness import Held
from evenprobe.testers.purposes import Purpose
from evenprobe.testers.ratings import Adapter, Category, Leads, Place, Rating
from evenprobe.testers.tasks import Task

CategoryName = Literal["II", "III", "IV"]


class RatedEntry(Strict):
    """What is printed on any part."""

    category: CategoryName | None = None
    rated_v: Positive | None = None
    damage: YesNo | None = None
    label: Text | None = None

    def rating(self) -> Rating:
        return Rating(Category[self.category] if self.category else None, self.rated_v)


class LeadsEntry(RatedEntry):
    tip_covers: YesNo | None = None
    ohm: NotNegative | None = None
    """Both leads, tips together."""

    def leads(self) -> Leads:
        return Leads(self.rating(), self.tip_covers, self.damage is True, self.ohm, self.label or "leads")


class AdapterEntry(RatedEntry):
    def adapter(self) -> Adapter:
        return Adapter(self.rating(), self.damage is True, self.label or "adapter")


class InstrumentEntry(RatedEntry):
    """A tester: what the register knows of it, and what today's check found."""

    id: Name
    kind: KindId
    proved: YesNo | None = None
    input_ohm: Positive | None = None
    accuracy_percent: Annotated[float, Field(ge=0, le=50)] | None = None
    accuracy_counts: Annotated[float, Field(ge=0, le=1000)] | None = None
    resolution: Positive | None = None
    functions: list[Name] | None = None
    steps_v: list[Positive] | None = None
    battery: Literal["ok", "low", "unknown"] | None = None
    self_check: YesNo | None = None
    fuse: Literal["ok", "blown", "unknown"] | None = None
    calibration_due: date | None = None
    always_on_light: YesNo | None = None
    test_ma: Positive | None = None
    test_v: list[Positive] | None = None
    known_issue: Text | None = None
    leads: LeadsEntry | None = None
    adapters: list[AdapterEntry] = []

    def instrument(self) -> Instrument:
        """The tester as a thing that shows values."""
        return Instrument(
            id=self.id,
            kind=self.kind,
            proved=self.proved,
            input_ohm=self.input_ohm,
            accuracy_percent=self.accuracy_percent,
            accuracy_counts=self.accuracy_counts,
            resolution=self.resolution,
            rated_volts=self.rated_v,
            test_ma=self.test_ma,
        )

    def held(self) -> Held:
        """The tester as a thing that is fit or not."""
        return Held(
            id=self.id,
            kind=self.kind,
            rating=self.rating(),
            name=self.label or "",
            functions=None if self.functions is None else tuple(self.functions),
            battery=self.battery or "unknown",
            self_check=self.self_check,
            calibration_due=self.calibration_due,
            damaged=self.damage is True,
            always_on_light=self.always_on_light,
            test_ma=self.test_ma,
            test_volts=tuple(self.test_v or ()),
            known_issue=self.known_issue or "",
            fuse_blown=self.fuse == "blown",
            leads=self.leads.leads() if self.leads else None,
            adapters=tuple(a.adapter() for a in self.adapters),
        )


class CheckEntry(Strict):
    """Today's check of a tester and the leads on it; what was left out was not looked at."""

    leads: Literal["good", "bad"] | None = None
    tips: Literal["good", "bad"] | None = None
    battery: Literal["good", "bad"] | None = None
    display: Literal["good", "bad"] | None = None
    self_check: Literal["good", "bad"] | None = None
    lead_ohm: Annotated[float, Field(ge=0, le=1000)] | None = None
    fuse: Literal["good", "bad"] | None = None

    def applied(self, tester: InstrumentEntry) -> InstrumentEntry:
        """The tester as the check found it."""
        leads = tester.leads
        if leads is not None:
            leads = leads.model_copy(
                update={
                    "damage": leads.damage or self.leads == "bad" or None,
                    "tip_covers": leads.tip_covers if self.tips is None else self.tips == "good",
                    "ohm": leads.ohm if self.lead_ohm is None else self.lead_ohm,
                }
            )
        found = {
            "leads": leads,
            "damage": tester.damage or self.display == "bad" or (leads is None and self.leads == "bad") or None,
            "battery": tester.battery if self.battery is None else {"good": "ok", "bad": "low"}[self.battery],
            "self_check": tester.self_check if self.self_check is None else self.self_check == "good",
            "fuse": tester.fuse if self.fuse is None else {"good": "ok", "bad": "blown"}[self.fuse],
        }
        return tester.model_copy(update=found)


class TaskEntry(Strict):
    purpose: Purpose
    place: Place
    system: SystemId
    line_to_line: YesNo | None = None
    device_ma: Positive | None = None
    test_v: Positive | None = None
    on: date | None = None

    def task(self, practice: Practice) -> Task:
        return Task(
            self.purpose,
            self.place,
            SYSTEMS[self.system],
            practice,
            line_to_line=self.line_to_line,
            device_ma=self.device_ma,
            test_volts=self.test_v,
            on=self.on,
        )


class KitFile(Strict):
    """A kit file: testers, what each is wanted for, and the practice they are used in."""

    format: Literal["even-probe/kit"]
    version: Literal[1]
    practice: PracticeName
    task: TaskEntry
    tester: InstrumentEntry
    leads: LeadsEntry | None = None
    adapters: list[AdapterEntry] = []

    def the_task(self) -> Task:
        return self.task.task(self.practice)

    def held(self) -> Held:
        """Leads and adapters beside the tester stand for those within it."""
        beside = {
            "leads": self.leads or self.tester.leads,
            "adapters": self.adapters or self.tester.adapters,
        }
        return self.tester.model_copy(update=beside).held()
