"""Sign-offs and reports: what is signed never changes, is chained, is printed whole, and can be verified anywhere."""

import io
import json
import random
import re
from uuid import uuid4

import pytest
from pypdf import PdfReader

import evenprobe
from tests.server.conftest import picture
from tests.server.on_sheets import fill
from tests.server.requests import entry, record
from tests.server.test_proofs import prove_dead


@pytest.fixture
def measured(anna, bench_kit):
    """A circuit proved dead, its sheet filled in, its outlet measured."""
    prove_dead(anna, bench_kit)
    fill(anna, bench_kit)
    for pair, volts in ((("L", "N"), 119.8), (("L", "PE"), 119.6), (("N", "PE"), 0.35)):
        record(anna, bench_kit, entry(volts, pair), tester=bench_kit["tester"])
    return bench_kit


def whys(draft, why="Nobody was home"):
    return {one["id"]: why for one in draft["content"]["not_tested"]}


def sign(person, place, what="circuit", sign_off=None, **changes):
    draft = person.get(f"/drafts/{what}/{place[what]}").json()
    content = {"what": what, "of": place[what], "typed_name": draft["name"], "whys": whys(draft)}
    return person.put(f"/sign-offs/{sign_off or uuid4()}", {**content, **changes})


def file_of(person, sign_off):
    return person.get(f"/sign-offs/{sign_off}/file").content


def packed(text):
    """Without spaces: a line breaks where it likes."""
    return re.sub(r"\s+", "", text)


def text_of(pdf):
    """Its words, as a reader would select them."""
    return packed("".join(page.extract_text() for page in PdfReader(io.BytesIO(pdf)).pages))


def test_what_is_signed_is_sound_and_this_core_says_the_same(anna, measured):
    answer = sign(anna, measured)
    assert answer.status_code == 200, answer.content
    found = evenprobe.verify(file_of(anna, answer.json()["id"]))
    assert found.sound, found.problems
    [one] = found.sign_offs
    assert (one.number, one.same_core, one.differ) == (1, True, [])
    assert one.judged >= 6


def test_a_real_sign_off_is_found_edited_whichever_byte_it_is(anna, measured, monkeypatch):
    """What is judged again is left out, for it is the same for every edit that still can be read."""
    file = file_of(anna, sign(anna, measured).json()["id"])
    monkeypatch.setattr("evenprobe.verification.verify.judged_again", lambda _: [])
    rng = random.Random(7)
    for _ in range(300):
        at = rng.randrange(len(file))
        edited = file[:at] + bytes([rng.choice([b for b in range(256) if b != file[at]])]) + file[at + 1 :]
        try:
            sound = evenprobe.verify(edited).sound
        except evenprobe.FormatError:
            sound = False
        assert not sound, file[max(0, at - 30) : at + 30]


def test_later_readings_make_the_next_and_leave_the_signed_one_as_it_was(anna, measured):
    first = sign(anna, measured).json()
    record(anna, measured, entry(88.0, ("N", "PE")))
    second = sign(anna, measured).json()
    again = anna.get(f"/sign-offs/{first['id']}").json()
    assert again["content"] == first["content"]
    assert [first["number"], second["number"]] == [1, 2]
    readings = [len(one["content"]["circuits"][0]["points"][0]["readings"]) for one in (first, second)]
    assert readings == [3, 4]
    chain = json.loads(file_of(anna, second["id"]))["chain"]
    assert [link["number"] for link in chain] == [1, 2]
    assert chain[0]["link_sha256"] == first["link_sha256"]


def test_the_chain_of_another_crew_is_another(anna, stranger, measured):
    sign(anna, measured)
    assert stranger.get("/sign-offs").json() == []


def test_a_retry_is_the_same_sign_off(anna, measured):
    name = str(uuid4())
    one, again = sign(anna, measured, sign_off=name), sign(anna, measured, sign_off=name)
    assert one.json() == again.json()
    assert len(anna.get("/sign-offs").json()) == 1
    other = sign(anna, measured, "site", sign_off=name)
    assert other.status_code == 409


def test_only_ones_own_name_signs(anna, measured):
    answer = sign(anna, measured, typed_name="Somebody Else")
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["path"] == "typed_name"
    assert anna.get("/sign-offs").json() == []


def test_what_was_not_tested_needs_a_reason_and_keeps_it(anna, place):
    record(anna, place, entry(119.8))
    refused = sign(anna, place, whys={})
    assert refused.status_code == 422
    assert all(problem["path"].startswith("whys.") for problem in refused.json()["problems"])
    kept = sign(anna, place).json()["content"]["not_tested"]
    assert {one["why"] for one in kept} == {"Nobody was home"}
    assert any(one["what"] == "Workshop: no dead tests" for one in kept)


def test_the_report_holds_every_reading_as_it_is_said(anna, measured):
    record(anna, measured, entry(12.0, ("N", "PE"), input="low-z"))
    signed = sign(anna, measured).json()
    answer = anna.get(f"/sign-offs/{signed['id']}/report")
    assert answer["Content-Type"] == "application/pdf"
    text = text_of(answer.content)
    [circuit] = signed["content"]["circuits"]
    for point in circuit["points"]:
        assert packed(point["name"]) in text
        for reading in point["readings"]:
            assert packed(reading["where"] + reading["seen"] + reading["how"]) in text, reading
    for test in circuit["dead_tests"]:
        assert packed(test["shown"]) in text
        assert packed(test["title"]) in text
    assert signed["link_sha256"] in text
    for one in signed["content"]["not_tested"]:
        assert packed(one["what"]) in text


def test_a_report_is_tagged_and_its_fonts_are_in_it(anna, measured):
    reader = PdfReader(io.BytesIO(anna.get(f"/drafts/circuit/{measured['circuit']}/report").content))
    assert reader.trailer["/Root"]["/MarkInfo"]["/Marked"]
    assert reader.trailer["/Root"]["/Lang"]
    fonts = {font for page in reader.pages for font in page["/Resources"]["/Font"].values()}
    assert fonts
    for font in fonts:
        [inside] = font.get_object()["/DescendantFonts"]
        assert any(key.startswith("/FontFile") for key in inside.get_object()["/FontDescriptor"])


def test_words_that_mean_something_to_the_layout_are_only_words(anna, place):
    strange = '#panic("x") $1 + 2$ *bold* \\ <a> = [x] @y "quoted" Ω 中'
    anna.put(f"/circuits/{place['circuit']}", {"board": place["board"], "name": strange})
    text = text_of(anna.get(f"/drafts/circuit/{place['circuit']}/report").content)
    assert packed('#panic("x") $1 + 2$ *bold*') in text


def test_a_draft_says_that_nobody_signed_it(anna, place):
    assert packed("Not signed. This is a draft") in text_of(anna.get(f"/drafts/site/{place['site']}/report").content)


def test_what_has_to_be_done_is_said_with_by_when(anna, measured):
    record(anna, measured, entry(118.0, ("PE", "REF")))
    content = anna.get(f"/drafts/circuit/{measured['circuit']}").json()["content"]
    assert any(one["by_when"].startswith("Now:") for one in content["next"])


def test_a_visit_is_signed_with_its_words_and_what_it_left_open(anna, measured):
    visit = str(uuid4())
    planned = {"site": measured["site"], "why": "Yearly test", "planned_for": "2026-12-01"}
    made = {**planned, "circuits": [measured["circuit"]], "works": ["live-tests"]}
    assert anna.put(f"/visits/{visit}", made).status_code == 200
    anna.put(f"/visits/{visit}/events/{uuid4()}", {"kind": "begun"})
    signed = sign(anna, {"visit": visit}, "visit").json()["content"]
    assert signed["visit"]["why"] == "Yearly test"
    assert any("locks on" in text for text in signed["visit"]["open"])


def test_photos_stand_in_the_report_and_are_signed_by_their_hash(anna, measured):
    photo = str(uuid4())
    anna.put(f"/photos/{photo}", {"image": picture(640, 480, "JPEG")})
    anna.put(f"/hung/{uuid4()}", {"photo": photo, "on": "point", "of": measured["point"], "note": "Label in the box"})
    before = anna.get(f"/drafts/site/{measured['site']}/report").content
    signed = sign(anna, measured).json()
    [kept] = signed["content"]["circuits"][0]["points"][0]["photos"]
    assert (kept["id"], len(kept["sha256"])) == (photo, 64)
    images = [image for page in PdfReader(io.BytesIO(before)).pages for image in page.images]
    assert any(image.image.size == (640, 480) for image in images)
    assert packed("Label in the box") in text_of(before)


def test_a_reason_too_long_is_refused_and_nothing_is_signed(anna, place):
    draft = anna.get(f"/drafts/circuit/{place['circuit']}").json()
    answer = sign(anna, place, whys=whys(draft, "x" * 5000))
    assert answer.status_code == 422
    assert "longer than" in answer.json()["problems"][0]["text"]
    assert anna.get("/sign-offs").json() == []


def test_the_page_has_the_hash_as_a_code_as_the_paper_does(anna, measured):
    signed = sign(anna, measured).json()
    answer = anna.get(f"/sign-offs/{signed['id']}/code")
    assert answer["Content-Type"] == "image/svg+xml"
    assert answer.content.startswith(b'<svg xmlns="http://www.w3.org/2000/svg"')
