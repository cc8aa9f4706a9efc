"""What a person's slip, a bad line or two people at once can do: a clear word, and nothing lost or doubled."""

from concurrent.futures import ThreadPoolExecutor
from uuid import uuid4

import pytest
from django.db import connection

from crews.models import Crew
from readings.models import Reading
from tests.server.requests import entry, record


@pytest.mark.parametrize("body", [b'{"entry": ', b"\xff\xfe", b"[" * 5000, b"entry=1"])
def test_what_is_not_json_is_said_to_be_so(anna, place, body):
    path = f"/api/points/{place['point']}/readings/{uuid4()}"
    answer = anna.client.put(path, body, content_type="application/json")
    assert answer.status_code == 400
    assert answer.json() == {"problems": [{"path": "", "text": "the request is not JSON"}]}
    assert not Reading.objects.exists()


@pytest.mark.parametrize("value", [b"NaN", b"Infinity", b"-Infinity", b"1e999"])
def test_a_number_that_is_none_is_named_at_the_value(anna, place, value):
    body = b'{"entry": {"quantity": "voltage", "from": "L", "to": "N", "value": ' + value + b', "unit": "V"}}'
    answer = anna.client.put(f"/api/points/{place['point']}/readings/{uuid4()}", body, content_type="application/json")
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["path"] == "value"
    assert not Reading.objects.exists()


def test_what_was_sent_is_quoted_short(anna, place):
    answer = record(anna, place, entry(120.0) | {"note": "x" * 100_000})
    assert answer.json()["problems"][0]["path"] == "note"
    assert len(answer.content) < 500


@pytest.mark.parametrize("name", ["L" + chr(0x200B), "L" * 500, "<b>N</b>", "neutral"])
def test_a_strange_terminal_is_refused_with_those_there_are(anna, place, name):
    answer = record(anna, place, entry(120.0, (name, "N")))
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["path"] == "from"
    assert "L, N, PE" in answer.json()["problems"][0]["text"]


def test_what_cannot_be_found_is_said_in_words(anna):
    missing = anna.get(f"/points/{uuid4()}/bench")
    assert (missing.status_code, missing.json()["problems"][0]["text"]) == (404, "no such point in your crew")
    assert anna.get("/points/not-an-id/bench").status_code == 422


def test_a_reading_of_one_point_corrects_none_of_another(anna, place):
    one, other = uuid4(), str(uuid4())
    record(anna, place, entry(119.8), one)
    body = {"circuit": place["circuit"], "name": "Outlet 2", "kind": "outlet", "terminals": ["L", "N", "PE"]}
    assert anna.put(f"/points/{other}", body).status_code == 200
    elsewhere = record(anna, {**place, "point": other}, entry(120.0), supersedes=str(one))
    assert elsewhere.status_code == 422
    assert elsewhere.json()["problems"][0]["path"] == "supersedes"
    same_id = record(anna, {**place, "point": other}, entry(119.8), one)
    assert same_id.status_code == 409
    assert Reading.objects.count() == 1


def test_a_withdrawal_can_be_sent_twice_and_not_corrected_after(anna, place):
    one = uuid4()
    record(anna, place, entry(240.0), one)
    path, body = f"/points/{place['point']}/withdrawals/{uuid4()}", {"reading": str(one)}
    assert [anna.put(path, body).status_code for _ in range(2)] == [200, 200]
    assert record(anna, place, entry(120.0), supersedes=str(one)).status_code == 409
    statuses = [r["status"] for r in anna.get(f"/points/{place['point']}/bench").json()["readings"]]
    assert statuses == ["withdrawn"]


def test_moving_on_and_coming_back_finds_it_all_again(anna, place, client_class):
    """Another browser of the same person, as tomorrow: the same readings, the same verdict."""
    record(anna, place, entry(119.8))
    record(anna, place, entry(97.0, ("N", "PE")))
    today = anna.get(f"/points/{place['point']}/bench").json()
    tomorrow = client_class()
    tomorrow.force_login(anna.client.session and _user_of(anna))
    again = tomorrow.get(f"/api/points/{place['point']}/bench").json()
    assert again["readings"] == today["readings"]
    assert again["interpretation"] == today["interpretation"]


def _user_of(person):
    from django.contrib.auth import get_user_model

    return get_user_model().objects.get(pk=person.client.session["_auth_user_id"])


@pytest.mark.django_db(transaction=True)
def test_the_same_reading_sent_five_times_at_once_is_one(anna, place, client_class):
    one = uuid4()
    cookies = anna.client.cookies

    def send(value):
        client = client_class()
        client.cookies = cookies
        try:
            path = f"/api/points/{place['point']}/readings/{one}"
            return client.put(path, {"entry": entry(value)}, content_type="application/json").status_code
        finally:
            connection.close()

    with ThreadPoolExecutor(5) as pool:
        statuses = sorted(pool.map(send, [119.8, 119.8, 119.8, 119.8, 5.0]))
    assert Reading.objects.count() == 1
    kept = Reading.objects.get().entry["value"]
    assert statuses == ([200] * 4 + [409] if kept == 119.8 else [200] + [409] * 4)


def test_a_form_s_slip_is_told_in_the_words_a_file_s_is(anna, place):
    van = {"label": "Van", "lines": 1, "amperes": "none"}
    answer = anna.put(f"/equipment/{place['equipment']}", van)
    assert answer.json()["problems"] == [{"path": "amperes", "text": "must be a number"}]
    point = {"circuit": place["circuit"], "name": "Outlet 9", "kind": "outlet", "terminals": ["L", "N", "PE"]}
    answer = anna.put(f"/points/{place['point']}", {**point, "length_ft": "x9"})
    assert answer.json()["problems"] == [{"path": "length_ft", "text": "must be a number"}]
    assert anna.put(f"/points/{place['point']}", point | {"name": None}).json()["problems"][0]["path"] == "name"


def test_a_length_in_feet_is_kept_in_metres_and_shown_in_both(anna, place):
    point = {"circuit": place["circuit"], "name": "Outlet 9", "kind": "outlet", "terminals": ["L", "N", "PE"]}
    site = anna.put(f"/points/{place['point']}", {**point, "length_ft": 59}).json()
    [shown] = site["supplies"][0]["boards"][0]["circuits"][0]["points"]
    assert shown["length_m"] == pytest.approx(17.98, abs=0.01)
    assert shown["length_ft"] == pytest.approx(59)
    refused = anna.put(f"/points/{place['point']}", {**point, "length_ft": -3})
    assert refused.json()["problems"][0]["path"] == "length_m"


@pytest.mark.parametrize("path", ["/search?q={}", "/timeline/crew/{crew}?by={}", "/timeline/crew/{crew}?note={}"])
def test_what_cannot_be_written_down_is_not_asked_for_in_an_address_either(anna, place, path):
    for text in ("%00", "a%00b", "%1b", "%ED%A0%80"):
        answer = anna.get(path.replace("{}", text).format(crew=Crew.objects.get().id))
        assert answer.status_code in (200, 422), answer.content
        if answer.status_code == 422:
            assert "cannot be written down" in answer.json()["problems"][0]["text"]
    assert anna.client.delete("/api/own/devices/%00").status_code in (204, 404, 422)
    assert anna.get("/links/%00").status_code == 404


@pytest.mark.parametrize(
    ("path", "wrong"),
    [
        ("/testers/{tester}/leaning?since=0001-01-01T00:00:00%2B14:00", "since"),
        ("/timeline/crew/{crew}?before=9999-12-31T23:59:59-14:00", "before"),
        ("/timeline/crew/{crew}?until=9999-12-31", "until"),
        ("/timeline/crew/{crew}?since=0001-01-01", "since"),
        ("/standing/not-tested?since=0001-01-01", "since"),
    ],
)
def test_a_day_out_of_all_time_is_refused_by_name(anna, place, path, wrong):
    answer = anna.get(path.format(crew=Crew.objects.get().id, **place))
    assert answer.status_code == 422, answer.content
    [problem] = answer.json()["problems"]
    assert problem["path"].endswith(wrong)
    assert "between 2000 and 2099" in problem["text"]


@pytest.mark.parametrize("account", [-1, 0, 10**18, 2**63, 10**40])
def test_an_account_that_no_database_counts_to_is_none(anna, account):
    for answer in (anna.put(f"/people/{account}", {"role": "guest"}), anna.put(f"/people/{account}/left", {})):
        assert answer.status_code in (404, 422), answer.content


def test_what_is_larger_than_anything_is_said_to_be_too_large(anna, place, settings):
    settings.DATA_UPLOAD_MAX_MEMORY_SIZE = 1024 * 1024
    answer = anna.put(f"/sites/{uuid4()}/survey", {"survey": {"label": "x" * 1024 * 1024}})
    assert answer.status_code == 413
    assert answer.json()["problems"] == [{"path": "", "text": "This is larger than 1 MB, the most at a time"}]


FIELD = b'Content-Disposition: form-data; name="f%d"\r\n\r\n1\r\n--x\r\n'


@pytest.mark.parametrize(
    ("body", "kind"),
    [
        (b"--cut\r\nContent-Disposition: form-da", "multipart/form-data; boundary=cut"),
        (b"no form at all", "multipart/form-data; boundary=cut"),
        (b"no form at all", "multipart/form-data"),
        (b"--x\r\n" + b"".join(FIELD % n for n in range(2000)), "multipart/form-data; boundary=x"),
        (b"", "application/x-www-form-urlencoded"),
    ],
)  # fmt: skip
def test_what_is_no_file_is_refused_in_words(anna, place, body, kind):
    for path in ("/api/brought/record/look", "/api/brought/rows/readings"):
        answer = anna.client.post(path, body, content_type=kind)
        assert answer.status_code in (400, 422), (path, answer.status_code, answer.content)
        assert answer.json()["problems"][0]["text"]
