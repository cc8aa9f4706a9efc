"""Photos: looked at before they are kept, hung on anything, and seen only by their crew."""

import base64
import io
import struct
import zlib
from uuid import uuid4

import pytest
from PIL import Image

from photos.models import Photo
from tests.server.conftest import PICTURE, picture
from tests.server.requests import entry, record


def put(person, image, name=None):
    return person.put(f"/photos/{name or uuid4()}", {"image": image})


def chunk(kind, data):
    return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))


def bomb(width, height):
    """A few hundred bytes that say they are a picture of so many points."""
    head = struct.pack(">IIBBBBB", width, height, 8, 2, 0, 0, 0)
    parts = [chunk(b"IHDR", head), chunk(b"IDAT", zlib.compress(b"\0" * 1000)), chunk(b"IEND", b"")]
    return base64.b64encode(b"\x89PNG\r\n\x1a\n" + b"".join(parts)).decode()


def cut_off():
    kept = io.BytesIO()
    Image.effect_noise((300, 300), 60).save(kept, "JPEG")
    return base64.b64encode(kept.getvalue()[:2000]).decode()


@pytest.mark.parametrize("kind", ["PNG", "JPEG"])
def test_a_picture_is_kept_as_it_came_with_its_hash(anna, kind):
    name = uuid4()
    assert put(anna, picture(30, 20, kind), name).json()["title"] == f"image/{kind.lower()}"
    answer = anna.get(f"/photos/{name}")
    assert base64.b64encode(answer.content).decode() == picture(30, 20, kind)
    assert len(Photo.objects.get(id=name).sha256) == 64


@pytest.mark.parametrize(
    ("image", "text"),
    [
        (bomb(60_000, 60_000), "points"),
        (bomb(9_000, 9_000), "points"),
        (cut_off(), "cut off or broken"),
        (base64.b64encode(b"GIF89a").decode(), "JPEG or PNG"),
        (base64.b64encode(b"").decode(), "JPEG or PNG"),
        ("not base 64!", "base 64"),
    ],
)
def test_what_is_no_picture_or_a_bomb_is_refused_by_name_and_not_kept(anna, image, text):
    answer = put(anna, image)
    assert answer.status_code == 422, answer.content
    [problem] = answer.json()["problems"]
    assert problem["path"] == "image"
    assert text in problem["text"]
    assert Photo.objects.count() == 0


def test_a_crew_s_pictures_take_no_more_room_than_they_are_given(anna, stranger, settings):
    settings.PHOTOS_MB_PER_CREW = 0
    name = uuid4()
    refused = put(anna, PICTURE, name)
    assert refused.status_code == 413, "refused alone: what was recorded after it does not wait for it"
    assert "fill the 0 MB" in refused.json()["problems"][0]["text"]
    settings.PHOTOS_MB_PER_CREW = 1
    noise = io.BytesIO()
    Image.effect_noise((900, 900), 100).save(noise, "PNG")
    assert put(anna, base64.b64encode(noise.getvalue()).decode(), name).status_code == 200
    assert put(anna, base64.b64encode(noise.getvalue()).decode(), name).status_code == 200, "sent again, it is there"
    assert put(anna, base64.b64encode(noise.getvalue()).decode()).status_code == 413
    assert put(stranger, PICTURE).status_code == 200, "another crew has room of its own"


def test_a_picture_hangs_on_a_reading_and_is_seen_on_its_line_of_time(anna, place):
    reading, photo, hung = (str(uuid4()) for _ in range(3))
    record(anna, place, entry(119.8), reading)
    put(anna, PICTURE, photo)
    body = {"photo": photo, "on": "reading", "of": reading, "note": "the display"}
    assert anna.put(f"/hung/{hung}", body).status_code == 200
    assert anna.put(f"/hung/{hung}", body).status_code == 200
    assert anna.put(f"/hung/{hung}", {**body, "note": "else"}).status_code == 409
    [one] = anna.get(f"/timeline/point/{place['point']}?kind=reading").json()["happened"]
    assert one["photos"] == [photo]


@pytest.mark.parametrize("on", ["site", "circuit", "point", "tester"])
def test_a_picture_hangs_on_a_place(anna, place, on):
    photo = str(uuid4())
    put(anna, PICTURE, photo)
    answer = anna.put(f"/hung/{uuid4()}", {"photo": photo, "on": on, "of": place[on], "note": "Label"})
    assert answer.status_code == 200, answer.content
    [one] = [h for h in anna.get(f"/timeline/{on}/{place[on]}").json()["happened"] if h["kind"] == "photo"]
    assert (one["text"], one["photos"]) == ("Label", [photo])


def test_no_picture_hangs_on_what_is_not_there(anna, place):
    photo = str(uuid4())
    put(anna, PICTURE, photo)
    assert anna.put(f"/hung/{uuid4()}", {"photo": photo, "on": "reading", "of": str(uuid4())}).status_code == 404
    assert anna.put(f"/hung/{uuid4()}", {"photo": str(uuid4()), "on": "point", "of": place["point"]}).status_code == 404
