"""The tables of the trade that a front end shows: practices, kinds of tester, what can be set on them, places, sizes.

Nothing here is computed; every row comes from the module that knows it.
"""

from typing import Literal

from pydantic import BaseModel

from evenprobe.deadtests.kinds import DEAD_TESTS
from evenprobe.formats.dead_test_forms import DeadTestRow
from evenprobe.formats.report_words import CAUTION, PROOFS, RESULTS, STATES, VERDICTS
from evenprobe.formats.words import (
    CategoryWord,
    EarthingWord,
    KindWord,
    PlaceWord,
    PointKindWord,
    PracticeWord,
    PurposeWord,
    QuantityWord,
    ReferenceWord,
    SystemWord,
)
from evenprobe.limits.protective_devices import INSTANTANEOUS
from evenprobe.practices import PRACTICES, Practice
from evenprobe.practices.practice import WITH_BOARD_END, ContactShape
from evenprobe.quantities import QUANTITIES, Quantity
from evenprobe.quantities.lamps import ENDS_OF
from evenprobe.quantities.written import Function, Need
from evenprobe.supplies import Earthing, SupplySystem
from evenprobe.testers import KINDS, Kind
from evenprobe.testers.purposes import FUNCTIONS, TITLES, Purpose
from evenprobe.testers.ratings import LEAST, MEANING, Category, Place
from evenprobe.wiring import CONDUCTORS, PointKind
from evenprobe.wiring.references import REFERENCES


class ContactsRow(BaseModel):
    """The contacts an outlet or a box may have on a supply, in the practice's words."""

    name: str
    terminals: list[str]


class SystemRow(BaseModel):
    id: SystemWord
    title: str
    lines: list[str]
    nominal_volts: float
    frequency_hz: float
    contacts: list[ContactsRow]


class ContactRow(BaseModel):
    """Where a contact is in a picture 300 wide and 340 high."""

    x: float
    y: float
    shape: ContactShape
    letter_below: bool


class FaceRow(BaseModel):
    plate: Literal["plate", "disc", "round"]
    contacts: dict[str, ContactRow]


class ReferenceEarthRow(BaseModel):
    """A kind of reference earth. `asks_which`: it counts only once another agrees, so which one it was matters."""

    id: ReferenceWord
    name: str
    wrong: str
    asks_which: bool


class PracticeRow(BaseModel):
    """`outlets`: faces by their terminals in order, as `L N PE`. `language`: what dates and numbers are written by.

    `length_unit`: what lengths of cable are written in.
    """

    id: PracticeWord
    name: str
    language: str
    words: dict[str, str]
    letters: dict[str, str]
    colours: dict[str, str]
    outlets: dict[str, FaceRow]
    round_outlet_has: Literal["bars", "pins"]
    polarised_plugs: bool
    ring_circuits: bool
    length_unit: Literal["m", "ft"]
    reference_earths: list[ReferenceEarthRow]
    systems: list[SystemRow]


class AnswerRow(BaseModel):
    value: bool
    label: str


class FunctionRow(BaseModel):
    """What a tester is set to. `fixes`: what it sets in the entry of a reading, which it is also known by.

    `units`: what its number may be given in, the first where nothing is said. What else may be said of it: `load`, a
    known load; `device`, that the circuit's device is open, and `dead`, that it always is, with `neutral_lifted` and
    `unplugged`, that everything is; `over_range`; `extremes`, the most and the least, and how a clamp is closed;
    `timed`, how long it took; `reference`, which reference earth it was; `at_board`, the far end of a conductor.
    """

    id: str
    name: str
    quantity: QuantityWord
    title: str
    """What people call the quantity."""
    unit: str
    units: list[str]
    probes: Literal["two", "one", "none"]
    entered: Literal["number", "pick", "lamps", "steps", "walk"]
    answers: list[AnswerRow]
    fixes: dict[str, str]
    load: bool
    unplugged: bool
    dead: bool
    device: bool
    neutral_lifted: bool
    over_range: bool
    extremes: bool
    timed: bool
    reference: bool
    at_board: bool
    at_the_board: bool
    """Both ends are always there."""
    needs: list[Need]
    on_a_wire: bool
    hint: str
    hint_at: str


class KindRow(BaseModel):
    """`functions`: by id, the usual first."""

    id: KindWord
    name: str
    functions: list[str]
    plugs_in: bool
    goes_round: bool
    may_prove_dead: bool


class LampRow(BaseModel):
    """A lamp of a plug-in tester by the name its reading gives it, and the contacts it is between."""

    id: str
    one: str
    other: str


class PurposeRow(BaseModel):
    id: PurposeWord
    title: str


class PlaceRow(BaseModel):
    id: PlaceWord
    category: CategoryWord
    meaning: str


class ReportWords(BaseModel):
    """Of a report: the caution, and words by ids: verdicts, answers beside them, results of tests, proofs."""

    caution: str
    verdicts: dict[str, str]
    states: dict[str, str]
    results: dict[str, str]
    proofs: dict[str, str]


class Reference(BaseModel):
    """All of them."""

    practices: list[PracticeRow]
    kinds: list[KindRow]
    functions: list[FunctionRow]
    lamps: list[LampRow]
    dead_tests: list[DeadTestRow]
    purposes: list[PurposeRow]
    places: list[PlaceRow]
    categories: dict[str, str]
    register_functions: list[str]
    earthings: list[EarthingWord]
    conductors: list[str]
    curves: list[str]
    point_kinds: list[PointKindWord]
    with_board_end: list[str]
    report: ReportWords


def reference() -> Reference:
    """Every table as it is now."""
    return Reference(
        practices=[_practice(practice) for practice in PRACTICES.values()],
        kinds=[_kind(kind) for kind in KINDS.values()],
        functions=[_function(quantity, f) for quantity in QUANTITIES.values() for f in quantity.functions],
        lamps=[LampRow(id=lamp, one=one, other=other) for lamp, (one, other) in ENDS_OF.items()],
        dead_tests=[DeadTestRow.of(kind) for kind in DEAD_TESTS.values()],
        purposes=[PurposeRow(id=purpose, title=TITLES[purpose]) for purpose in Purpose],
        places=[PlaceRow(id=place, category=LEAST[place][0].name, meaning=LEAST[place][1]) for place in Place],
        categories={category.name: MEANING[category] for category in Category},
        register_functions=list(FUNCTIONS),
        earthings=list(Earthing),
        conductors=list(CONDUCTORS),
        curves=list(INSTANTANEOUS),
        point_kinds=list(PointKind),
        with_board_end=list(WITH_BOARD_END),
        report=ReportWords(caution=CAUTION, verdicts=VERDICTS, states=STATES, results=RESULTS, proofs=PROOFS),
    )


def _practice(practice: Practice) -> PracticeRow:
    return PracticeRow(
        id=practice.id,
        name=practice.name,
        language=practice.language,
        words=dict(practice.words),
        letters=dict(practice.letters),
        colours=dict(practice.conductor_colours),
        outlets={
            terminals: FaceRow(
                plate=face.plate, contacts={t: ContactRow(**vars(contact)) for t, contact in face.contacts.items()}
            )
            for terminals, face in practice.outlets.items()
        },
        round_outlet_has=practice.round_outlet_has,
        polarised_plugs=practice.polarised_plugs,
        ring_circuits=practice.ring_circuits,
        length_unit=practice.length_unit.sign,
        reference_earths=[
            ReferenceEarthRow(
                id=kind.id,
                name=practice.in_words(kind.name),
                wrong=practice.in_words(kind.wrong),
                asks_which=not kind.alone,
            )
            for kind in REFERENCES.values()
        ],
        systems=[_system(system, practice) for system in practice.systems],
    )


def _system(system: SupplySystem, practice: Practice) -> SystemRow:
    return SystemRow(
        id=system.id,
        title=system.title,
        lines=list(system.lines),
        nominal_volts=system.nominal_volts,
        frequency_hz=system.frequency_hz,
        contacts=[
            ContactsRow(name=contacts.name, terminals=list(contacts.terminals))
            for contacts in practice.contacts_on(system)
        ],
    )


def _kind(kind: Kind) -> KindRow:
    return KindRow(
        id=kind.id,
        name=kind.name,
        functions=list(kind.functions),
        plugs_in=kind.plugs_in,
        goes_round=kind.goes_round,
        may_prove_dead=kind.may_prove_dead,
    )


def _function(quantity: Quantity, function: Function) -> FunctionRow:
    written = quantity.written
    return FunctionRow(
        id=function.id,
        name=function.name,
        quantity=quantity.id,
        title=quantity.title,
        unit=quantity.unit,
        units=list(written.units),
        probes=function.probes,
        entered=function.entered,
        answers=[AnswerRow(value=value, label=label) for value, label in function.answers],
        fixes=dict(function.fixes),
        load=written.load,
        unplugged=written.unplugged,
        dead=written.device_open,
        device=written.device and not function.at_the_board,
        neutral_lifted=written.neutral_lifted,
        over_range=written.over_range,
        extremes=written.extremes,
        timed=written.timed,
        reference=written.reference,
        at_board=written.at_board and function.may_reach_the_board,
        at_the_board=function.at_the_board,
        needs=list(function.needs),
        on_a_wire=function.on_a_wire,
        hint=function.hint,
        hint_at=function.hint_at,
    )
