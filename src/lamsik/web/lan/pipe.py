"""The encrypted pipe before the server: tablets speak TLS to it, it speaks plain HTTP to a listener that
serves nobody else.

A handshake that never ends holds a task of an event loop and no thread of the server. Plain HTTP is let
through too, marked as
such: the application answers it with how to trust the certificate, and nothing else.
"""

import asyncio
import contextlib
import logging
import socket
import ssl
import threading
from collections import Counter
from collections.abc import Callable, Iterable
from pathlib import Path
from typing import Any

log = logging.getLogger("lamsik")

HANDSHAKE_S, FIRST_BYTE_S, GOODBYE_S, CHUNK = 10.0, 10.0, 2.0, 64 * 1024
MOST, MOST_EACH = 90, 24
"""Connections at a time, in all (the server holds a hundred) and of one tablet: a browser opens six."""

TLS_HELLO = b"\x16"
"""The first byte of a TLS record that begins a handshake (RFC 8446, 5.1)."""

MARK = "lamsik.tablet"
"""Set in the environment of every request that came through the pipe."""

Environ = dict[str, Any]
Application = Callable[[Environ, Callable[..., Any]], Iterable[bytes]]


class Pipe:
    """Listens on `listener`, hands on to the server at `inner`, a loopback address of its own."""

    def __init__(self, listener: socket.socket, inner: tuple[str, int], chain: Path) -> None:
        self.callers: dict[int, tuple[str, str]] = {}
        """Who is behind each connection to the server: by its port there, the tablet's address and its
        scheme.
        """
        self._listener, self._inner, self._open = listener, inner, Counter[str]()
        self._tls = ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER)
        self._tls.minimum_version = ssl.TLSVersion.TLSv1_2
        self._tls.load_cert_chain(chain)
        listener.setblocking(False)
        listener.listen(64)

    def start(self) -> None:
        """Serve on a thread of its own until the process ends."""
        threading.Thread(target=lambda: asyncio.run(self._serve()), name="lan", daemon=True).start()

    async def _serve(self) -> None:
        loop, tasks = asyncio.get_running_loop(), set[asyncio.Task[None]]()
        while True:
            try:
                sock, address = await loop.sock_accept(self._listener)
            except OSError as error:  # out of file handles for a moment, say
                log.warning("the network's door: %s", error)
                await asyncio.sleep(0.2)
                continue
            caller = str(address[0])
            if self._open.total() >= MOST or self._open[caller] >= MOST_EACH:
                sock.close()
                continue
            self._open[caller] += 1
            task = loop.create_task(self._guest(sock, caller))
            tasks.add(task)
            task.add_done_callback(tasks.discard)

    async def _guest(self, sock: socket.socket, address: str) -> None:
        try:
            first = await asyncio.wait_for(_first_byte(sock), FIRST_BYTE_S)
            if first:
                await self._joined(sock, address, first == TLS_HELLO)
        except (OSError, ssl.SSLError, TimeoutError, asyncio.IncompleteReadError) as error:
            log.debug("%s left: %s", address, error)
        finally:
            self._open[address] -= 1
            sock.close()

    async def _joined(self, sock: socket.socket, address: str, tls: bool) -> None:
        loop = asyncio.get_running_loop()
        reader = asyncio.StreamReader()
        protocol = asyncio.StreamReaderProtocol(reader)
        secured: dict[str, Any] = (
            {"ssl": self._tls, "ssl_handshake_timeout": HANDSHAKE_S, "ssl_shutdown_timeout": GOODBYE_S}
            if tls
            else {}
        )
        transport, _ = await loop.connect_accepted_socket(lambda: protocol, sock, **secured)
        writer = asyncio.StreamWriter(transport, protocol, reader, loop)
        inner = socket.socket()
        inner.setblocking(False)
        try:
            inner.bind((self._inner[0], 0))
            port = inner.getsockname()[1]
            self.callers[port] = (
                address,
                "https" if tls else "http",
            )  # before the server can see the connection
            await loop.sock_connect(inner, self._inner)
            there, back = await asyncio.open_connection(sock=inner)
            try:
                await asyncio.gather(_copy(reader, back), _copy(there, writer))
            finally:
                self.callers.pop(port, None)
                back.close()
        finally:
            inner.close()
            writer.close()
            with contextlib.suppress(OSError, ssl.SSLError):
                await writer.wait_closed()

    def behind(self, application: Application, inner_port: int) -> Application:
        """The application as the server calls it: who comes through the pipe is not from this machine,
        whatever the socket says.

        A stranger that reaches the inner listener past the pipe is nobody: it has no address, and must pair
        like anyone.
        """

        def told(environ: Environ, start: Callable[..., Any]) -> Iterable[bytes]:
            if environ.get("SERVER_PORT") == str(inner_port):
                address, scheme = self.callers.get(int(environ.get("REMOTE_PORT") or 0), ("", "http"))
                environ[MARK] = True
                environ["REMOTE_ADDR"], environ["wsgi.url_scheme"] = address, scheme
            return application(environ, start)

        return told


async def _first_byte(sock: socket.socket) -> bytes:
    """What comes first, left where it is."""
    loop, ready = asyncio.get_running_loop(), asyncio.Event()
    loop.add_reader(sock, ready.set)
    try:
        await ready.wait()
    finally:
        loop.remove_reader(sock)
    return sock.recv(1, socket.MSG_PEEK)


async def _copy(reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
    """Until one side has no more to say; then the other is told so."""
    try:
        while data := await reader.read(CHUNK):
            writer.write(data)
            await writer.drain()
    finally:
        if not writer.is_closing():
            with contextlib.suppress(OSError):
                writer.write_eof() if writer.can_write_eof() else writer.close()
