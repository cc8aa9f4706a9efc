"""Schedules, labels and lock tags: what hangs at the installation says what the record says."""

import io
import re

import pytest
from pypdf import PdfReader

from tests.server.conftest import proof_body
from tests.server.requests import filled
from tests.server.test_proofs import prove_dead


def pages(answer):
    assert answer.status_code == 200, answer.content
    assert answer["Content-Type"] == "application/pdf"
    return [re.sub(r"\s+", " ", page.extract_text()) for page in PdfReader(io.BytesIO(answer.content)).pages]


def add_points(person, place, count):
    for number in range(count):
        point = {"circuit": place["circuit"], "name": f"Box {number}", "kind": "outlet", "terminals": ["L", "N", "PE"]}
        path = filled(f"/points/{place['point'][:-4]}{number:04d}", {}).strip('"')
        assert person.put(path, point).status_code == 200


def test_a_schedule_says_what_each_device_feeds_on_one_page(anna, place):
    add_points(anna, place, 30)
    [page] = pages(anna.get(f"/boards/{place['board']}/schedule"))
    for text in ("Workshop", "20 A breaker", "12 AWG", "Outlet 1", "Box 29", "Larkspur Hill", "Made on"):
        assert text in page


def test_what_is_behind_a_protective_outlet_stands_on_the_schedule(anna, place, django_user_model):
    from sites.models import Point

    Point.objects.filter(id=place["point"]).update(protected_by="Kitchen counter outlet")
    [page] = pages(anna.get(f"/boards/{place['board']}/schedule"))
    assert "Kitchen counter outlet" in page


def test_labels_fill_sheets_by_their_millimetres(anna, place):
    add_points(anna, place, 9)
    asked = f"/sites/{place['site']}/labels?width=100&height=60&left=5&top=5"
    found = pages(anna.get(asked))
    assert [text.count("Workshop") for text in found] == [8, 2]
    assert len(pages(anna.get(f"/sites/{place['site']}/labels?circuit={place['circuit']}"))) == 1


@pytest.mark.parametrize(
    ("size", "path"), [("width=300", "width"), ("width=5", "width"), ("height=400", "width"), ("left=-3", "left")]
)
def test_labels_that_do_not_fit_are_named(anna, place, size, path):
    answer = anna.get(f"/sites/{place['site']}/labels?{size}")
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["path"] == path


def test_a_tag_has_the_lock_its_owner_and_a_telephone(anna, place):
    assert anna.get(f"/sites/{place['site']}/lock-tags").status_code == 422
    anna.put(f"/proofs/{place['proof']}", proof_body(place))
    prove_dead(anna, place)
    [page] = pages(anna.get(f"/sites/{place['site']}/lock-tags?phone=555-0142"))
    for text in ("Do not switch on", "K-07", "555-0142", "board W, 20 A", "Workshop outlets"):
        assert text in page


def test_a_preview_is_a_picture(anna, place):
    answer = anna.get(f"/boards/{place['board']}/schedule?form=png")
    assert answer["Content-Type"] == "image/png"
    assert answer.content.startswith(b"\x89PNG")
