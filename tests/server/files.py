"""Files as they are sent in the tests."""

import json

from django.core.files.uploadedfile import SimpleUploadedFile

HEADER = "taken at,circuit,point,quantity,from,to,mode,value [V]"
ROWS = f"{HEADER}\r\n2026-11-24T10:40:00+00:00,Workshop,Outlet 1,voltage,L,N,ac,119.4\r\n"


def bring(person, what, content, *, look=False, name="theirs.csv", **how):
    """A file to be looked at, or brought in: `record`, or `rows/` and a table. `how`: as it is to be read."""
    file = SimpleUploadedFile(name, content if isinstance(content, bytes) else content.encode())
    path = f"/api/brought/{what}{'/look' if look else ''}"
    return person.client.post(path, {"file": file, "how": json.dumps(how)})


def saved(person, path):
    """A file that streams, whole."""
    answer = person.get(path)
    assert answer.status_code == 200, answer.content
    return b"".join(answer.streaming_content)


AT = "2026-11-24T10:40:00+00:00"


def said(answer):
    """Why not, by line."""
    assert answer.status_code == 200, answer.content
    return {
        line: "; ".join(f"{p['path']}: {p['text']}" for p in one["problems"])
        for one in answer.json()["said"]
        for line in one["lines"]
    }


def row(**changes):
    """A row of ROWS with some cells otherwise."""
    cells = {"at": AT, "circuit": "Workshop", "point": "Outlet 1", "quantity": "voltage", "from": "L", "to": "N"}
    return ",".join(f'"{cell}"' for cell in {**cells, "mode": "ac", "value": "119.4", **changes}.values())


def rows(*lines, header=HEADER):
    return "\r\n".join([header, *lines]).encode()
