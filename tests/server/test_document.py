"""Every operation of the document with what it allows and what it forbids, on real ids: no failure of the server."""

from bench.asking import ask_all
from bench.document import ids_on_record, keeper_again
from django.contrib.auth import get_user_model

from project.api import api

TIMES = 3


def test_whatever_is_asked_the_server_never_fails(anna, recorded):
    anna.client.raise_request_exception = False
    user = get_user_model().objects.get(pk=anna.client.session["_auth_user_id"])

    def send(request):
        kind = request.headers.get("Content-Type", "application/json")
        answer = anna.client.generic(
            request.method, request.path_url, request.body or b"", content_type=kind, headers={"host": "localhost"}
        )
        if answer.status_code in (401, 403):
            keeper_again(user.username)
            anna.client.force_login(user)
        content = b"".join(answer.streaming_content) if answer.streaming else answer.content
        return answer.status_code, answer.get("Content-Type", ""), content

    asked = ask_all(api.get_openapi_schema(), ids_on_record(), send, TIMES)
    assert asked.failed == []
    assert asked.requests > TIMES * 100
    assert asked.statuses[200] > asked.requests // 4, "it is asked for things that are there"
