"""A studio whose file is damaged: the newest good backup is one press away, and the damaged file is kept aside."""

from __future__ import annotations

import os
import signal
import threading
from collections.abc import Collection
from html import escape
from pathlib import Path
from types import FrameType

import click
from flask import Flask, Response
from waitress import create_server

from rosy_kettle.api.doors import page_nonce, register_doors
from rosy_kettle.api.guests import refuse_strangers_alone
from rosy_kettle.core.errors import WorkbenchError
from rosy_kettle.store.backups import Backup, backup_folder, list_backups
from rosy_kettle.store.copies import damage_of
from rosy_kettle.usecases.studio.keep_copies import restore_studio

__all__ = ["good_backups", "make_rescue_app", "serve_rescue"]

MOST_SHOWN = 5
PAGE = """<!doctype html><html lang="en"><meta charset="utf-8"><title>Rosy Kettle: the studio's file is damaged</title>
<style nonce="{nonce}">body{{font:20px sans-serif;margin:8vh 8vw;max-width:36em}}
button{{font:inherit;min-height:48px;padding:0 1em}}
li{{margin:.6em 0}}</style><h1>The studio's file is damaged</h1><p>{said}</p>
<p>It is kept aside as it is, whatever you choose. These backups are whole:</p><ol>{items}</ol>
<p role="status">{done}</p></html>"""


class _Rescued(Exception):  # noqa: N818 - no error: the way on
    """A backup is in place; the studio can be opened."""


def good_backups(folder: Path) -> list[Backup]:
    """Return the newest backups that are whole, newest first."""
    backups = backup_folder(folder / "studio.sqlite3")
    return [each for each in list_backups(backups) if not damage_of(backups / each.name)][:MOST_SHOWN]


def make_rescue_app(folder: Path, said: str, hosts: Collection[str]) -> Flask:
    """Return the one page there is while the studio cannot be opened."""
    app = Flask(__name__, static_folder=None)
    register_doors(app, hosts, any_address=False)
    refuse_strangers_alone(app)

    def page(done: str = "") -> Response:
        items = "".join(
            f'<li>{each.made_at:%Y-%m-%d %H:%M} UTC <form method="post" action="/rescue/{escape(each.name)}">'
            "<button>Bring it back</button></form></li>"
            for each in good_backups(folder)
        )
        body = PAGE.format(nonce=page_nonce(), said=escape(said), items=items, done=escape(done))
        policy = f"default-src 'none'; style-src 'nonce-{page_nonce()}'; form-action 'self'; frame-ancestors 'none'"
        return Response(body, mimetype="text/html", headers={"Cache-Control": "no-store", "Content-Security-Policy": policy})

    def bring(name: str) -> Response:
        if name not in {each.name for each in good_backups(folder)}:
            return page("That backup is not there, or not whole.")
        try:
            restore_studio(backup_folder(folder / "studio.sqlite3") / name, folder)
        except WorkbenchError as error:
            return page(error.message)
        app.extensions["rescued"].set()
        return page("Brought back. Load this page again in a moment.")

    app.extensions["rescued"] = threading.Event()
    app.add_url_rule("/rescue/<string:name>", view_func=bring, methods=["POST"], endpoint="bring")
    app.register_error_handler(404, lambda _error: page())
    return app


def serve_rescue(host: str, port: int, folder: Path, said: str, hosts: Collection[str]) -> None:
    """Serve the page until a backup is in place."""
    app = make_rescue_app(folder, said, hosts)
    server = create_server(app, host=host, port=port, threads=2)
    signal.signal(signal.SIGUSR2, _go_on)
    click.echo(f"{said}\nA backup can be brought back on http://{host}:{server.effective_port}")
    threading.Thread(target=_wait, args=(app.extensions["rescued"],), daemon=True).start()
    try:
        server.run()
    except _Rescued:
        click.echo("A backup is in place.")
    finally:
        server.close()


def _wait(rescued: threading.Event) -> None:
    rescued.wait()
    threading.Event().wait(1.0)  # the answer goes out first
    os.kill(os.getpid(), signal.SIGUSR2)


def _go_on(_signal: int, _frame: FrameType | None) -> None:
    raise _Rescued
