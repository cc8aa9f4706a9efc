"""The tables of the trade that a front end shows: practices, kinds of tester, what can be set on them, places, sizes.

Nothing here is computed; every row comes from the module that knows it.
"""

from typing import Literal

from pydantic import BaseModel

from evenprobe.deadtests.kinds import DEAD_TESTS, Choice, DeadTest, FormField, Pairs
from evenprobe.formats.words import (
    CategoryWord,
    DeadTestWord,
    EarthingWord,
    KindWord,
    PlaceWord,
    PointKindWord,
    PracticeWord,
    PurposeWord,
    QuantityWord,
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
    systems: list[SystemRow]


class AnswerRow(BaseModel):
    value: bool
    label: str


class FunctionRow(BaseModel):
    """What a tester is set to. `fixes`: what it sets in the entry of a reading, which it is also known by.

    `units`: what its number may be given in, the first where nothing is said. What else may be said of it: `load`, a
    known load; `device`, that the circuit's device is open, and `dead`, that it always is, with `neutral_lifted`;
    `over_range`; `extremes`, the most and the least, and how a clamp is closed; `at_board`, the far end of a conductor.
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
    dead: bool
    device: bool
    neutral_lifted: bool
    over_range: bool
    extremes: bool
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


class FieldAnswerRow(BaseModel):
    value: bool | float
    label: str


class FieldRow(BaseModel):
    """A field of the form of a dead test: a figure, a choice of a few answers, or pairs of figures.

    Of a figure: `units` a display may show it in, the keys that say `over_range` or `at_least` a number instead, and
    whether it is `printed` on the part. Of a choice: its `answers`, and whether the line knows which it is, `preset`.
    Of pairs: what each is of, and how many `rows`.
    """

    entered: Literal["figure", "choice", "pairs"]
    key: str
    label: str = ""
    unit: str = ""
    units: list[str] = []
    over_range: str = ""
    at_least: str = ""
    printed: bool = False
    answers: list[FieldAnswerRow] = []
    preset: bool = False
    labels: list[str] = []
    rows: int = 0


class DeadTestRow(BaseModel):
    """A kind of dead test. `use`: what a tester is taken for that makes it, `ohms` or `insulation`."""

    id: DeadTestWord
    title: str
    use: Literal["ohms", "insulation"]
    fields: list[FieldRow]


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


def reference() -> Reference:
    """Every table as it is now."""
    return Reference(
        practices=[_practice(practice) for practice in PRACTICES.values()],
        kinds=[_kind(kind) for kind in KINDS.values()],
        functions=[_function(quantity, f) for quantity in QUANTITIES.values() for f in quantity.functions],
        lamps=[LampRow(id=lamp, one=one, other=other) for lamp, (one, other) in ENDS_OF.items()],
        dead_tests=[_dead_test(kind) for kind in DEAD_TESTS.values()],
        purposes=[PurposeRow(id=purpose, title=TITLES[purpose]) for purpose in Purpose],
        places=[PlaceRow(id=place, category=LEAST[place][0].name, meaning=LEAST[place][1]) for place in Place],
        categories={category.name: MEANING[category] for category in Category},
        register_functions=list(FUNCTIONS),
        earthings=list(Earthing),
        conductors=list(CONDUCTORS),
        curves=list(INSTANTANEOUS),
        point_kinds=list(PointKind),
        with_board_end=list(WITH_BOARD_END),
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
        dead=written.device_open,
        device=written.device and not function.at_the_board,
        neutral_lifted=written.neutral_lifted,
        over_range=written.over_range,
        extremes=written.extremes,
        at_board=written.at_board and function.may_reach_the_board,
        at_the_board=function.at_the_board,
        needs=list(function.needs),
        on_a_wire=function.on_a_wire,
        hint=function.hint,
        hint_at=function.hint_at,
    )


def _dead_test(kind: DeadTest) -> DeadTestRow:
    return DeadTestRow(
        id=kind.id,
        title=kind.title,
        use="insulation" if kind.purpose is Purpose.INSULATION else "ohms",
        fields=[_field(field) for field in kind.fields],
    )


def _field(field: FormField) -> FieldRow:
    match field:
        case Choice(key=key, label=label, answers=answers, preset=preset):
            rows = [FieldAnswerRow(value=value, label=picked) for value, picked, _ in answers]
            return FieldRow(entered="choice", key=key, label=label, answers=rows, preset=preset)
        case Pairs(key=key, labels=labels, unit=unit, rows=count):
            return FieldRow(entered="pairs", key=key, labels=list(labels), unit=unit, rows=count)
        case figure:
            return FieldRow(
                entered="figure",
                key=figure.key,
                label=figure.label,
                unit=figure.unit,
                units=list(figure.units),
                over_range=figure.over_range,
                at_least=figure.at_least,
                printed=figure.printed,
            )
