"""Problems with input, each with the path to what is wrong and what to do."""

import json
from collections.abc import Sequence
from itertools import islice
from typing import Any, TypeVar

from pydantic import BaseModel, ValidationError

from evenprobe.entries.plausible import NO_CHARACTER, implausible

_LONGEST_QUOTE = 60
MOST_NAMED = 20
"""Of what cannot be at all: a file full of it is no file of ours."""

Model = TypeVar("Model", bound=BaseModel)


class FormatError(ValueError):
    """Input that cannot be used. `problems`: (path, message), a line each."""

    def __init__(self, problems: Sequence[tuple[str, str]]) -> None:
        self.problems = tuple(problems)
        super().__init__("\n".join(f"{path}: {text}" if path else text for path, text in problems))


def parse_json(text: str) -> Any:
    """JSON as the formats allow it: no NaN or infinity, no key twice in one object.

    Parameters
    ----------
    text : str
        A whole file.

    Returns
    -------
    dict, list, str, float, int, bool or None
        Plain data.

    Raises
    ------
    FormatError
        Where it is no such JSON, with line and column.

    Examples
    --------
    >>> parse_json('{"value": 231.0}')
    {'value': 231.0}
    >>> parse_json('{"value": NaN}')
    Traceback (most recent call last):
    evenprobe.entries.problems.FormatError: NaN is not a number that can be measured
    """
    try:
        return json.loads(text, parse_constant=_refuse_constant, object_pairs_hook=_refuse_repeats)
    except json.JSONDecodeError as error:
        raise FormatError([("", f"not JSON: {error.msg} at line {error.lineno}, column {error.colno}")]) from None
    except RecursionError:
        raise FormatError([("", "not a file of ours: nested too deeply")]) from None
    except FormatError:
        raise
    except ValueError:
        raise FormatError([("", "holds a number with more digits than anything that can be measured")]) from None


def parse(model: type[Model], data: Any) -> Model:
    """An entry or a file, checked.

    Parameters
    ----------
    model : type of BaseModel
        What it has to be.
    data : dict
        As JSON gives it.

    Returns
    -------
    BaseModel
        Of the type asked for.

    Raises
    ------
    FormatError
        With every problem, each with the path to what is wrong.

    Examples
    --------
    >>> from evenprobe.formats.supply import SupplyEntry
    >>> parse(SupplyEntry, {"system": "230", "earthing": "TT"}).system
    '230'
    >>> parse(SupplyEntry, {"system": "231"})  # doctest: +ELLIPSIS
    Traceback (most recent call last):
    evenprobe.entries.problems.FormatError: system: unknown supply system '231'; use one of ...
    """
    try:
        found = model.model_validate(data)
    except ValidationError as error:
        raise FormatError([named(problem, data) for problem in error.errors()]) from None
    refuse_implausible(data)
    return found


def refuse_implausible(data: Any) -> None:
    """Raises FormatError naming what cannot be in any input."""
    cannot_be = list(islice(implausible(data), MOST_NAMED))
    if cannot_be:
        raise FormatError(cannot_be)


def _as_written(location: Sequence[int | str], data: Any) -> list[int | str]:
    """The location without the kinds that tell like entries apart, for nobody wrote them as keys."""
    path: list[int | str] = []
    for step in location:
        if isinstance(data, dict) and step not in data and step in (data.get("kind"), data.get("type")):
            continue
        path.append(step)
        inside = (isinstance(data, dict) and step in data) or (isinstance(data, list) and step in range(len(data)))
        data = data[step] if inside else None
    return path


def _path_of(location: Sequence[int | str]) -> str:
    """`points[0].readings[3].unit`."""
    path = ""
    for step in location:
        path += f"[{step}]" if isinstance(step, int) else f".{step}" if path else str(step)
    return path


def named(problem: Any, data: Any = None) -> tuple[str, str]:
    """The path and the words of one of Pydantic's problems; `data`: what was checked, where it is known."""
    path, kind = _path_of(_as_written(problem["loc"], data)), problem["type"]
    given = problem.get("input")
    shown = f", not {_quoted(given)}" if isinstance(given, str | int | float | bool) else ""
    context = problem.get("ctx", {})
    match kind:
        case "union_tag_invalid":
            return _joined(
                path, context["discriminator"].strip("'")
            ), f"must be {context['expected_tags']}, not {_quoted(context['tag'])}"
        case "union_tag_not_found":
            return _joined(path, context["discriminator"].strip("'")), "is missing"
        case "extra_forbidden":
            return path, "unknown key"
        case "missing":
            return path, "is missing"
        case "literal_error" | "enum":
            return path, f"must be {context['expected']}{shown}"
        case "value_error":
            error = context["error"]
            if isinstance(error, FieldError):
                return _joined(path, error.field), str(error)
            return path, str(error)
        case "greater_than":
            return path, f"must be more than {context['gt']:g}{shown}"
        case "greater_than_equal":
            return path, f"must be at least {context['ge']:g}{shown}"
        case "less_than_equal":
            return path, f"must be at most {context['le']:g}{shown}"
        case "model_type" | "model_attributes_type" | "dict_type":
            return path, f"must be an object, in braces{shown}"
        case "list_type" | "tuple_type":
            return path, f"must be a list{shown}"
        case "string_too_short":
            least = context["min_length"]
            return path, "must not be empty" if least == 1 else f"needs {least} letters or more"
        case "string_unicode":
            return path, NO_CHARACTER
        case "string_type":
            return path, f"must be text{shown}"
        case "datetime_parsing" | "datetime_from_date_parsing" | "datetime_type" | "timezone_aware":
            return path, f"must be a time with its offset, as 2026-11-24T10:40:00+00:00{shown}"
        case "finite_number":
            return path, "must be a finite number"
        case "bool_type" | "bool_parsing":
            return path, f"must be true or false{shown}"
        case "float_type" | "float_parsing" | "int_type" | "int_parsing":
            return path, f"must be a number{shown}"
        case _:
            return path, f"{problem['msg'][0].lower()}{problem['msg'][1:]}{shown}"


def _joined(path: str, field: str) -> str:
    return f"{path}{'.' if path and not field.startswith('[') else ''}{field}"


def _quoted(given: Any) -> str:
    text = json.dumps(given)
    return text if len(text) <= _LONGEST_QUOTE else f"{text[:_LONGEST_QUOTE]}…"


class FieldError(ValueError):
    """A rule over several keys that one of them breaks."""

    def __init__(self, field: str, text: str) -> None:
        self.field = field
        super().__init__(text)


def _refuse_constant(name: str) -> Any:
    raise FormatError([("", f"{name} is not a number that can be measured")])


def _refuse_repeats(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    found: dict[str, Any] = {}
    for key, value in pairs:
        if key in found:
            raise FormatError([("", f"the key {key!r} stands twice in one object")])
        found[key] = value
    return found
