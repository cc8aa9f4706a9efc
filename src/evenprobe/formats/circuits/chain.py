"""The circuit file of a control chain."""

from collections.abc import Sequence
from typing import Annotated, Literal

from pydantic import Field, model_validator

from evenprobe.entries import FieldError, Name, Strict, YesNo
from evenprobe.formats.circuits.common import MOST_PLACES, MOST_SEEN, Circuit, SupplyVolts, once
from evenprobe.formats.circuits.common import Volts as JointVolts
from evenprobe.hunting.chains import FEED, ChainHunt, Element, ElementKind, Volts, hunt_chain


class ElementEntry(Strict):
    """Of a chain, in order from the feed. `closed`: whether it should be closed now."""

    id: Name
    kind: ElementKind = "contact"
    closed: YesNo = True
    rated_v: SupplyVolts | None = None

    @model_validator(mode="after")
    def _rated_is_of_a_coil(self) -> "ElementEntry":
        if self.rated_v is not None and self.kind != "coil":
            raise FieldError("rated_v", f"is of a coil, not of a {self.kind}")
        return self


class JointVoltsEntry(Strict):
    after: Name
    volts: JointVolts


class ChainFile(Circuit):
    """A control chain."""

    hunt: Literal["chain"]
    supply_v: SupplyVolts
    elements: Annotated[list[ElementEntry], Field(min_length=1, max_length=MOST_PLACES)]
    seen: Annotated[list[JointVoltsEntry], Field(max_length=MOST_SEEN)] = []

    @model_validator(mode="after")
    def _fits(self) -> "ChainFile":
        once("elements", "id", (element.id for element in self.elements), {FEED})
        coils = [index for index, element in enumerate(self.elements) if element.kind == "coil"]
        if len(coils) > 1:
            raise FieldError(f"elements[{coils[1]}].kind", "is a second coil: a hunt is along one")
        known = {FEED, *(element.id for element in self.elements)}
        for index, each in enumerate(self.seen):
            if each.after not in known:
                raise FieldError(f"seen[{index}].after", f"{each.after!r} is no element of this chain")
        return self

    @property
    def chain(self) -> Sequence[Element]:
        return [Element(e.id, e.kind, e.closed, e.rated_v) for e in self.elements]

    @property
    def looks(self) -> Sequence[Volts]:
        return [Volts(each.after, each.volts) for each in self.seen]

    def hunted(self) -> ChainHunt:
        return hunt_chain(self.chain, self.looks, self.supply_v)
