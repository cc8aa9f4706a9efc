"""Twenty thousand requests over the server's whole document, signed in, on real ids. Exit 1 where the server failed."""

import json
import os
import sys
from collections import Counter
from typing import Any

import requests

from bench.asking import Asked, ask_all
from bench.serving import Person, Server, demo_server

REQUESTS, PORT = 20_000, 8132
CALLED = {
    "testerfault": "fault", "sheetentry": "entry", "photoon": "hung", "signoff": "sign_off", "onetimelink": "link",
    "secondperson": "word", "user": "account", "proofevent": "event",
}  # fmt: skip
"""What the document calls an id of a table that it calls otherwise."""


def ids_on_record() -> dict[str, list[str]]:
    """Of every table of the database that the settings name."""
    from django.apps import apps

    found = {}
    for model in apps.get_models():
        name = model._meta.model_name or ""
        known = "id" if any(field.name == "id" for field in model._meta.concrete_fields) else "pk"
        ids = [str(each) for each in model._default_manager.order_by("pk").values_list(known, flat=True)[:200]]
        if ids:
            found[CALLED.get(name, name)] = ids
    return found


def keeper_again(name: str = "demo") -> None:
    """Whoever asks may: a request that was understood may have taken that away."""
    from crews.models import Membership, Role

    Membership.objects.filter(user__username=name).update(role=Role.KEEPER, left_at=None, site=None, until=None)


def _ask(server: Server, times: int) -> Asked:
    person = Person(server)
    person.sign_in()

    def send(request: requests.PreparedRequest) -> tuple[int, str, bytes]:
        answer = _sent(person, server, request)
        if answer.status_code in (401, 403):
            keeper_again()
            person.cookies.clear()
            person.sign_in()
            answer = _sent(person, server, request)
        return answer.status_code, answer.headers.get("Content-Type", ""), answer.content

    with (server.data / "openapi.json").open() as document:
        return ask_all(json.load(document), ids_on_record(), send, times)


def _sent(person: Person, server: Server, request: requests.PreparedRequest) -> requests.Response:
    request.url = server.address + request.path_url
    request.headers["Cookie"] = "; ".join(f"{name}={value}" for name, value in person.cookies.items())
    request.headers["X-CSRFToken"] = person.cookies.get("csrftoken") or ""
    return person.send(request, timeout=120)


def main(wanted: int = REQUESTS) -> int:
    with demo_server(PORT) as server:
        os.environ |= {"EVENPROBE_DATA": str(server.data), "DJANGO_SETTINGS_MODULE": "project.settings"}
        sys.path.insert(0, "server")
        import django

        django.setup()
        server.manage(
            "export_openapi_schema", "--api", "project.api.api", "--output", str(server.data / "openapi.json")
        )
        document: dict[str, Any] = json.loads((server.data / "openapi.json").read_text())
        operations = sum(len(path) for path in document["paths"].values())
        asked = _ask(server, -(-wanted // operations))
    statuses = ", ".join(f"{status} {times}" for status, times in sorted(Counter(asked.statuses).items()))
    print(f"requests {asked.requests} over {operations} operations: {statuses}; failed {len(asked.failed)}")
    for label, status, told, answer in asked.failed[:20]:
        print(f"  {label} {status}: {told}\n    {answer}")
    return bool(asked.failed) or asked.requests < wanted


if __name__ == "__main__":
    sys.exit(main(*(int(word) for word in sys.argv[1:])))
