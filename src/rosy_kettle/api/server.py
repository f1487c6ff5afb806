"""Serving a studio on this machine."""

from __future__ import annotations

import gc
import signal
import socket
import sys
import threading
from collections.abc import Sequence
from pathlib import Path
from types import FrameType

import click
from waitress import create_server

from rosy_kettle.api.app import create_app
from rosy_kettle.api.connections import LARGEST_ZIP_BODY_BYTES, Connection
from rosy_kettle.api.devices import MOST_LISTENERS
from rosy_kettle.api.doors import LOOPBACK_HOSTS, host_of
from rosy_kettle.api.rescue import good_backups, serve_rescue
from rosy_kettle.api.workers import THREADS
from rosy_kettle.core.errors import InputError
from rosy_kettle.devices import BenchDevices
from rosy_kettle.store import Studio, data_folder, open_studio
from rosy_kettle.store.copies import damage_of
from rosy_kettle.store.photos import settle_waiting_photos
from rosy_kettle.store.session import FILE_NAME
from rosy_kettle.usecases.rack.log_air import thin_old_air
from rosy_kettle.usecases.studio.back_up_daily import back_up_daily
from rosy_kettle.usecases.studio.keep_up import Keeper
from rosy_kettle.usecases.studio.seed_demo import seed_demo as put_in_demo_data
from rosy_kettle.usecases.studio.studio_warnings import state_of_studio

__all__ = ["serve_studio"]

MOST_CONNECTIONS = 1_000  # idle ones cost little; a hundred must not keep the next one out
IDLE_SECONDS = 30  # a connection that says nothing for so long is closed
SWITCH_SECONDS = 0.001  # after so long a thread at hard work lets another on
AIR_SECONDS = 600.0  # between looks whether the log of the air can be thinned
WATCH_SECONDS = 5.0  # between looks whether the background is still at work
QUIET_SECONDS = 20.0  # between looks whether the write-ahead log can be folded into the file


def serve_studio(
    host: str, port: int, *, seed_demo: bool = False, folder: Path | None = None, bench: BenchDevices | None = None,
    unguarded: bool = False, lan: bool = False, names: Sequence[str] = (),
) -> None:  # fmt: skip
    """Open the studio, serve it until stopped, and print the address once it answers.

    Raises
    ------
    InputError
        If the port is taken, the host cannot be served, or it is no loopback address and nobody said ``unguarded``.
    """
    outside = host not in LOOPBACK_HOSTS and not host.startswith("127.")
    if outside and not (unguarded or lan):
        raise InputError(
            f"{host} is reached from other machines, and nothing asks who they are: everyone on the network could read and "
            "change this studio. Say --lan to let paired devices in alone, or leave --host away.", quantity="host",
        )  # fmt: skip
    wrong = next((name for name in names if host_of(name) != name.lower()), None)
    if wrong is not None:
        raise InputError(f'"{wrong[:60]}" is no name of a host; give it without port and path.', quantity="name")
    hosts = {*LOOPBACK_HOSTS, host.lower(), *(name.lower() for name in names)}
    studio = _opened(host, port, folder, hosts)
    if seed_demo:
        put_in_demo_data(studio)
    try:
        app = create_app(studio, bench, hosts, any_address=outside, lan=lan)
        server = create_server(
            app, host=host, port=port,
            threads=THREADS + MOST_LISTENERS,  # streams have places of their own, and take none from who asks
             connection_limit=MOST_CONNECTIONS, channel_timeout=IDLE_SECONDS,
            cleanup_interval=5, max_request_body_size=LARGEST_ZIP_BODY_BYTES,
            channel_request_lookahead=1,  # a connection is listened to while its request is worked on: it may hang up
        )  # fmt: skip
        server.channel_class = Connection
    except (OSError, socket.gaierror) as error:
        studio.close()
        raise InputError(f"{host}:{port} cannot be served ({error.strerror or error}); choose another with --port.") from error
    signal.signal(signal.SIGTERM, _stop)
    sys.setswitchinterval(SWITCH_SECONDS)
    if studio.lock is not None and studio.lock.nobody_else():
        settle_waiting_photos(studio.path)
    click.echo(f"Rosy Kettle is on http://{host}:{server.effective_port}")
    for warning in state_of_studio(studio.path).warnings:
        click.echo(warning.text, err=True)
    stopped, keeper, learner = threading.Event(), app.extensions["keeper"], app.extensions["learner"]
    keeper.start()
    learner.start()
    threading.Thread(target=_fold_when_quiet, args=(studio, stopped), daemon=True).start()
    threading.Thread(target=_watch, args=(keeper, stopped), daemon=True).start()
    threading.Thread(target=_thin_air, args=(studio, stopped), daemon=True).start()
    threading.Thread(target=back_up_daily, args=(studio, stopped, lambda said: click.echo(said, err=True)), daemon=True).start()
    gc.freeze()  # what is loaded by now stays, and is not looked through again
    gc.enable()
    try:
        server.run()
    finally:
        stopped.set()
        keeper.stop()
        learner.close()
        studio.close()


def _opened(host: str, port: int, folder: Path | None, hosts: set[str]) -> Studio:
    """Open the studio; where its file is damaged and there is a whole backup, offer that on the address first."""
    try:
        return open_studio(folder, serving=True)
    except InputError as error:
        place = folder or data_folder()
        path = place / FILE_NAME
        if not (path.exists() and damage_of(path) and good_backups(place)):
            raise
        serve_rescue(host, port, place, error.message, hosts)
    return open_studio(folder, serving=True)


def _fold_when_quiet(studio: Studio, stopped: threading.Event) -> None:
    """Fold the write-ahead log into the one file whenever nothing was written for a while."""
    seen = studio.stamp()
    while not stopped.wait(QUIET_SECONDS):
        now = studio.stamp()
        if now == seen:
            studio.fold()
        seen = now


def _watch(keeper: Keeper, stopped: threading.Event) -> None:
    """Begin the background again where it has ended; the learner begins one whenever it is asked."""
    while not stopped.wait(WATCH_SECONDS):
        keeper.watch()


def _thin_air(studio: Studio, stopped: threading.Event) -> None:
    """Thin the air that was logged more than a month ago, as long as the studio is served."""
    while not stopped.wait(AIR_SECONDS):
        try:
            with studio.writing() as session:
                thin_old_air(session)
        except Exception as error:  # noqa: BLE001 - a full disk, an odd row: the next time may do
            click.echo(f"Old air was not thinned: {error}", err=True)


def _stop(_signal: int, _frame: FrameType | None) -> None:
    raise KeyboardInterrupt
