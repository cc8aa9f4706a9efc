"""What stands at every edge: what cannot be written down, closed lists, entries that leave out what is not known."""

from typing import Annotated, Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import BaseModel, ValidationError

from evenprobe.entries import FormatError, Strict, parse
from evenprobe.entries.documented import Among, WrittenAs
from evenprobe.entries.plausible import implausible
from evenprobe.entries.units import FACTOR, to_si
from evenprobe.practices import PRACTICES
from evenprobe.practices.lengths import FOOT, METRE


class Leads(Strict):
    ohm: float | None = None
    ends: tuple[str, str] | None = None
    pairs: list[tuple[float, float]] = []


class Told(BaseModel):
    practice: Annotated[str, Among(PRACTICES)]
    state: Annotated[str, Among(("open", "shut"))] = "shut"
    leads: Annotated[dict[str, Any], WrittenAs(Leads)]


def schema():
    return Told.model_json_schema()


def test_a_closed_list_is_told_and_not_checked():
    assert schema()["properties"]["practice"]["enum"] == list(PRACTICES)
    assert schema()["properties"]["state"]["enum"] == ["open", "shut"]
    assert Told(practice="elsewhere", state="ajar", leads={}).state == "ajar"


def test_an_entry_is_told_by_its_model_and_taken_as_it_is():
    assert schema()["properties"]["leads"]["$ref"] == "#/$defs/Leads"
    given_so = {"colour": "red"}
    assert Told(practice="british", leads=given_so).leads == given_so
    with pytest.raises(ValidationError):
        Told(practice="british", leads="red")


def test_what_is_left_out_is_never_null_in_the_schema_and_may_be_in_the_file():
    properties = schema()["$defs"]["Leads"]["properties"]
    assert properties["ohm"] == {"title": "Ohm", "type": "number"}
    assert properties["ends"]["items"] == {"type": "string"}
    assert properties["pairs"]["items"]["items"] == {"type": "number"}
    assert parse(Leads, {"ohm": None}) == Leads()


TEXT = st.text(st.characters(codec="utf-8", min_codepoint=32, exclude_characters="\x7f"))
plain = st.recursive(
    st.none() | st.booleans() | st.integers(-1000, 1000) | TEXT,
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text("abc", max_size=3), inner, max_size=3),
    max_leaves=12,
)


@given(plain)
def test_plain_data_is_plausible_however_deep(data):
    assert list(implausible(data)) == []


@given(plain, st.sampled_from(["\x00", "\ud800", "\x1b"]))
def test_a_character_that_cannot_be_written_down_is_found_with_its_path(data, bad):
    paths = [path for path, _ in implausible({"inner": [data, {"note": f"a{bad}b"}]})]
    assert "inner[1].note" in paths


@pytest.mark.parametrize("number", [1e31, -1e31, 1e-31, float("inf")])
def test_a_number_out_of_all_range_is_named(number):
    assert [path for path, _ in implausible({"points": [{"value": number}]})] == ["points[0].value"]


def test_a_file_full_of_what_cannot_be_is_not_told_to_the_end():
    with pytest.raises(FormatError) as refused:
        parse(Leads, {"pairs": [[1e40, 1e40]] * 200})
    assert len(refused.value.problems) <= 20


@given(st.sampled_from(sorted(FACTOR)), st.floats(-1e6, 1e6))
def test_a_unit_is_a_factor_and_nothing_else(unit, value):
    assert to_si(2 * value, unit) == pytest.approx(2 * to_si(value, unit))
    assert to_si(value, unit) == pytest.approx(value * FACTOR[unit])


@given(st.floats(0.1, 5000.0))
def test_a_length_in_feet_has_its_metres_beside_it(metres):
    assert f"({metres:g} m)" in FOOT.said(metres)
    assert METRE.said(metres) == f"{metres:g} m"
    feet = float(FOOT.said(metres).split(" ft")[0])
    assert feet * FOOT.metres == pytest.approx(metres, abs=FOOT.metres / 2 + 1e-9)
