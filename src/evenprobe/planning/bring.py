"""What to bring: for everything the work takes, which of the crew's testers are fit for it there, the best first."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from datetime import date

from evenprobe.planning.plan import PlannedStep
from evenprobe.planning.work import WORKS
from evenprobe.practices import Practice
from evenprobe.testers.fitness import Held, fitness
from evenprobe.testers.purposes import Purpose
from evenprobe.testers.ratings import Place
from evenprobe.testers.tasks import Task, kinds_accepted


@dataclass(frozen=True)
class Unfit:
    """A tester of the right kind that does not do, and why."""

    held: Held
    why: tuple[str, ...]


@dataclass(frozen=True)
class Brought:
    """`fit`: those that do, the best first; where there is none, `unfit` says why those that come near do not."""

    task: Task
    fit: tuple[Held, ...]
    unfit: tuple[Unfit, ...]


def tasks_of(steps: Iterable[PlannedStep], practice: Practice, on: date) -> list[Task]:
    """What testers are wanted for, each once.

    Parameters
    ----------
    steps
        Of a plan.
    practice
        Of the site.
    on
        The day of the visit: a calibration may run out until then.

    Returns
    -------
    list of Task
        In the order in which they are first wanted.
    """
    wanted = (task for step in steps for task in _of_step(step, practice, on))
    return list({(t.purpose, t.place, t.system.id, t.device_ma): t for t in wanted}.values())


def _of_step(step: PlannedStep, practice: Practice, on: date) -> Iterator[Task]:
    row, circuit = WORKS[step.work], step.circuit
    opened = row.goes_dark or not all(point.plugs_in for point in step.points)
    place = Place.INSTALLATION if opened else Place.PLUGGED_IN
    for purpose in row.purposes:
        yield Task(purpose, place, circuit.system, practice, on=on)
    if circuit.residual_ma is not None:
        for purpose in row.with_residual:
            device_ma = circuit.residual_ma if purpose is Purpose.RESIDUAL_CURRENT else None
            yield Task(purpose, place, circuit.system, practice, device_ma=device_ma, on=on)


def bring(tasks: Iterable[Task], kit: Sequence[Held]) -> list[Brought]:
    """For each task which testers do.

    Parameters
    ----------
    tasks
        What the visit takes.
    kit
        The crew's testers as they would be picked up now, with their leads.

    Returns
    -------
    list of Brought
        In the order of the tasks.
    """
    return [_for_task(task, kit) for task in tasks]


def _for_task(task: Task, kit: Sequence[Held]) -> Brought:
    accepted = kinds_accepted(task)
    of_kind = [(held, fitness(task, held)) for held in kit if held.kind in accepted]
    fit = sorted(
        ((held, found) for held, found in of_kind if found.fit),
        key=lambda one: (task.purpose not in one[0].kind.best_for, len(one[1].warnings)),
    )
    unfit = [Unfit(held, tuple(p.text for p in found.problems)) for held, found in of_kind if not found.fit]
    return Brought(task, tuple(held for held, _ in fit), tuple(unfit))
