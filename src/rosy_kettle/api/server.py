"""Serving a studio on this machine."""

from __future__ import annotations

import signal
import socket
from pathlib import Path
from types import FrameType

import click
from waitress import create_server

from rosy_kettle.api.app import create_app
from rosy_kettle.core.errors import InputError
from rosy_kettle.devices import BenchDevices
from rosy_kettle.store import open_studio
from rosy_kettle.usecases.seed_demo import seed_demo as put_in_demo_data

__all__ = ["serve_studio"]

THREADS = 16


def serve_studio(
    host: str, port: int, *, seed_demo: bool = False, folder: Path | None = None, bench: BenchDevices | None = None
) -> None:
    """Open the studio, serve it until stopped, and print the address once it answers.

    Raises
    ------
    InputError
        If the port is taken or the host cannot be served.
    """
    studio = open_studio(folder)
    if seed_demo:
        put_in_demo_data(studio)
    try:
        server = create_server(create_app(studio, bench), host=host, port=port, threads=THREADS)
    except (OSError, socket.gaierror) as error:
        raise InputError(f"{host}:{port} cannot be served ({error.strerror or error}); choose another with --port.") from error
    signal.signal(signal.SIGTERM, _stop)
    click.echo(f"Rosy Kettle is on http://{host}:{server.effective_port}")
    try:
        server.run()
    finally:
        studio.close()


def _stop(_signal: int, _frame: FrameType | None) -> None:
    raise KeyboardInterrupt
