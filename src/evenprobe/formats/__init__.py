"""The open files, in and out. Pydantic only here, at the edge; inside are the core's own value objects."""

from evenprobe.formats.answers import forecast_answer, interpretation_answer, point_answer
from evenprobe.formats.network import NetworkFile
from evenprobe.formats.problems import FormatError, parse, parse_json
from evenprobe.formats.reading import ReadingEntry
from evenprobe.formats.survey import InstrumentEntry, PointEntry, SurveyFile

__all__ = [
    "FormatError",
    "InstrumentEntry",
    "NetworkFile",
    "PointEntry",
    "ReadingEntry",
    "SurveyFile",
    "forecast_answer",
    "interpretation_answer",
    "parse",
    "parse_json",
    "point_answer",
]
