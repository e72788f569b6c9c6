"""The shop's own certificates: a root that a tablet trusts once, and the one the door shows, made anew when
addresses change.

The root may vouch for private addresses and this machine's names only (RFC 5280, 4.2.1.10), so that a tablet
which trusts it trusts nothing else by it.
"""

import ipaddress
import os
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

ROOT_LASTS = timedelta(days=3650)
LEAF_LASTS = timedelta(days=397)
"""Tablets refuse a server's certificate that lasts longer than some 13 months."""

RENEW_BEFORE = timedelta(days=60)
PRIVATE = (
    "10.0.0.0/8",
    "172.16.0.0/12",
    "192.168.0.0/16",
    "169.254.0.0/16",
    "127.0.0.0/8",
    "fc00::/7",
    "fe80::/10",
    "::1/128",
)
"""Networks that are nobody's but the shop's (RFC 1918, 3927, 4193)."""

Address = ipaddress.IPv4Address | ipaddress.IPv6Address


@dataclass(frozen=True)
class Certificate:
    """Where the door's certificate with its key lies (PEM, mode 0600), the root to be trusted (PEM text),
    its SHA-256 in pairs of digits.
    """

    chain: Path
    root_pem: bytes
    fingerprint: str


def certificate(folder: Path, names: Iterable[str], now: datetime | None = None) -> Certificate:
    """The shop's certificate for these host names and addresses, kept in `folder`; made where there is none
    or it no longer fits.

    A root is kept as long as it lasts and covers the names: what a tablet trusts once goes on.

    Raises:
        OSError: the folder cannot be written.
    """
    now = now or datetime.now(UTC)
    folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    hosts, addresses = _sorted(names)
    root_key, root = _read(folder / "root.pem")
    if (
        root is None
        or root_key is None
        or root.not_valid_after_utc - now < RENEW_BEFORE
        or not _covers(root, hosts, addresses)
    ):
        root_key, root = _root(hosts, addresses, now)
        _write(folder / "root.pem", root_key, root)
    leaf_key, leaf = _read(folder / "door.pem")
    alike = leaf is not None and leaf.issuer == root.subject and _names(leaf) == (hosts, addresses)
    if leaf is None or leaf_key is None or not alike or leaf.not_valid_after_utc - now < RENEW_BEFORE:
        leaf_key, leaf = _leaf(root_key, root, hosts, addresses, now)
        _write(folder / "door.pem", leaf_key, leaf)
    digits = root.fingerprint(hashes.SHA256()).hex().upper()
    return Certificate(
        folder / "door.pem",
        root.public_bytes(serialization.Encoding.PEM),
        " ".join(digits[k : k + 4] for k in range(0, 64, 4)),
    )


def _sorted(names: Iterable[str]) -> tuple[list[str], list[Address]]:
    """Host names and addresses apart, addresses outside the private networks as well: they are this
    machine's own.
    """
    hosts: set[str] = set()
    addresses: set[Address] = set()
    for name in names:
        try:
            addresses.add(ipaddress.ip_address(name.split("%")[0]))
        except ValueError:
            hosts.add(name.lower())
    return sorted(hosts), sorted(addresses, key=lambda address: (address.version, int(address)))


def _covers(root: x509.Certificate, hosts: list[str], addresses: list[Address]) -> bool:
    subtrees = root.extensions.get_extension_for_class(x509.NameConstraints).value.permitted_subtrees or []
    named = {str(entry.value) for entry in subtrees if isinstance(entry, x509.DNSName)}
    networks = [entry.value for entry in subtrees if isinstance(entry, x509.IPAddress)]
    let_in = [any(address in network for network in networks) for address in addresses]  # type: ignore[operator]
    return named >= set(hosts) and all(let_in)


def _names(leaf: x509.Certificate) -> tuple[list[str], list[Address]]:
    alternatives = leaf.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    return _sorted(
        [
            *alternatives.get_values_for_type(x509.DNSName),
            *map(str, alternatives.get_values_for_type(x509.IPAddress)),
        ]
    )


def _root(
    hosts: list[str], addresses: list[Address], now: datetime
) -> tuple[ec.EllipticCurvePrivateKey, x509.Certificate]:
    key = ec.generate_private_key(ec.SECP256R1())
    networks = [ipaddress.ip_network(text) for text in PRIVATE]
    networks += [
        ipaddress.ip_network(address)
        for address in addresses
        if not any(address in network for network in networks)
    ]
    permitted = [*map(x509.DNSName, hosts), *map(x509.IPAddress, networks)]
    name = x509.Name(
        [x509.NameAttribute(NameOID.COMMON_NAME, f"Lamsik shop {now:%Y-%m-%d} {os.urandom(2).hex()}")]
    )
    signed = (
        _begun(name, name, key.public_key(), now, ROOT_LASTS)
        .add_extension(x509.BasicConstraints(ca=True, path_length=0), critical=True)
        .add_extension(
            x509.KeyUsage(False, False, False, False, False, True, True, False, False), critical=True
        )
        .add_extension(x509.NameConstraints(permitted, None), critical=True)
        .add_extension(x509.SubjectKeyIdentifier.from_public_key(key.public_key()), critical=False)
        .sign(key, hashes.SHA256())
    )
    return key, signed


def _leaf(
    root_key: ec.EllipticCurvePrivateKey,
    root: x509.Certificate,
    hosts: list[str],
    addresses: list[Address],
    now: datetime,
) -> tuple[ec.EllipticCurvePrivateKey, x509.Certificate]:
    key = ec.generate_private_key(ec.SECP256R1())
    shown = hosts[0] if hosts else str(addresses[0])
    signed = (
        _begun(
            x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, shown[:64])]),
            root.subject,
            key.public_key(),
            now,
            LEAF_LASTS,
        )
        .add_extension(
            x509.SubjectAlternativeName([*map(x509.DNSName, hosts), *map(x509.IPAddress, addresses)]),
            critical=False,
        )
        .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
        .add_extension(
            x509.KeyUsage(True, False, False, False, False, False, False, False, False), critical=True
        )
        .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
        .add_extension(x509.SubjectKeyIdentifier.from_public_key(key.public_key()), critical=False)
        .add_extension(
            x509.AuthorityKeyIdentifier.from_issuer_public_key(root_key.public_key()), critical=False
        )
        .sign(root_key, hashes.SHA256())
    )
    return key, signed


def _begun(
    subject: x509.Name, issuer: x509.Name, key: ec.EllipticCurvePublicKey, now: datetime, lasts: timedelta
) -> x509.CertificateBuilder:
    day = timedelta(days=1)  # a tablet whose clock is a little behind
    return (
        x509.CertificateBuilder()
        .subject_name(subject)
        .issuer_name(issuer)
        .public_key(key)
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - day)
        .not_valid_after(now - day + lasts)
    )


def _read(path: Path) -> tuple[ec.EllipticCurvePrivateKey | None, x509.Certificate | None]:
    """Key and certificate of a file; nothing where it is missing, cut short or not ours."""
    try:
        text = path.read_bytes()
        key = serialization.load_pem_private_key(text, None)
        held = x509.load_pem_x509_certificate(text)
    except (OSError, ValueError):
        return None, None
    fits = isinstance(key, ec.EllipticCurvePrivateKey) and key.public_key() == held.public_key()
    return (key, held) if fits else (None, None)  # type: ignore[return-value]


def _write(path: Path, key: ec.EllipticCurvePrivateKey, signed: x509.Certificate) -> None:
    """Whole or not at all, for its owner's eyes only."""
    fresh = path.with_suffix(".new")
    fresh.unlink(missing_ok=True)
    text = key.private_bytes(
        serialization.Encoding.PEM, serialization.PrivateFormat.PKCS8, serialization.NoEncryption()
    )
    with os.fdopen(os.open(fresh, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "wb") as out:
        out.write(text + signed.public_bytes(serialization.Encoding.PEM))
    fresh.replace(path)
