"""How a tablet comes to trust the shop's certificate; open to tablets that are not let in yet."""

import ssl

from flask import Blueprint, Response, abort, current_app, render_template, request

from lamsik.web.lan.certificate import Certificate

blueprint = Blueprint("trust", __name__, url_prefix="/trust")


@blueprint.get("/")
def page() -> str:
    """What to do on the tablet, with the fingerprint to be compared."""
    return render_template(
        "shared/trust.html",
        fingerprint=_certificate().fingerprint,
        sealed_url=f"https://{request.host}/",
        sealed_here=request.is_secure,
    )


@blueprint.get("/lamsik-shop.crt")
def root() -> Response:
    """The root certificate (DER, RFC 5280): what a tablet installs."""
    der = ssl.PEM_cert_to_DER_cert(_certificate().root_pem.decode("ascii"))
    return Response(
        der,
        mimetype="application/x-x509-ca-cert",
        headers={"Content-Disposition": "attachment; filename=lamsik-shop.crt"},
    )


def _certificate() -> Certificate:
    certificate: Certificate | None = current_app.config["CERTIFICATE"]
    if certificate is None:
        abort(404)
    return certificate
