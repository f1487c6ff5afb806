"""A process that has everything imported and forks served studios: a real server in a process of its own, in a tenth of a second.

Run as ``python -m tests.nursery``; each line of input is ``{"folder", "arguments", "said", "declaring"}``, each line of output a process id.
"""

from __future__ import annotations

import json
import os
import signal
import sys
from collections.abc import Callable
from contextlib import nullcontext
from typing import Any


def become_server(asked: dict[str, Any], command: Callable[[], None]) -> None:
    from rosy_kettle.core.readings.registry import declared_besides
    from tests.declared_reading import POWDER_SHARE

    signal.signal(signal.SIGCHLD, signal.SIG_DFL)
    os.environ["ROSY_KETTLE_DATA"] = asked["folder"]
    os.dup2(os.open(asked["said"], os.O_CREAT | os.O_WRONLY | os.O_TRUNC), 1)
    sys.argv = ["rosy-kettle", "serve", "--port", "0", *asked["arguments"]]
    with declared_besides(POWDER_SHARE) if asked["declaring"] else nullcontext():
        command()


def main() -> None:
    import rosy_kettle.api.server  # imported here so that the children need not
    from rosy_kettle.cli import main as command

    assert rosy_kettle.api.server
    signal.signal(signal.SIGCHLD, signal.SIG_IGN)  # children that were killed are not waited for
    for line in sys.stdin:
        asked = json.loads(line)
        pid = os.fork()
        if pid == 0:
            try:
                become_server(asked, command)
            finally:
                os._exit(1)
        print(pid, flush=True)


if __name__ == "__main__":
    main()
