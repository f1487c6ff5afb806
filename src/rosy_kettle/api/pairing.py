"""Pairing: a code on the studio's own screen lets one device in, by a role."""

from __future__ import annotations

import socket

from flask import Response, current_app, request

from rosy_kettle.api.doors import page_nonce
from rosy_kettle.api.guests import COOKIE, Guests
from rosy_kettle.api.part import part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.pairing import (
    DeviceClaim,
    DevicePath,
    PairedAnswer,
    PairedDeviceAnswer,
    PairedDeviceList,
    PairingAnswer,
    PairingSave,
)
from rosy_kettle.api.studio import current_studio
from rosy_kettle.core.errors import ConflictError
from rosy_kettle.store.paired_devices import list_paired_devices, revoke_paired_device

__all__ = ["blueprint", "pair_page", "pair_script"]

blueprint = part("pairing", __name__, "/api", (401, 403, 404, 409, 422))
COOKIE_SECONDS = 400 * 86_400
PAIR_PAGE = """<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>Rosy Kettle: pair this device</title><style nonce="{nonce}">body{{font:22px sans-serif;margin:8vh 8vw;max-width:30em}}
input,button{{font:inherit;padding:.4em;min-height:48px}}label{{display:block;margin:1em 0}}</style>
<h1>Pair this device</h1><p>Read the code off the studio's own screen, under Settings, Devices.</p>
<form id="f"><label>Code <input name="code" inputmode="numeric" autocomplete="off" required></label>
<label>Call this device <input name="name" required maxlength="60" value="Tablet"></label><button>Pair it</button></form>
<p role="status" id="s"></p><script src="/pair.js"></script></html>
"""
PAIR_SCRIPT = """const f=document.getElementById("f"),s=document.getElementById("s");
f.code.value=location.hash.slice(1).replace(/[^0-9]/g,"");
f.onsubmit=async(e)=>{e.preventDefault();const r=await fetch("/api/pairing/claims",{method:"POST",
headers:{"Content-Type":"application/json"},body:JSON.stringify({code:f.code.value.trim(),name:f.name.value.trim()})});
if(r.ok)location.href="/bench";else s.textContent=(await r.json()).message;};
"""


def pair_page() -> Response:
    """Return the one page that an unpaired device sees."""
    return Response(PAIR_PAGE.format(nonce=page_nonce()), mimetype="text/html", headers={"Cache-Control": "no-store"})


def pair_script() -> Response:
    """Return its script."""
    return Response(PAIR_SCRIPT, mimetype="text/javascript")


def _guests() -> Guests:
    guests: Guests | None = current_app.extensions.get("guests")
    if guests is None:
        raise ConflictError("The studio is served to this machine alone; start it with --lan.", noun="pairing", reason="lan")
    return guests


@blueprint.post("/pairing", summary="A code that lets one device in", responses={201: PairingAnswer})
def begin(body: PairingSave) -> Response:
    code, seconds = _guests().new_code(body.role)
    address = f"http://{_own_address()}:{request.host.rpartition(':')[2] or '80'}/pair"
    return respond(PairingAnswer(code=code, seconds=seconds, address=address, qr=_qr(f"{address}#{code}")), 201)


@blueprint.post("/pairing/claims", summary="Pair this device", responses={201: PairedAnswer})
def claim(body: DeviceClaim) -> Response:
    token = _guests().claim(body.code, body.name.strip(), request.remote_addr or "")
    response = respond(PairedAnswer(), 201)
    response.set_cookie(
        COOKIE, token, max_age=COOKIE_SECONDS, httponly=True, samesite="Strict", secure=_is_encrypted(), path="/"
    )  # fmt: skip
    return response


@blueprint.get("/paired-devices", summary="Devices that may come in", responses={200: PairedDeviceList})
def list_() -> Response:
    return _listed()


def _listed() -> Response:
    with current_studio().reading() as session:
        items = [
            PairedDeviceAnswer.model_validate(
                {"id": row.id, "name": row.name, "role": row.role, "paired_at": row.paired_at}
            )
            for row in list_paired_devices(session)
        ]  # fmt: skip
    return respond(PairedDeviceList(items=items, lan="guests" in current_app.extensions))


@blueprint.delete("/paired-devices/<int:device_id>", summary="Shut a device out", responses={200: PairedDeviceList})
def revoke(path: DevicePath) -> Response:
    with current_studio().writing() as session:
        revoke_paired_device(session, path.device_id)
    return _listed()


def _is_encrypted() -> bool:
    """Whether the device's own connection is, to the studio or to the proxy before it: then the cookie stays on such."""
    return request.is_secure or request.headers.get("X-Forwarded-Proto", "").lower() == "https"


def _own_address() -> str:
    """Return the address of this machine on its network: that of the way out, though nothing is sent."""
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as way:
        try:
            way.connect(("192.0.2.1", 9))  # an address of documentation, RFC 5737
            return str(way.getsockname()[0])
        except OSError:
            return "127.0.0.1"


def _qr(text: str) -> list[str]:
    from reportlab.graphics.barcode.qrencoder import (  # here: the paper packages are a tenth of the start
        QRCode,
        QRErrorCorrectLevel,
    )

    symbol = QRCode(None, QRErrorCorrectLevel.M)
    symbol.addData(text)
    symbol.make()
    return ["".join("1" if dark else "0" for dark in row) for row in symbol.modules]
