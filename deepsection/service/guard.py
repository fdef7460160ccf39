"""Nobody else's page: who may ask, and what every answer carries.

A page of another origin can make a browser send requests to a service on this machine. It must not read anything
(a name that is made to point here, "DNS rebinding"), and not change anything (forms and plain posts need no leave).
Source: Fetch standard (Origin, Sec-Fetch-Site), RFC 9110 (Host), CSP Level 3, all from memory.
"""

from __future__ import annotations

import os
from collections.abc import Iterable
from urllib.parse import urlsplit

from starlette.requests import Request

HEADERS = {
    "X-Content-Type-Options": "nosniff",
    "X-Frame-Options": "DENY",
    "Referrer-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
    "Content-Security-Policy": (
        "default-src 'self'; img-src 'self' data:; font-src 'self' data:; style-src 'self' 'unsafe-inline'; "
        "base-uri 'none'; object-src 'none'; form-action 'self'; frame-ancestors 'none'"
    ),
}
"""What every answer carries, errors included."""
OWN_NAMES = ("127.0.0.1", "localhost", "::1")
"""Names that always mean this machine."""
OWN = ("same-origin", "none")
"""What Sec-Fetch-Site says of our own page, and of an address that somebody typed."""


def known_names(more: Iterable[str] = ()) -> frozenset[str]:
    """The names that the service is known by: this machine's own, those given, those of DEEPSECTION_HOSTS."""
    named = (*OWN_NAMES, *more, *os.environ.get("DEEPSECTION_HOSTS", "").split(","))
    return frozenset(name.strip().casefold() for name in named if name.strip())


def fault_of(request: Request, names: frozenset[str]) -> str | None:
    """Why a request is not answered; None when it is."""
    host = request.headers.get("host", "")
    if _name_of(host) not in names:
        return (
            f"this service is not known by the name “{host[:80]}”; open it by the address that it printed, or name "
            "this one in DEEPSECTION_HOSTS"
        )
    if request.url.path.startswith("/api/") and request.headers.get("sec-fetch-site", "none") not in OWN:
        return "a page of another address asked for this; open the application itself"
    if request.method not in ("GET", "HEAD", "OPTIONS"):
        origin = request.headers.get("origin")
        if origin is not None and (origin == "null" or urlsplit(origin).netloc.casefold() != host.casefold()):
            return "a page of another address tried to change something here; nothing was changed"
    return None


def _name_of(host: str) -> str:
    """The name in a Host header, without its port; empty when it is none."""
    try:
        return (urlsplit(f"//{host}").hostname or "").casefold()
    except ValueError:
        return ""
