"""Hunts shown, each by what it goes along."""

from collections.abc import Iterable
from typing import Any

from base.failures import each_shown
from base.shapes import Named
from evenprobe.hunting.findings import HuntState
from evenprobe.hunting.intake import HUNTED, Along
from hunts.logs import content_of, file_of, stands
from hunts.models import Hunt
from hunts.presenters.along_chain import ChainView
from hunts.presenters.along_run import RunView
from hunts.presenters.guided import GuidedView
from hunts.presenters.over_board import BoardView
from hunts.presenters.view import HuntView
from hunts.shapes import HuntLine, HuntOut

_VIEWS: dict[Along, type[HuntView[Any]]] = {"run": RunView, "chain": ChainView, "board": BoardView, "guide": GuidedView}


def view_of(hunt: Hunt) -> HuntView[Any]:
    standing = stands(hunt.events.all())
    content = content_of(hunt, standing)
    return _VIEWS[HUNTED[hunt.kind].along](hunt, standing, content, file_of(content))


def shown(hunt: Hunt) -> HuntOut:
    return view_of(hunt).shown()


def lines_of(hunts: Iterable[Hunt]) -> list[HuntLine]:
    """A line a hunt, in their order."""
    return each_shown(hunts, lambda hunt: HuntLine(**view_of(hunt).line()), _unshown)


def _unshown(hunt: Hunt, why: str) -> HuntLine:
    return HuntLine(
        id=hunt.id,
        title=str(hunt),
        site=Named(id=hunt.site.id, name=hunt.site.name),
        happened=hunt.happened,
        kind=hunt.kind,
        state=str(HuntState.HUNTING),
        said=why,
        begun_at=hunt.begun_at,
        by=hunt.by_name,
        unshown=why,
    )
