"""From a phone: a certificate made on the spot, the way to trust it, and what is said over a name that is not known."""

import ssl
import stat

import pytest
from cryptography import x509

from base.lan import address_here, certificate

NAMES = ["192.0.2.7", "probe.local", "localhost"]


def test_a_certificate_is_for_the_names_of_the_day_and_its_authority_stays(tmp_path):
    first = certificate(tmp_path, NAMES)
    authority = first.authority.read_bytes()
    again = certificate(tmp_path, [*NAMES, "192.0.2.8"])
    assert again.authority.read_bytes() == authority, "a phone trusts it once"
    shown = x509.load_pem_x509_certificate(again.chain.read_bytes())
    names = shown.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    assert [str(name.value) for name in names] == [*NAMES, "192.0.2.8"]
    assert (shown.not_valid_after_utc - shown.not_valid_before_utc).days < 398, "phones refuse what is valid longer"
    ssl.create_default_context(cafile=again.authority).load_verify_locations(again.authority)
    ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER).load_cert_chain(again.chain, again.key)


def test_what_is_secret_is_its_owner_s_alone(tmp_path):
    certificate(tmp_path, NAMES)
    for secret in ("server.key", "authority.key"):
        assert stat.S_IMODE((tmp_path / secret).stat().st_mode) == 0o600


def test_an_address_is_one_or_none():
    found = address_here()
    assert found is None or found.count(".") == 3


def test_a_phone_gets_what_it_is_to_trust_where_there_is_one(client, settings, tmp_path):
    settings.DATA_DIR = tmp_path
    assert client.get("/trust.crt").status_code == 404
    made = certificate(tmp_path / "lan", NAMES)
    answer = client.get("/trust.crt")
    assert answer["Content-Type"] == "application/x-x509-ca-cert"
    assert b"".join(answer.streaming_content) == made.authority.read_bytes()


@pytest.mark.parametrize("host", ["probe.example", "192.0.2.9:8000"])
def test_a_name_that_is_not_known_is_told_what_to_do(client, host):
    answer = client.get("/", HTTP_HOST=host)
    assert answer.status_code == 400
    assert host in answer.content.decode()
    assert "make lan" in answer.content.decode()


def test_the_page_a_worker_keeps_has_the_policy_of_the_page(client):
    from project.pages import with_page_policy

    kept: dict[str, str] = {}
    with_page_policy(kept, "", "/index.html")
    assert kept["Content-Security-Policy"] == client.get("/")["Content-Security-Policy"]
    hashed: dict[str, str] = {}
    with_page_policy(hashed, "", "/assets/index-abcdefgh.js")
    assert hashed == {}
