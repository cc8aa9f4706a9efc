"""A hunt along a run: the run with every share, what comes next, and what comes after each outcome."""

from collections.abc import Iterable, Sequence
from functools import cached_property
from typing import Any

from evenprobe.formats.answers import RunHuntOut
from evenprobe.formats.answers.hunt import seen_as_told
from evenprobe.formats.circuits import OpenFile, PoorJointFile, ShortFile
from evenprobe.formats.circuits.run import DropEntry
from evenprobe.hunting.findings import Hunt, HuntState, Joint, NextPlace, Task
from evenprobe.hunting.run import BOARD, Place
from evenprobe.hunting.said import said_of
from evenprobe.hunting.sentences import JOINTS
from evenprobe.hunting.steps import said_of_task, steps_after, steps_at
from evenprobe.hunting.tellable import tellable
from hunts.logs import CLOSED, MENDED, file_of
from hunts.models import HuntEvent
from hunts.presenters.view import HuntView
from hunts.shapes import AheadOut, AlongRun, HuntPoint, TellOut

RunFile = ShortFile | OpenFile | PoorJointFile
_STEPS_AHEAD = ((60, 2), (150, 1))
"""Steps that are shown ahead of a run of up to so many boxes: each is a plan an outcome."""


class RunView(HuntView[RunFile]):
    @cached_property
    def found(self) -> Hunt:
        return self.file.hunted()

    @cached_property
    def answer(self) -> RunHuntOut:
        return RunHuntOut.of(self.file.run, self.found)

    def place(self, place: Place) -> str:
        box = self.file.run.box[place.box]
        name = self.names[place.box]
        return f"between {self.names[box.after]} and {name}" if place.stretch else name

    def now(self) -> str:
        if self.found.state is HuntState.CLEAR:
            return "nothing left to hunt along this run"
        if self.found.state is HuntState.FOUND:
            return self.place(max(self.found.share, key=self.found.share.__getitem__))
        return self.task(self.found.next) if self.found.next else "nothing more tells them apart"

    def task(self, following: NextPlace) -> str:
        return said_of_task(following.task, self.names[following.at])

    def seen_texts(self) -> Sequence[str]:
        return [
            f"{self.names[look.at]}: {said_of(look, self.names, self.practice.letters)}" for look in self.file.looks
        ]

    def steps(self) -> Sequence[str]:
        if self.state in (MENDED, CLOSED) or self.found.next is None:
            return () if self.state == CLOSED else steps_after(self.found.state)
        return self.how(self.found.next.task)

    def how(self, task: Task) -> Sequence[str]:
        return steps_at(self.hunt.kind, task, self.practice, self.file.between or ("L", "PE"))

    def along(self) -> dict[str, Any]:
        found = self.found
        minutes = found.next.minutes if found.next else 0.0
        return {
            "run": AlongRun(
                between=list(self.file.between or ("L", "PE")),
                answer=self.answer,
                next_title=self.task(found.next) if found.next else "",
                next_name=self.names[found.next.at] if found.next else "",
                saved_minutes=round(max(0.0, found.in_order_minutes - minutes), 1) if found.next else 0.0,
                advice=self.named(found.advice) if found.advice else "",
                joints=[self._joint(joint) for joint in found.joints],
                how={str(task): list(steps) for task in Task if (steps := self.how(task))},
                load_a=self._load_a(),
                points=self._points(),
                ahead=list(self._ahead(self.content, self.answer, self._steps_ahead())),
                standing_at=self.content["standing_at"],
            )
        }

    def _load_a(self) -> float | None:
        """Of the last volts under a load: it stays the same all along."""
        drops = (entry for entry in reversed(self.file.seen) if isinstance(entry, DropEntry))
        return next((entry.load_a for entry in drops if entry.load_a is not None), None)

    def _joint(self, joint: Joint) -> str:
        conductor = " and ".join(self.practice.letters[wire] for wire in joint.conductor.split(" and "))
        least, most = joint.ohm
        return str(
            JOINTS.say("joint", conductor=conductor, least=least, most=most, watts=joint.watts, amperes=joint.amperes)
        )

    def _points(self) -> list[HuntPoint]:
        run, share = self.file.run, self.found.share
        marks = {e.entry["point"]: e.entry for e in self.standing if e.kind == HuntEvent.Kind.MARKED}
        hidden = {point.id: point.hidden for point in self.file.points}
        saw: dict[str, list[str]] = {}
        for look in self.file.looks:
            saw.setdefault(look.at, []).append(said_of(look, self.names, self.practice.letters))
        at_board = HuntPoint(
            id=BOARD, name=self.names[BOARD], after="", length_m=0, at_m=0, share=0, cable_share=0,
            hidden=False, box_mark="", cable_mark="", saw=saw.get(BOARD, []), tells=self._tells(BOARD),
        )  # fmt: skip
        return [at_board] + [
            HuntPoint(
                id=box.id,
                name=self.names[box.id],
                after=box.after,
                length_m=box.length_m,
                at_m=round(run.distance_m[box.id], 1),
                share=round(share.get(Place(box.id), 0.0), 3),
                cable_share=round(share.get(Place(box.id, stretch=True), 0.0), 3),
                hidden=hidden[box.id],
                box_mark=marks.get(box.id, {}).get("box", ""),
                cable_mark=marks.get(box.id, {}).get("cable", ""),
                saw=saw.get(box.id, []),
                tells=self._tells(box.id),
            )
            for box in run.boxes
        ]

    def _tells(self, at: str) -> list[TellOut]:
        return [
            TellOut(when=each.when, do=str(each.task), seen=seen_as_told(each.seen))
            for each in tellable(self.hunt.kind, self.file.run, at)
        ]

    def _steps_ahead(self) -> int:
        return next((steps for most, steps in _STEPS_AHEAD if len(self.file.points) <= most), 0)

    def _ahead(self, content: dict[str, Any], answer: RunHuntOut, steps: int) -> Iterable[AheadOut]:
        """What comes after each outcome of what comes next, so many steps on."""
        following = answer.next
        if following is None or steps == 0:
            return
        for outcome in following.outcomes:
            if outcome.seen is None:
                continue
            then = {**content, "seen": [*content["seen"], outcome.seen], "standing_at": following.at}
            file = file_of(then)
            assert isinstance(file, RunFile)
            found = file.hunted()
            after = self._ahead(then, RunHuntOut.of(file.run, found), steps - 1)
            yield AheadOut(when=outcome.when, then=self._then(found), after=list(after))

    def _then(self, found: Hunt) -> str:
        if found.next is not None:
            return self.task(found.next)
        if found.share:
            return f"found: {self.place(max(found.share, key=found.share.__getitem__))}"
        return "nothing left to hunt along this run"
