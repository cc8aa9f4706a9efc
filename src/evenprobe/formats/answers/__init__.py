"""Every answer of the core as a model, written once: the command prints them, the routes give them."""

from evenprobe.formats.answers.capabilities import CapabilitiesOut
from evenprobe.formats.answers.fitness import FindingOut, FitnessOut, LinkOut, RatingOut
from evenprobe.formats.answers.forecast import ForecastOut
from evenprobe.formats.answers.guided import GuidedHuntOut
from evenprobe.formats.answers.hunt import BoardMapOut, ChainHuntOut, RunHuntOut
from evenprobe.formats.answers.interpretation import UNKNOWN, BesideWiringOut, InterpretationOut, SurveyOut
from evenprobe.formats.answers.isolation import IsolationOut
from evenprobe.formats.answers.limits import LimitOut, OutcomeOut
from evenprobe.formats.answers.loads import BarOut, LoadsOut
from evenprobe.formats.answers.network import EquivalentOut, NetworkOut
from evenprobe.formats.answers.practice import PracticeOut
from evenprobe.formats.answers.supplies import SuppliesOut
from evenprobe.formats.answers.sweeps import SweepOut
from evenprobe.formats.answers.tests import TestsOut
from evenprobe.formats.answers.verification import VerificationOut

HuntOut = RunHuntOut | ChainHuntOut | BoardMapOut | GuidedHuntOut

__all__ = [
    "UNKNOWN",
    "BarOut",
    "BesideWiringOut",
    "BoardMapOut",
    "CapabilitiesOut",
    "ChainHuntOut",
    "EquivalentOut",
    "FindingOut",
    "FitnessOut",
    "ForecastOut",
    "GuidedHuntOut",
    "HuntOut",
    "InterpretationOut",
    "IsolationOut",
    "LimitOut",
    "LinkOut",
    "LoadsOut",
    "NetworkOut",
    "OutcomeOut",
    "PracticeOut",
    "RatingOut",
    "RunHuntOut",
    "SuppliesOut",
    "SurveyOut",
    "SweepOut",
    "TestsOut",
    "VerificationOut",
]
