"""The shop's certificate, held against the TLS library that a tablet's browser would use: whom it vouches
for, how long, when it is made anew.
"""

import ssl
from datetime import UTC, datetime, timedelta

import pytest
from cryptography import x509

from lamsik.web.lan import certificate as made

NAMES = ("bench", "bench.local", "localhost", "127.0.0.1", "::1", "192.168.7.2")


@pytest.fixture
def folder(tmp_path):
    return tmp_path / "door"


def shakes_hands(chain, root_pem: bytes, name: str) -> bool:
    """Whether a client that trusts the root accepts the chain for that name."""
    server = ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER)
    server.load_cert_chain(chain)
    client = ssl.create_default_context(cadata=root_pem.decode())
    there, back = ssl.MemoryBIO(), ssl.MemoryBIO()
    ends = client.wrap_bio(there, back, server_hostname=name), server.wrap_bio(back, there, server_side=True)
    done = [False, False]
    for _ in range(10):
        for k, end in enumerate(ends):
            try:
                end.do_handshake()
                done[k] = True
            except ssl.SSLWantReadError:
                pass
            except ssl.SSLCertVerificationError:
                return False
    return all(done)


@pytest.mark.parametrize("name", NAMES)
def test_a_tablet_that_trusts_the_root_is_satisfied_with_every_name_of_the_shop(folder, name):
    found = made.certificate(folder, NAMES)
    assert shakes_hands(found.chain, found.root_pem, name)


@pytest.mark.parametrize("name", ["bank.example", "192.168.7.3", "other.local"])
def test_no_other_name_is_vouched_for(folder, name):
    found = made.certificate(folder, NAMES)
    assert not shakes_hands(found.chain, found.root_pem, name)


@pytest.mark.parametrize("name", ["bank.example", "93.184.216.34"])
def test_its_key_in_wrong_hands_vouches_for_nothing_on_the_internet(folder, name):
    root_pem = made.certificate(folder, NAMES).root_pem
    key, root = made._read(folder / "root.pem")
    made._write(folder / "forged.pem", *made._leaf(key, root, *made._sorted([name]), datetime.now(UTC)))
    assert not shakes_hands(folder / "forged.pem", root_pem, name)
    made._write(
        folder / "honest.pem", *made._leaf(key, root, *made._sorted(["bench.local"]), datetime.now(UTC))
    )
    assert shakes_hands(folder / "honest.pem", root_pem, "bench.local")


def test_what_is_trusted_once_goes_on(folder):
    first = made.certificate(folder, NAMES)
    text = first.chain.read_bytes()
    assert made.certificate(folder, NAMES) == first and first.chain.read_bytes() == text
    moved = made.certificate(folder, [*NAMES[:-1], "10.1.2.3"])
    assert moved.fingerprint == first.fingerprint and shakes_hands(moved.chain, first.root_pem, "10.1.2.3")
    later = made.certificate(folder, NAMES, datetime.now(UTC) + timedelta(days=350))
    assert later.fingerprint == first.fingerprint and later.chain.read_bytes() != text
    assert (
        made.certificate(folder, [*NAMES, "other.local"]).fingerprint != first.fingerprint
    )  # a name the root may not vouch for


def test_a_tablet_takes_its_term(folder):
    """Servers' certificates of more than 398 days are refused by tablets."""
    leaf = x509.load_pem_x509_certificate(made.certificate(folder, NAMES).chain.read_bytes())
    assert leaf.not_valid_after_utc - leaf.not_valid_before_utc < timedelta(days=398)
    assert leaf.not_valid_before_utc < datetime.now(UTC) - timedelta(hours=12)


@pytest.mark.parametrize("name", ["root.pem", "door.pem"])
@pytest.mark.parametrize("held", [b"", b"-----BEGIN", b"\0" * 4000])
def test_what_a_power_cut_left_is_made_anew(folder, name, held):
    made.certificate(folder, NAMES)
    (folder / name).write_bytes(held)
    found = made.certificate(folder, NAMES)
    assert shakes_hands(found.chain, found.root_pem, "bench")


def test_keys_are_for_their_owners_eyes_only(folder):
    made.certificate(folder, NAMES)
    assert folder.stat().st_mode & 0o77 == 0
    assert all(path.stat().st_mode & 0o77 == 0 for path in folder.iterdir())
