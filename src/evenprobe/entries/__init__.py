"""What every file and every body is made of: strict objects, what cannot be in any, and problems with their paths."""

from evenprobe.entries.fields import Name, NotNegative, OneOf, Positive, Strict, SystemId, Text, YesNo
from evenprobe.entries.plausible import Day, Time
from evenprobe.entries.problems import FieldError, FormatError, parse, parse_json

__all__ = [
    "Day",
    "FieldError",
    "FormatError",
    "Name",
    "NotNegative",
    "OneOf",
    "Positive",
    "Strict",
    "SystemId",
    "Text",
    "Time",
    "YesNo",
    "parse",
    "parse_json",
]
