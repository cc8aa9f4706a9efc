"""The open files, in and out: what is read, and every answer. Inside are the core's own value objects."""

from evenprobe.entries import FormatError, parse, parse_json
from evenprobe.formats.case import CaseFile
from evenprobe.formats.circuits import CircuitFile, circuit_file
from evenprobe.formats.isolation import IsolationFile
from evenprobe.formats.kit import InstrumentEntry, KitFile
from evenprobe.formats.network import NetworkFile
from evenprobe.formats.reading import ReadingEntry
from evenprobe.formats.survey import PointEntry, SurveyFile, reading_at
from evenprobe.formats.tests import TestsFile, dead_tests_file

__all__ = [
    "CaseFile",
    "CircuitFile",
    "FormatError",
    "InstrumentEntry",
    "IsolationFile",
    "KitFile",
    "NetworkFile",
    "PointEntry",
    "ReadingEntry",
    "SurveyFile",
    "TestsFile",
    "circuit_file",
    "dead_tests_file",
    "parse",
    "parse_json",
    "reading_at",
]
