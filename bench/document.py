"""Twenty thousand requests over the server's whole document, signed in, on real ids. Exit 1 where the server failed."""

import os
import shutil
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

import requests

from bench.asking import Asked, ask_all
from bench.serving import Server, demo_server

REQUESTS, PORT = 20_000, 8132
TIMES = 16
"""How often an operation is asked before the record is the demo's again, which would be mostly nonsense soon."""
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


@contextmanager
def as_it_is_now(server: Server) -> Iterator[None]:
    """Whatever is written meanwhile is gone in the end."""
    from django.db import connections

    kept = server.data.with_name(server.data.name + "-kept")
    server.stop()
    shutil.copytree(server.data, kept)
    server.start()
    try:
        yield
    finally:
        server.stop()
        connections.close_all()
        shutil.rmtree(server.data)
        kept.rename(server.data)
        server.start()


def _signed_in(name: str = "demo") -> dict[str, str]:
    """Somebody's cookies, without asking the server, which slows down whoever signs in from here with made up names."""
    from django.contrib.auth import get_user_model
    from django.test import Client

    keeper_again(name)
    client = Client()
    client.force_login(get_user_model().objects.get(username=name))
    return {"sessionid": client.cookies["sessionid"].value, "csrftoken": "c" * 32}


def _ask(server: Server, document: dict[str, Any], dice: int) -> Asked:
    line, cookies = requests.Session(), _signed_in()

    def sent(request: requests.PreparedRequest) -> requests.Response:
        request.url = server.address + request.path_url
        request.headers["Cookie"] = "; ".join(f"{name}={value}" for name, value in cookies.items())
        request.headers["X-CSRFToken"] = cookies["csrftoken"]
        return line.send(request, timeout=120)

    def send(request: requests.PreparedRequest) -> tuple[int, str, bytes]:
        answer = sent(request)
        if answer.status_code in (401, 403):
            cookies.update(_signed_in())
            answer = sent(request)
        return answer.status_code, answer.headers.get("Content-Type", ""), answer.content

    return ask_all(document, ids_on_record(), send, TIMES, dice)


def main(wanted: int = REQUESTS, first: int = 0, port: int = PORT) -> int:
    """`first`: another throw of the dice."""
    with demo_server(port) as server:
        os.environ |= {"EVENPROBE_DATA": str(server.data), "DJANGO_SETTINGS_MODULE": "project.settings"}
        sys.path.insert(0, "server")
        import django

        django.setup()
        from project.api import api

        document = dict(api.get_openapi_schema())
        operations = sum(len(path) for path in document["paths"].values())
        asked, rounds = Asked(), -(-wanted // (operations * TIMES))
        for number in range(rounds):
            with as_it_is_now(server):
                asked += _ask(server, document, first + number)
    statuses = ", ".join(f"{status} {times}" for status, times in sorted(asked.statuses.items()))
    print(f"requests {asked.requests} over {operations} operations: {statuses}; failed {len(asked.failed)}")
    for label, status, told, answer in asked.failed[:20]:
        print(f"  {label} {status}: {told}\n    {answer}")
    return bool(asked.failed) or asked.requests < wanted


if __name__ == "__main__":
    sys.exit(main(*(int(word) for word in sys.argv[1:])))
