"""The document a client is generated from: closed lists are closed there too, and entries have a shape."""

from typing import get_args

from pydantic import BaseModel

from project.api import api

SCHEMAS = api.get_openapi_schema()["components"]["schemas"]
ENUMERATED = {
    "InterpretationOut": ["verdict"],
    "NextTestOut": ["quantity", "instrument_kind"],
    "ConditionOut": ["severity"],
    "JudgementOut": ["result"],
    "BenchOut": ["kind", "practice", "system", "earthing"],
    "ReadingOut": ["status"],
    "PointLine": ["kind", "verdict"],
    "SiteIn": ["practice"],
    "SupplyIn": ["system", "earthing"],
    "PointIn": ["kind"],
    "TesterIn": ["kind"],
    "PartIn": ["role"],
    "HoldingIn": ["practice", "purpose", "place", "system"],
    "ProofIn": ["what", "place"],
    "ProofLine": ["state"],
    "EventOut": ["type"],
    "StateOut": ["state"],
    "StopOut": ["state", "verdict"],
    "RoundEventIn": ["kind"],
    "SheetLine": ["state"],
    "LineOut": ["step", "kind"],
    "StatementOut": ["id"],
    "ReadingEntry": ["quantity", "unit", "input", "device", "neutral"],
}


def words(schema, key):
    return schema["properties"][key].get("enum")


def test_what_can_only_be_one_of_a_few_says_which():
    open_ = [f"{name}.{key}" for name, keys in ENUMERATED.items() for key in keys if not words(SCHEMAS[name], key)]
    assert not open_


def test_an_entry_in_a_request_and_in_an_answer_is_the_format_s_own():
    for schema, model in (
        ("RecordIn", "ReadingEntry"),
        ("ReadingOut", "ReadingEntry"),
        ("DeadTestOut", "ReadingEntry"),
        ("EventIn", "Happening"),
        ("EventOut", "EventDetails"),
        ("CheckIn", "CheckEntry"),
    ):
        assert SCHEMAS[schema]["properties"]["entry"]["$ref"].endswith(f"/{model}")


def test_what_is_put_down_on_a_sheet_is_told_apart_by_its_type():
    entry = SCHEMAS["EntryIn"]["properties"]["entry"]["anyOf"][0]
    assert entry["discriminator"]["propertyName"] == "type"
    told = set(entry["discriminator"]["mapping"])
    assert told == {"looked", "loads", "leads", "tested", "left", "believed", "discharged", "said", "energised"}


def test_what_an_entry_does_not_know_is_left_out_and_never_null():
    for model in ("ReadingEntry", "Happening", "EventDetails", "CheckEntry"):
        for key, field in SCHEMAS[model]["properties"].items():
            assert {"type": "null"} not in field.get("anyOf", ()), f"{model}.{key}"


def shapes_within(annotation, known):
    """Every shape that an answer or a body is made of."""
    if isinstance(annotation, type) and issubclass(annotation, BaseModel) and annotation not in known:
        known.add(annotation)
        for field in annotation.model_fields.values():
            shapes_within(field.annotation, known)
    for part in get_args(annotation):
        shapes_within(part, known)


def test_no_two_shapes_share_a_name():
    """The document knows a shape by its name alone: of two that share one it would keep either."""
    known = set()
    for _, router in api._routers:
        for path in router.path_operations.values():
            for operation in path.operations:
                for shape in [*operation.response_models.values(), *operation.models]:
                    shapes_within(shape, known)
    shapes = [shape for shape in known if not shape.__module__.startswith("ninja")]
    assert len(shapes) > 100
    twice = {one.__name__: {a.__module__ for a in shapes if a.__name__ == one.__name__} for one in shapes}
    assert {name: modules for name, modules in twice.items() if len(modules) > 1} == {}
