"""The open files, in and out. Pydantic only here, at the edge; inside are the core's own value objects."""

from evenprobe.entries import FormatError, parse, parse_json
from evenprobe.formats.answers import (
    forecast_answer,
    interpretation_answer,
    point_answer,
    sight_answer,
    supplies_answer,
)
from evenprobe.formats.isolation import IsolationFile, isolation_answer
from evenprobe.formats.kit import InstrumentEntry, KitFile, fitness_answer
from evenprobe.formats.network import NetworkFile
from evenprobe.formats.reading import ReadingEntry
from evenprobe.formats.survey import PointEntry, SurveyFile
from evenprobe.formats.tests import TestsFile, dead_tests_file, tests_answer

__all__ = [
    "FormatError",
    "InstrumentEntry",
    "IsolationFile",
    "KitFile",
    "NetworkFile",
    "PointEntry",
    "ReadingEntry",
    "SurveyFile",
    "TestsFile",
    "dead_tests_file",
    "fitness_answer",
    "forecast_answer",
    "interpretation_answer",
    "isolation_answer",
    "parse",
    "parse_json",
    "point_answer",
    "sight_answer",
    "supplies_answer",
    "tests_answer",
]
