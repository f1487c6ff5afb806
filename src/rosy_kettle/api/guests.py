"""Who may come in over the network: paired devices, each by its role. The studio's own machine is never asked.

OWASP ASVS 4.0.3: 2.7 (out-of-band codes expire and are tried a few times only), 3.4 (cookie attributes), 4.1 (roles are
enforced at the server). The traffic is not encrypted; the page says so, and how to put TLS in front.
"""

from __future__ import annotations

import hashlib
import hmac
import json
import secrets
import threading
import time
from collections import deque
from collections.abc import Callable

from flask import Flask, Response, current_app, request

from rosy_kettle.api.roles import may
from rosy_kettle.core.errors import ConflictError, InputError
from rosy_kettle.store import Studio
from rosy_kettle.store.paired_devices import add_paired_device, roles_by_token

__all__ = ["COOKIE", "Guests", "is_own_machine", "refuse_strangers_alone", "register_guests", "still_in"]

COOKIE = "rosy-kettle-device"
CODE_SECONDS = 600.0
TRIES, TRIES_IN_ALL, TRY_SECONDS = 5, 60, 60.0
"""Wrong codes of one address, and of all together, in so many seconds; after that they are not heard for a while."""
LOOPBACK = frozenset({"127.0.0.1", "::1"})
FORWARDED = ("X-Forwarded-For", "Forwarded", "X-Real-IP")
OPEN_TO_ALL = frozenset({"/pair", "/pair.js", "/api/pairing/claims"})
STRANGER = 401
NOT_THIS_ROLE = 403


class Guests:
    """The one pairing code there may be at a time, and the roles of the devices that hold a token."""

    def __init__(self, studio: Studio) -> None:
        self._studio = studio
        self._lock = threading.Lock()
        self._code, self._role, self._until = "", "", 0.0
        self._wrong: deque[tuple[float, str]] = deque(maxlen=TRIES_IN_ALL)
        self._roles: tuple[int, dict[str, str]] = (-1, {})

    def new_code(self, role: str) -> tuple[str, float]:
        """Return a code for one device, and how long it holds [s]; a code before it holds no longer."""
        with self._lock:
            self._code, self._role = f"{secrets.randbelow(10**8):08d}", role
            self._until = time.monotonic() + CODE_SECONDS
            return self._code, CODE_SECONDS

    def claim(self, code: str, name: str, address: str) -> str:
        """Return the token of a device that knows the code; the code is used up.

        Raises
        ------
        ConflictError
            If too many wrong codes were tried of late, from this address or from all together.
        InputError
            If the code is not the one, or no longer.
        """
        with self._lock:
            now = time.monotonic()
            late = [each for at, each in self._wrong if now - at < TRY_SECONDS]
            if late.count(address) >= TRIES or len(late) >= TRIES_IN_ALL:
                raise ConflictError("Too many wrong codes; wait a minute.", noun="pairing", reason="tries")
            good = bool(self._code) and now < self._until and hmac.compare_digest(code.encode(), self._code.encode())
            if not good:
                self._wrong.append((now, address))
                raise InputError("That is not the code, or no longer; look at the studio's own screen.", quantity="code")
            role, self._code = self._role, ""
        token = secrets.token_urlsafe(32)
        with self._studio.writing() as session:
            add_paired_device(session, name, role, _hashed(token))
        return token

    def role_of(self, token: str) -> str | None:
        """Return the role of a token; None where it is none, or was revoked."""
        stamp = self._studio.stamp()
        if self._roles[0] != stamp:
            with self._studio.reading() as session:
                self._roles = (stamp, roles_by_token(session))
        return self._roles[1].get(_hashed(token))


def _hashed(token: str) -> str:
    return hashlib.sha256(token.encode()).hexdigest()


def is_own_machine() -> bool:
    """Whether a request comes from the studio's own machine itself, and not through a proxy on it."""
    return request.remote_addr in LOOPBACK and not any(name in request.headers for name in FORWARDED)


def still_in() -> Callable[[], bool]:
    """Return what says, as long as a stream lasts, whether the device it goes to may still hear it."""
    guests: Guests | None = current_app.extensions.get("guests")
    if guests is None or is_own_machine():
        return lambda: True
    token = request.cookies.get(COOKIE, "")
    return lambda: guests.role_of(token) is not None


def refuse_strangers_alone(app: Flask) -> None:
    """Let the studio's own machine in alone: where no device is paired, or while the studio's file is damaged."""

    def ask() -> Response | None:
        if is_own_machine():
            return None
        return _refusal(NOT_THIS_ROLE, "own_machine", "This is done at the studio's own machine.")

    app.before_request_funcs.setdefault(None, []).insert(1, ask)


def register_guests(app: Flask, guests: Guests) -> None:
    """Let nobody in over the network but paired devices, each as far as its role goes."""

    def ask() -> Response | None:
        if is_own_machine() or request.path in OPEN_TO_ALL:
            return None
        role = guests.role_of(request.cookies.get(COOKIE, ""))
        if request.url_rule is None and role is not None:
            return None  # a page, or nothing at all: the browser draws it, and asks for what is in it by its own routes
        if role is None:
            if request.path.startswith("/api/") or request.method not in {"GET", "HEAD"}:
                return _refusal(STRANGER, "not_paired", "This device is not paired with the studio.")
            return Response(status=302, headers={"Location": "/pair"})
        if not may(role, request.method, str(request.url_rule)):
            return _refusal(NOT_THIS_ROLE, "role", "This device may not do that; ask at the studio's own machine.")
        return None

    app.before_request_funcs.setdefault(None, []).insert(1, ask)


def _refusal(status: int, code: str, message: str) -> Response:
    return Response(json.dumps({"code": code, "message": message, "details": {}}), status=status, mimetype="application/json")
