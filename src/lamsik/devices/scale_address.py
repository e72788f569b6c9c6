"""Where a scale may be: a serial port that is plugged in, this machine's own loopback, or a private
address the shop has named.
"""

import ipaddress
import re
from collections.abc import Iterable
from pathlib import Path

from serial.tools import list_ports

from lamsik.core.errors import Refused

_SOCKET = re.compile(r"^socket://(?P<host>\[[0-9A-Fa-f:]{2,45}\]|[0-9.]{7,15}|localhost):(?P<port>\d{1,5})$")
MOST_HOSTS = 8


def serial_ports() -> list[str]:
    """The serial ports that are there now, as the system names them."""
    return sorted(str(port.device) for port in list_ports.comports())


def is_socket(url: str) -> bool:
    """Whether it is an address and no serial port."""
    return url.startswith("socket:")


def check(url: str, hosts: Iterable[str] = ()) -> None:
    """Refuse what no scale can be at; other schemes of the library could open files, other addresses could be
    anybody's.

    Args:
        url: a serial port, or `socket://address:port`.
        hosts: the private addresses that the shop has named for its scales.

    Raises:
        Refused: neither a port that is plugged in nor an address that is allowed.
    """
    if is_socket(url):
        address = _SOCKET.match(url)
        if address is None or not 0 < int(address["port"]) < 65536:
            raise Refused("address", url[:60], "socket://address:port, the address in digits")
        host = address["host"].strip("[]")
        if (
            host != "localhost"
            and not ipaddress_of(host).is_loopback
            and host not in {str(ipaddress_of(name)) for name in hosts}
        ):
            raise Refused(
                "address",
                host,
                "one that is named for the shop's scales: name it on the shop's own machine, under Connect a"
                " scale",
            )
        return
    there = serial_ports()
    if str(Path(url).resolve()) not in {str(Path(name).resolve()) for name in there} and url not in there:
        raise Refused(
            "port",
            url[:60],
            f"a serial port that is plugged in ({', '.join(there[:6]) or 'none is, now'}), or"
            " socket://address:port",
        )


def ipaddress_of(text: str) -> ipaddress.IPv4Address | ipaddress.IPv6Address:
    """An address typed in digits.

    Raises:
        Refused: it is none.
    """
    try:
        return ipaddress.ip_address(text)
    except ValueError as error:
        raise Refused("address", text[:45], "an address in digits, such as 192.168.1.20") from error


def named(text: str) -> list[str]:
    """The private addresses in a typed list.

    Raises:
        Refused: one is no address, or not a private one; too many.
    """
    addresses = [ipaddress_of(word) for word in re.split(r"[,;\s]+", text.strip()) if word]
    wrong = next(
        (
            address
            for address in addresses
            if not address.is_private or address.is_unspecified or address.is_multicast
        ),
        None,
    )
    if wrong is not None:
        raise Refused("address", str(wrong), "a private one of the shop's own network")
    if len(addresses) > MOST_HOSTS:
        raise Refused("addresses", len(addresses), f"{MOST_HOSTS} at most")
    return [str(address) for address in addresses]
