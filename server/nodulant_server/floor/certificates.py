"""An authority of the shop's own and a certificate for the server's present addresses, made on this machine.

RFC 5280 for the fields; 397 days is the longest that browsers take for a server (CA/Browser Forum's baseline
requirements, from memory). The authority may only sign for private addresses, so that trusting it risks little.
"""

import ipaddress
import socket
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

import psutil
from cryptography import x509
from cryptography.hazmat.primitives import hashes
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.hazmat.primitives.serialization import (
    Encoding,
    NoEncryption,
    PrivateFormat,
    load_pem_private_key,
)
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

LEAF, AUTHORITY = timedelta(days=396), timedelta(days=10 * 365)
RENEWED = timedelta(days=30)
"""A certificate that ends within this time is made anew at start."""
PRIVATE = tuple(
    ipaddress.ip_network(net)
    for net in (
        "10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16", "100.64.0.0/10", "127.0.0.0/8",
        "fc00::/7", "fe80::/10",
    )
)  # fmt: skip
"""RFC 1918, 3927, 6598 and 4193: what is reached inside a building or through its tunnel."""
LOOPBACK = ("127.0.0.1",)
Address = ipaddress.IPv4Address | ipaddress.IPv6Address


@dataclass(frozen=True)
class Certificates:
    """Files of a served shop, and what they are for."""

    authority: Path
    certificate: Path
    key: Path
    addresses: tuple[str, ...]
    renewed: bool
    """Whether the certificate was made just now."""


def own_addresses() -> tuple[str, ...]:
    """The machine's private IPv4 addresses, the loopback's last."""
    rows = (a.address for links in psutil.net_if_addrs().values() for a in links if a.family == socket.AF_INET)
    found = sorted({a for a in rows if inside(a) and a not in LOOPBACK})
    return (*found, *LOOPBACK)


def inside(address: str) -> bool:
    """Whether the shop's authority may vouch for an address."""
    try:
        own = ipaddress.ip_address(address)
    except ValueError:
        return False
    return any(own in net for net in PRIVATE)


def certificates(folder: Path, addresses: Sequence[str], now: datetime | None = None) -> Certificates:
    """The shop's certificates, made or renewed where they are missing, run out or name other addresses."""
    at = now or datetime.now(UTC)
    folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    authority_key, authority = _kept(folder, "authority")
    if authority is None or authority_key is None or authority.not_valid_after_utc - at < LEAF:
        authority_key, authority = _authority(at)
        _keep(folder, "authority", authority_key, authority)
    key, leaf = _kept(folder, "server")
    renewed = key is None or leaf is None or not _still_good(leaf, authority, addresses, at)
    if renewed:
        key, leaf = _leaf(authority_key, authority, addresses, at)
        _keep(folder, "server", key, leaf, chain=authority)
    return Certificates(
        folder / "authority.crt", folder / "server.crt", folder / "server.key", tuple(addresses), renewed
    )


def _still_good(leaf: x509.Certificate, authority: x509.Certificate, addresses: Sequence[str], at: datetime) -> bool:
    names = leaf.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    covered = {str(a) for a in names.get_values_for_type(x509.IPAddress)}
    ours = leaf.issuer == authority.subject and leaf.not_valid_before_utc >= authority.not_valid_before_utc
    return ours and covered == set(addresses) and leaf.not_valid_after_utc - at > RENEWED


def _authority(at: datetime) -> tuple[ec.EllipticCurvePrivateKey, x509.Certificate]:
    key = ec.generate_private_key(ec.SECP256R1())
    name = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, f"Nodulant in this shop, {at:%Y-%m-%d %H:%M:%S}")])
    allowed: list[x509.GeneralName] = [x509.IPAddress(net) for net in PRIVATE]
    allowed += [x509.DNSName("local"), x509.DNSName("localhost")]
    built = (
        _begun(name, name, key, at, AUTHORITY)
        .add_extension(x509.BasicConstraints(ca=True, path_length=0), critical=True)
        .add_extension(_usage(signs=True), critical=True)
        .add_extension(x509.NameConstraints(permitted_subtrees=allowed, excluded_subtrees=None), critical=True)
        .add_extension(x509.SubjectKeyIdentifier.from_public_key(key.public_key()), critical=False)
    )
    return key, built.sign(key, hashes.SHA256())


def _leaf(
    authority_key: ec.EllipticCurvePrivateKey, authority: x509.Certificate, addresses: Sequence[str], at: datetime
) -> tuple[ec.EllipticCurvePrivateKey, x509.Certificate]:
    key = ec.generate_private_key(ec.SECP256R1())
    name = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, "Nodulant")])
    names: list[x509.GeneralName] = [x509.IPAddress(ipaddress.ip_address(a)) for a in addresses]
    names.append(x509.DNSName("localhost"))
    issuer = authority.extensions.get_extension_for_class(x509.SubjectKeyIdentifier).value
    built = (
        _begun(name, authority.subject, key, at, LEAF)
        .add_extension(x509.SubjectAlternativeName(names), critical=False)
        .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
        .add_extension(_usage(signs=False), critical=True)
        .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
        .add_extension(x509.AuthorityKeyIdentifier.from_issuer_subject_key_identifier(issuer), critical=False)
    )
    return key, built.sign(authority_key, hashes.SHA256())


def _begun(
    subject: x509.Name, issuer: x509.Name, key: ec.EllipticCurvePrivateKey, at: datetime, lasts: timedelta
) -> x509.CertificateBuilder:
    return (
        x509.CertificateBuilder()
        .subject_name(subject)
        .issuer_name(issuer)
        .public_key(key.public_key())
        .serial_number(x509.random_serial_number())
        .not_valid_before(at)
        .not_valid_after(at + lasts)
    )


def _usage(signs: bool) -> x509.KeyUsage:
    return x509.KeyUsage(
        digital_signature=not signs,
        content_commitment=False,
        key_encipherment=False,
        data_encipherment=False,
        key_agreement=False,
        key_cert_sign=signs,
        crl_sign=signs,
        encipher_only=False,
        decipher_only=False,
    )


def _kept(folder: Path, name: str) -> tuple[ec.EllipticCurvePrivateKey | None, x509.Certificate | None]:
    try:
        key = load_pem_private_key((folder / f"{name}.key").read_bytes(), password=None)
        certificate = x509.load_pem_x509_certificate((folder / f"{name}.crt").read_bytes())
    except (OSError, ValueError):
        return None, None
    return (key, certificate) if isinstance(key, ec.EllipticCurvePrivateKey) else (None, None)


def _keep(
    folder: Path,
    name: str,
    key: ec.EllipticCurvePrivateKey,
    certificate: x509.Certificate,
    chain: x509.Certificate | None = None,
) -> None:
    private = folder / f"{name}.key"
    private.touch(mode=0o600)
    private.write_bytes(key.private_bytes(Encoding.PEM, PrivateFormat.PKCS8, NoEncryption()))
    rows = [certificate, *([chain] if chain else [])]
    (folder / f"{name}.crt").write_bytes(b"".join(c.public_bytes(Encoding.PEM) for c in rows))
