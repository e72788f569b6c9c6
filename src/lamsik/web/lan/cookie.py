"""The session's cookie: over TLS it is `Secure` and bound to this very host and port's name (`__Host-`),
on the shop's own machine it is plain.
"""

from flask import Flask, Response, request
from flask.sessions import SecureCookieSessionInterface, SessionMixin

from lamsik.web.lan.pipe import MARK


class Cookie(SecureCookieSessionInterface):
    """One name for each way in: a plain cookie is never taken for a sealed one."""

    def get_cookie_name(self, app: Flask) -> str:
        """`__Host-` in front where the way is encrypted."""
        name = super().get_cookie_name(app)
        return f"__Host-{name}" if request.is_secure else name

    def get_cookie_secure(self, app: Flask) -> bool:
        """Only ever sent encrypted, where it was set so."""
        return request.is_secure

    def save_session(self, app: Flask, session: SessionMixin, response: Response) -> None:
        """None is set on the way to trusting the certificate: anyone could read it there."""
        if request.is_secure or not request.environ.get(MARK):
            super().save_session(app, session, response)
