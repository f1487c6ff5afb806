"""Who may ask: the name the page was called by, and which page a change comes from.

A hostile page in the same browser can send requests here, or have its own name point at this machine. So every request must
name a host this studio is served under, and every request that changes something must come from our own pages.
"""

from __future__ import annotations

import ipaddress
import json
import re
import secrets
from collections.abc import Collection
from urllib.parse import urlsplit

from flask import Flask, Response, g, request

__all__ = ["LOOPBACK_HOSTS", "content_security", "host_of", "page_nonce", "register_doors"]

LOOPBACK_HOSTS = frozenset({"127.0.0.1", "localhost", "::1"})
"""Names under which the studio is served on this machine alone."""
READING = frozenset({"GET", "HEAD", "OPTIONS"})
OUR_OWN = frozenset({"same-origin", "none"})
"""Values of Sec-Fetch-Site that a request of our own pages, or of no page at all, carries (W3C Fetch Metadata)."""
MISDIRECTED, FORBIDDEN = 421, 403


def register_doors(app: Flask, hosts: Collection[str], *, any_address: bool) -> None:
    """Refuse requests by a foreign name or from a foreign page, before anything else looks at them.

    OWASP ASVS 4.0.3: 13.2.3 (cross-site requests that change state), 14.5.3 (Origin), 14.4.6 and 14.4.7 (headers).
    """

    def refuse_strangers() -> Response | None:
        host = host_of(request.headers.get("Host", ""))
        if host is None or not (host in hosts or (any_address and _is_address(host))):
            return _refusal(
                MISDIRECTED, "foreign_host", "This studio does not answer under that name; use the address it printed."
            )
        site = request.headers.get("Sec-Fetch-Site")
        if request.method in READING:
            # A page of somebody else's may link here; it may not fetch or embed what is in the studio.
            if request.path.startswith("/api/") and site is not None and site not in OUR_OWN:
                return _refusal(FORBIDDEN, "foreign_page", "What is in the studio is asked for by its own pages alone.")
            return None
        origin = request.headers.get("Origin")
        foreign = (site is not None and site not in OUR_OWN) or (origin is not None and not _same_origin(origin))
        if foreign:
            return _refusal(FORBIDDEN, "foreign_page", "A change must come from the studio's own pages; nothing was changed.")
        return None

    app.before_request_funcs.setdefault(None, []).insert(0, refuse_strangers)


def page_nonce() -> str:
    """Return the nonce of this answer; styles that a library injects carry it."""
    if "nonce" not in g:
        g.nonce = secrets.token_urlsafe(16)
    return str(g.nonce)


def content_security() -> str:
    """Return the content security policy of this answer: everything from here, no inline scripts, styles by nonce alone."""
    return (
        f"default-src 'self'; script-src 'self'; style-src 'self' 'nonce-{page_nonce()}'; img-src 'self' data: blob:; "
        "font-src 'self'; connect-src 'self'; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"
    )


HOST = re.compile(
    r"(?P<host>\[(?P<six>[0-9a-fA-F:.]{2,45})\]|(?=[^:]{1,253}(?::|$))[A-Za-z0-9](?:[A-Za-z0-9-]{0,62})(?:\.[A-Za-z0-9-]{1,63})*)"
    r"(?::(?P<port>[0-9]{1,5}))?"
)
"""A host and its port (RFC 3986, 3.2.2 and 3.2.3), as far as a studio is served under such: no user, no path, no zone."""
HIGHEST_PORT = 65_535


def host_of(header: str) -> str | None:
    """Return the host a request names, in small letters, an IPv6 address without its brackets; None where it names none."""
    found = HOST.fullmatch(header)
    if found is None or not 0 < int(found["port"] or 1) <= HIGHEST_PORT:
        return None
    if found["six"] is None:
        return found["host"].lower()
    return found["six"].lower() if ":" in found["six"] and _is_address(found["six"]) else None


def _is_address(host: str) -> bool:
    try:
        ipaddress.ip_address(host)
    except ValueError:
        return False
    return True


def _same_origin(origin: str) -> bool:
    try:
        parts = urlsplit(origin)
    except ValueError:
        return False
    return parts.scheme in {"http", "https"} and parts.netloc.lower() == request.headers.get("Host", "").lower()


def _refusal(status: int, code: str, message: str) -> Response:
    body = json.dumps({"code": code, "message": message, "details": {}})
    return Response(body, status=status, mimetype="application/json")
