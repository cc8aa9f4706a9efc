"""A server for a crew: nothing over plain HTTP, nobody else's eyes on its files, and a browser told what is allowed."""

import pytest

from tests.server.elsewhere import manage

CHECK = ("check", "--deploy", "--fail-level", "WARNING")


def test_nothing_is_found_wrong_with_a_server_as_it_comes(tmp_path):
    answer = manage(tmp_path / "data", *CHECK)
    assert answer.returncode == 0, answer.stderr
    assert (tmp_path / "data").stat().st_mode & 0o077 == 0
    assert (tmp_path / "data" / "secret-key").stat().st_mode & 0o077 == 0


def test_plain_http_and_a_folder_open_to_others_are_found(tmp_path):
    answer = manage(tmp_path, *CHECK, PLAIN_HTTP="1")
    assert answer.returncode != 0
    assert "security.W008" in answer.stderr
    tmp_path.chmod(0o755)
    assert "base.W001" in manage(tmp_path, *CHECK).stderr


@pytest.fixture
def over_https_alone(settings):
    settings.SECURE_SSL_REDIRECT = True
    settings.SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https")


def test_plain_http_is_sent_to_https_but_for_who_watches(over_https_alone, client, db):
    answer = client.get("/today")
    assert (answer.status_code, answer["Location"]) == (301, "https://testserver/today")
    assert client.get("/healthz").status_code == 200
    assert client.get("/api/session", headers={"X-Forwarded-Proto": "https"}).status_code == 401


def test_a_browser_is_told_what_pages_and_data_may_do(client, db, anna):
    page, data = client.get("/today"), anna.get("/session")
    for answer in (page, data, client.get("/healthz")):
        assert "geolocation=()" in answer["Permissions-Policy"]
    assert "default-src 'self'" in page["Content-Security-Policy"] or page.status_code == 503
    assert data["Content-Security-Policy"] == "default-src 'none'; frame-ancestors 'none'"
    assert data["X-Content-Type-Options"] == "nosniff"
