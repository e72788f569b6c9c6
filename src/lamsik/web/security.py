"""What keeps strangers out: loopback by default, a Host check, pairing of tablets, headers, limits."""

import secrets
import socket
from pathlib import Path
from typing import Any

from flask import Flask, Response, abort, current_app, redirect, request, session, url_for
from flask.typing import ResponseReturnValue

from lamsik.web.lan import pairing, trust
from lamsik.web.lan.certificate import Certificate
from lamsik.web.lan.cookie import Cookie
from lamsik.web.lan.pipe import MARK

CONTENT_SECURITY_POLICY = (
    "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; font-src 'self'; "
    "connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'"
)
MOST_UPLOAD = 2 * 1024 * 1024
MOST_SHAPE = 112 * 1000 * 1000
ROOMY = (
    "shapes_bring.drawing",
    "shapes_bring.photo_in",
    "shapes_bring.mesh_in",
    "paints_photo.read",
    "photos.bring",
)
"""Endpoints that take photos and meshes."""
SECRET_LENGTH = 32
UNSEALED_ENDPOINTS = ("static", "trust.page", "trust.root", "health.healthz")
"""What a tablet may ask for in plain HTTP where the door is encrypted: how to trust it."""

OPEN_ENDPOINTS = (*UNSEALED_ENDPOINTS, "pairing.pair")


def settings(home: Path, lan: bool, port: int, certificate: Certificate | None) -> dict[str, Any]:
    """Flask's configuration for a shop in `home`."""
    home.mkdir(parents=True, exist_ok=True)
    return {
        "HOME": home,
        "LAN": lan,
        "CERTIFICATE": certificate,
        "DOORS": [],
        "SECRET_KEY": _secret(home / "secret.key"),
        "PAIRING_CODE": f"{secrets.randbelow(10**6):06d}",
        "ALLOWED_HOSTS": hosts(lan),
        "SESSION_COOKIE_NAME": f"lamsik_{port}",
        "SESSION_COOKIE_HTTPONLY": True,
        "SESSION_COOKIE_SAMESITE": "Lax",
        "MAX_CONTENT_LENGTH": MOST_UPLOAD,
        "MAX_FORM_MEMORY_SIZE": MOST_UPLOAD,
        "WTF_CSRF_TIME_LIMIT": None,
    }


def _secret(path: Path) -> str:
    """The key that signs the cookies; written whole or not at all, and anew where a power cut left it
    empty.
    """
    if not path.exists() or len(path.read_text(encoding="ascii").strip()) < SECRET_LENGTH:
        fresh = path.with_suffix(".new")
        fresh.unlink(missing_ok=True)
        fresh.touch(mode=0o600)
        fresh.write_text(secrets.token_hex(32), encoding="ascii")
        fresh.replace(path)
    return path.read_text(encoding="ascii").strip()


def hosts(lan: bool) -> frozenset[str]:
    """The names and addresses this machine answers to."""
    own = set(pairing.LOOPBACK_NAMES)
    if lan:
        own |= {socket.gethostname(), f"{socket.gethostname()}.local", *lan_addresses()}
    return frozenset(name.lower() for name in own)


def lan_addresses() -> list[str]:
    """This machine's own addresses, as tablets would reach them."""
    try:
        addresses = {str(row[4][0]) for row in socket.getaddrinfo(socket.gethostname(), None)}
    except OSError:
        addresses = set()
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        try:
            probe.connect(("192.0.2.1", 9))  # a documentation address: nothing is sent
            addresses.add(probe.getsockname()[0])
        except OSError:
            pass
    return sorted(address for address in addresses if not address.startswith("127."))


def make_room(app: Flask) -> None:
    """Let photos and meshes be larger than anything else; asked before any form is read."""

    @app.before_request
    def _larger() -> None:
        if request.endpoint in ROOMY:
            request.max_content_length = MOST_SHAPE


def install(app: Flask) -> None:
    """Put the checks before every request and the headers after it."""
    app.extensions["pairings"] = pairing.Pairings(app.config["HOME"])
    app.register_blueprint(pairing.blueprint)
    app.register_blueprint(trust.blueprint)
    app.session_interface = Cookie()
    app.before_request(_check_host)
    app.before_request(_check_sealed)
    app.before_request(_check_paired)
    app.after_request(_headers)


def _check_host() -> None:
    name = pairing.host_name()
    if name not in current_app.config["ALLOWED_HOSTS"]:
        abort(
            400,
            f"This shop does not answer to the name {name!r}. Open it by the address that was printed when it"
            " started.",
        )


def _check_sealed() -> ResponseReturnValue | None:
    """Where the door is encrypted, plain HTTP is told how to trust it, and nothing else."""
    if not request.environ.get(MARK) or request.is_secure or request.endpoint in UNSEALED_ENDPOINTS:
        return None
    return redirect(url_for("trust.page"))


def _check_paired() -> ResponseReturnValue | None:
    if (
        pairing.is_local()
        or request.endpoint in OPEN_ENDPOINTS
        or pairing.known().holds(session.get("paired"))
    ):
        return None
    if not current_app.config["LAN"]:
        abort(403, "This shop is open on its own machine only. Start it with --lan to let tablets in.")
    return redirect(url_for("pairing.pair"))


def _headers(response: Response) -> Response:
    response.headers["Content-Security-Policy"] = CONTENT_SECURITY_POLICY
    response.headers["X-Content-Type-Options"] = "nosniff"
    response.headers["Referrer-Policy"] = "same-origin"
    response.headers["Cross-Origin-Opener-Policy"] = "same-origin"
    return response
