"""Is this tester fit for this task: the right kind, rated for the place, whole, alive and in date.

A problem means it cannot confirm safe; it may still raise an alarm. A warning is worth a look. Tip covers and lead
resistance: HSE GS38 and practice; the rest as in `tasks` and `ratings`.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from datetime import date
from typing import Literal

from evenprobe.limits.dead_tests import LEADS_GOOD_OHMS, LEADS_USABLE_OHMS
from evenprobe.limits.isolation import HOUSE_CATEGORY, HOUSE_VOLTS
from evenprobe.practices import BRITISH
from evenprobe.sentences import Sentence
from evenprobe.supplies import SYSTEMS
from evenprobe.testers.kinds import Kind
from evenprobe.testers.purposes import FUNCTIONS_FOR, Purpose
from evenprobe.testers.ratings import (
    LEAST,
    UNRATED,
    Adapter,
    Category,
    Leads,
    Link,
    Place,
    Rating,
    chain_of,
    effective,
    volts_to_cover,
)
from evenprobe.testers.sentences import ATTENTION, FUNCTION_NAMES, PROBLEMS, WARNINGS, WRONG_KIND
from evenprobe.testers.tasks import Task, kinds_accepted

Battery = Literal["ok", "low", "unknown"]


@dataclass(frozen=True)
class Held:
    """What is in the hand: a tester as the register and today's check know it, its leads and adapters.

    None: not recorded. `functions`: names as the kit format has them; None leaves what is usual for the kind.
    """

    id: str
    kind: Kind
    rating: Rating = UNRATED
    name: str = ""
    functions: tuple[str, ...] | None = None
    battery: Battery = "unknown"
    self_check: bool | None = None
    calibration_due: date | None = None
    damaged: bool = False
    always_on_light: bool | None = None
    test_ma: float | None = None
    test_volts: tuple[float, ...] = ()
    known_issue: str = ""
    fuse_blown: bool = False
    leads: Leads | None = None
    adapters: tuple[Adapter, ...] = ()

    @property
    def has_leads(self) -> bool:
        return self.kind.leads

    @property
    def chain(self) -> tuple[Link, ...]:
        links = [Link(self.name or self.id, self.rating)]
        if self.leads is not None and self.has_leads:
            links.append(Link(self.leads.name, self.leads.in_use))
        links += [Link(adapter.name, adapter.rating) for adapter in self.adapters]
        return chain_of(links)


@dataclass(frozen=True)
class Finding:
    """`unknown`: it only comes from something nobody recorded."""

    code: str
    said: Sentence | str
    unknown: bool = False

    @property
    def text(self) -> str:
        """What it says."""
        return str(self.said)


def _problem(code: str, **about: object) -> Finding:
    return Finding(code, PROBLEMS.say(code, **about))


def _unknown(code: str, said: str) -> Finding:
    return Finding(code, PROBLEMS.say(said), unknown=True)


def _warning(code: str, **about: object) -> Finding:
    return Finding(code, WARNINGS.say(code, **about))


@dataclass(frozen=True)
class Fitness:
    effective: Rating
    chain: tuple[Link, ...]
    problems: tuple[Finding, ...]
    warnings: tuple[Finding, ...]

    @property
    def fit(self) -> bool:
        return not self.problems


def fitness(task: Task, held: Held) -> Fitness:
    """Every problem and warning of what is held, for the task."""
    chain = held.chain
    whole = effective([link.rating for link in chain])
    found = [finding for rule in _PROBLEMS for finding in rule(task, held, whole)]
    return Fitness(whole, chain, tuple(found), tuple(_warnings(task, held, whole)))


Rule = Callable[[Task, Held, Rating], Iterator[Finding]]


def _kind(task: Task, held: Held, _whole: Rating) -> Iterator[Finding]:
    kinds = kinds_accepted(task)
    if held.kind not in kinds:
        wanted = " or ".join(k.with_article for k in kinds)
        said = WRONG_KIND.say(task.purpose, kind=held.kind.with_article, kinds=wanted)
        yield Finding("wrong-kind", said)


def _category(task: Task, held: Held, whole: Rating) -> Iterator[Finding]:
    least, place = LEAST[task.place]
    if held.rating.category is None:
        yield _unknown("category-too-low", "category-unknown")
    if whole.category is not None and whole.category < least:
        weakest = " and ".join(link.name for link in held.chain if link.rating.category is whole.category)
        about = {"whole": whole.category.name, "weakest": weakest, "place": place, "least": least.name}
        yield _problem("category-too-low", **about)
    covers_off = held.has_leads and held.leads is not None and held.leads.tip_covers is False
    if covers_off and least > Category.II:
        yield _problem("tip-covers-off")


def _volts(task: Task, held: Held, whole: Rating) -> Iterator[Finding]:
    needed = volts_to_cover(task.place, task.system, task.line_to_line)
    if held.rating.volts is None:
        yield _unknown("voltage-too-low", "voltage-unknown")
    if whole.volts is not None and whole.volts < needed:
        weakest = " and ".join(link.name for link in held.chain if link.rating.volts == whole.volts)
        yield _problem("voltage-too-low", volts=whole.volts, weakest=weakest, needed=needed)
    if task.house_rule and _below_house_rule(task, whole):
        yield _problem("below-house-rule", rule=_HOUSE_RULE)


def _functions(task: Task, held: Held, _whole: Rating) -> Iterator[Finding]:
    wanted = FUNCTIONS_FOR.get(task.purpose)
    if wanted and held.functions is not None and not set(wanted) & set(held.functions):
        yield _problem("function-missing", function=FUNCTION_NAMES.get(wanted[0], wanted[0]))


def _battery(_task: Task, held: Held, _whole: Rating) -> Iterator[Finding]:
    if held.battery == "low":
        yield _problem("battery-low")
    if held.battery == "unknown" and _dark_when_flat(held):
        yield _unknown("battery-unknown", "battery-unknown")


def _dark_when_flat(held: Held) -> bool:
    return held.kind.silent_when_flat and not held.always_on_light and held.self_check is not True


def _condition(task: Task, held: Held, _whole: Rating) -> Iterator[Finding]:
    damaged = [held.name or held.id] if held.damaged else []
    if held.leads is not None and held.leads.damaged and held.has_leads:
        damaged.append(held.leads.name)
    damaged += [adapter.name for adapter in held.adapters if adapter.damaged]
    if damaged:
        yield _problem("damaged", parts=", ".join(damaged))
    if held.self_check is False:
        yield _problem("self-check-failed")
    if held.known_issue:
        yield Finding("known-issue", held.known_issue)
    if task.on is not None and held.calibration_due is not None and held.calibration_due < task.on:
        yield _problem("calibration-overdue", due=held.calibration_due)
    if task.purpose is Purpose.CURRENT and held.fuse_blown:
        yield _problem("fuse-blown")


def _test_values(task: Task, held: Held, _whole: Rating) -> Iterator[Finding]:
    if task.purpose is Purpose.RESIDUAL_CURRENT and task.purpose in held.kind.purposes:
        if held.test_ma is None:
            yield _unknown("test-current-too-low", "test-current-unknown")
        elif task.device_ma is not None and held.test_ma < task.device_ma:
            yield _problem("test-current-too-low", test=held.test_ma, device=task.device_ma)
    insulating = task.purpose is Purpose.INSULATION and task.purpose in held.kind.purposes
    if insulating and task.test_volts is not None and task.test_volts not in held.test_volts:
        has = ", ".join(f"{v:g}" for v in held.test_volts) or "none recorded"
        yield _problem("test-voltage-missing", wanted=task.test_volts, has=has)
    leads = held.leads
    if task.purpose is Purpose.CONTINUITY and leads is not None and (leads.ohm or 0) > LEADS_USABLE_OHMS:
        yield _problem("leads-resistive", ohm=leads.ohm)


_PROBLEMS: tuple[Rule, ...] = (_kind, _category, _volts, _functions, _battery, _condition, _test_values)

_HOUSE_RULE = f"category {HOUSE_CATEGORY} {HOUSE_VOLTS:g} V"


def _below_house_rule(task: Task, whole: Rating) -> bool:
    if task.place is Place.PLUGGED_IN or whole.category is None or whole.volts is None:
        return False
    return whole.category < Category[HOUSE_CATEGORY] or whole.volts < HOUSE_VOLTS


def _warnings(task: Task, held: Held, whole: Rating) -> Iterator[Finding]:
    if held.battery == "unknown" and not _dark_when_flat(held) and held.kind.has_battery:
        yield _warning("battery-unknown")
    if held.has_leads and held.leads is None and not held.kind.leads_may_be_fixed:
        yield _warning("leads-not-recorded")
    if held.leads is not None and held.has_leads:
        if held.leads.tip_covers is None:
            yield _warning("tip-covers-not-recorded")
        if held.leads.tip_covers is False and task.place is Place.PLUGGED_IN:
            yield _warning("tip-covers-off")
        ohm = held.leads.ohm or 0.0
        if task.purpose is Purpose.CONTINUITY and LEADS_GOOD_OHMS < ohm <= LEADS_USABLE_OHMS:
            yield _warning("leads-resistive", ohm=ohm)
    if not task.house_rule and _below_house_rule(task, whole):
        yield _warning("below-house-rule", rule=_HOUSE_RULE)
    if task.purpose is Purpose.RESIDUAL_CURRENT and task.device_ma is None:
        yield _warning("device-not-named")


def attention(held: Held, on: date) -> tuple[Finding, ...]:
    """What is wrong with a tester wherever it is used: flat, damaged, overdue, known to fail, tips bare."""
    anywhere = Task(Purpose.SCREEN, Place.INSTALLATION, SYSTEMS["230"], BRITISH, on=on)
    found = [*_battery(anywhere, held, held.rating), *_condition(anywhere, held, held.rating)]
    if held.has_leads and held.leads is not None and held.leads.tip_covers is False:
        found.append(Finding("tip-covers-off", ATTENTION.say("tip-covers-off")))
    if held.kind.rated and (held.rating.category is None or held.rating.volts is None):
        found.append(Finding("rating-not-recorded", ATTENTION.say("rating-not-recorded")))
    return tuple(found)


def known_problems(task: Task, held: Held) -> str:
    """What is known to be wrong with a tester for a task, in words; empty where nothing is."""
    return "; ".join(f.text for f in fitness(task, held).problems if not f.unknown)
