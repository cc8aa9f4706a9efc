"""A hunt along a control chain: its elements in order, the volts of each joint, and where to measure next."""

from collections.abc import Sequence
from functools import cached_property
from typing import Any

from evenprobe.formats.answers import ChainHuntOut
from evenprobe.formats.circuits import ChainFile
from evenprobe.hunting.chains import FEED, ChainHunt
from evenprobe.hunting.findings import HuntState
from evenprobe.hunting.steps import chain_steps
from hunts.presenters.view import HuntView
from hunts.shapes import AlongChain, ChainElement


class ChainView(HuntView[ChainFile]):
    @cached_property
    def found(self) -> ChainHunt:
        return self.file.hunted()

    def name(self, element: str) -> str:
        return "the feed" if element == FEED else super().name(element)

    def now(self) -> str:
        if self.found.state is HuntState.CLEAR:
            return "all of the supply comes through"
        if self.found.state is HuntState.FOUND:
            return self.name(max(self.found.share, key=self.found.share.__getitem__))
        return f"measure after {self.name(self.found.next_after)}" if self.found.next_after else "nothing more tells"

    def seen_texts(self) -> Sequence[str]:
        return [f"after {self.name(each.after)}: {each.volts:g} V" for each in self.file.seen]

    def steps(self) -> Sequence[str]:
        return chain_steps(self.found.state, self.practice)

    def along(self) -> dict[str, Any]:
        found = self.found
        last = {each.after: each.volts for each in self.file.seen}
        elements = [
            ChainElement(
                id=element.id, name=self.name(element.id), kind=element.kind, closed=element.closed,
                share=round(found.share.get(element.id, 0.0), 3), volts=last.get(element.id),
            )
            for element in self.file.elements
        ]  # fmt: skip
        feed = ChainElement(
            id=FEED, name=self.name(FEED), kind="feed", closed=True,
            share=round(found.share.get(FEED, 0.0), 3), volts=last.get(FEED),
        )  # fmt: skip
        return {
            "chain": AlongChain(
                supply_v=self.file.supply_v,
                answer=ChainHuntOut.of(found),
                next_name=self.name(found.next_after) if found.next_after else "",
                advice=self.named(found.advice) if found.advice else "",
                how=list(chain_steps(HuntState.HUNTING, self.practice)),
                elements=[feed, *elements],
            )
        }
