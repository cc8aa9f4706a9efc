"""A guided hunt: what was done and why, what to do now, and where it has led."""

from collections.abc import Sequence
from functools import cached_property
from typing import Any

from evenprobe.formats.answers import GuidedHuntOut
from evenprobe.formats.circuits import GuidedFile
from evenprobe.hunting.guided.walk import Passed, Walk
from evenprobe.hunting.guided.wording import in_words, said_in
from hunts.logs import CLOSED, MENDED
from hunts.presenters.view import HuntView


class GuidedView(HuntView[GuidedFile]):
    @cached_property
    def found(self) -> Walk:
        return self.file.hunted()

    def now(self) -> str:
        if self.found.ending is not None:
            title = in_words(self.practice, self.found.ending.title)
            return f"{title}: {self.name(self.found.which)}" if self.found.which else title
        return in_words(self.practice, self.found.at.title) if self.found.at else ""

    def said(self) -> str:
        contradiction = self.found.contradiction
        if contradiction and self.state not in (MENDED, CLOSED):
            return said_in(self.practice, contradiction.why)
        return super().said()

    def _text(self, passed: Passed) -> str:
        what = self.name(passed.name) if passed.name else in_words(self.practice, passed.step.title)
        outcome = in_words(self.practice, passed.outcome.title) if passed.outcome else "measured"
        return f"{what}: {outcome}"

    def seen_texts(self) -> Sequence[str]:
        passed = {each.number: self._text(each) for each in self.found.passed}
        return [
            passed.get(number) or f"{self._title(each.step)}: {each.outcome or 'measured'}"
            for number, each in enumerate(self.file.seen)
        ]

    def _title(self, step: str) -> str:
        found = self.file.guide.step(step)
        return in_words(self.practice, found.title) if found else step

    def steps(self) -> Sequence[str]:
        done = self.found.ending or self.found.at
        return [in_words(self.practice, text) for text in done.do] if done else ()

    def along(self) -> dict[str, Any]:
        answer = GuidedHuntOut.of(self.practice, self.found)
        return {"guide": answer, "names": {point: self.name(point) for point in self.file.names}}
