"""Lists, journal and search of a studio of ten years beside those of the demo: make bench-lists.

Grows the studio where it is missing (minutes), serves both, asks every list thirty times and prints p50 and p95 with their ratio,
the time to the first answer and the memory of the server.
"""

from __future__ import annotations

import json
import os
import re
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

COMMAND = str(Path(sys.executable).parent / "rosy-kettle")
SIZE = ("--formulas", "5000", "--batches", "20000", "--weigh-ins", "1000000", "--seed", "1")
ROUNDS = 30
LISTS = (
    "/api/formulas", "/api/formulas?q=kelp%20scoop", "/api/formulas?q=glycerin&limit=200", "/api/batches",
    "/api/batches?q=cracked", "/api/batches?formula_id=3", "/api/batches?cursor=2", "/api/journal", "/api/journal?q=cra",
    "/api/journal?q=kel%20weigh", "/api/journal?q=%22thin%20ring%22", "/api/journal?kind=felt",
    "/api/journal?gone_wrong=true&kind=result", "/api/journal?month=2020-05&q=pieces", "/api/journal?cursor=900", "/api/rack",
    "/api/rack?wrapped=true", "/api/rack?q=peat", "/api/profiles", "/api/ingredients", "/api/calendar.ics",
)  # fmt: skip


@contextmanager
def served(folder: Path, *options: str) -> Iterator[tuple[str, int, float]]:
    """Serve a studio; yield its address, the server's process and how long the first answer took."""
    began = time.perf_counter()
    server = subprocess.Popen([COMMAND, "serve", "--port", "0", *options], stdout=subprocess.PIPE, text=True,
                              env=os.environ | {"ROSY_KETTLE_DATA": str(folder)})  # fmt: skip
    try:
        assert server.stdout is not None
        found = re.search(r"http://\S+", server.stdout.readline())
        assert found, "the server did not start"
        urllib.request.urlopen(f"{found[0]}/api/health").read()
        yield found[0], server.pid, time.perf_counter() - began
    finally:
        server.terminate()
        server.wait(30)


def times_ms(address: str, path: str) -> list[float]:
    found = []
    for _ in range(ROUNDS):
        began = time.perf_counter()
        urllib.request.urlopen(address + path).read()
        found.append(1000 * (time.perf_counter() - began))
    return sorted(found)


def memory_mb(pid: int) -> float:
    text = Path(f"/proc/{pid}/status").read_text(encoding="utf-8")
    return int(re.search(r"VmHWM:\s+(\d+)", text)[1]) / 1024  # type: ignore[index]


def main() -> None:
    big = Path(sys.argv[1] if len(sys.argv) > 1 else tempfile.gettempdir()) / "rosy-kettle-grown"
    if not (big / "studio.sqlite3").exists():
        big.mkdir(parents=True, exist_ok=True)
        began = time.perf_counter()
        grown = subprocess.run([COMMAND, "grow", *SIZE], env=os.environ | {"ROSY_KETTLE_DATA": str(big)}, capture_output=True,
                               text=True, check=True)  # fmt: skip
        print(f"grown in {time.perf_counter() - began:.0f} s: {json.loads(grown.stdout)}")
    with tempfile.TemporaryDirectory() as folder, served(Path(folder), "--seed-demo") as (address, _, _):
        for path in LISTS:
            times_ms(address, path)  # warm
        demo = {path: times_ms(address, path) for path in LISTS}
    with served(big) as (address, pid, first_s):
        print(f"first answer of the grown studio after {first_s:.2f} s")
        cold = {path: times_ms(address, path) for path in LISTS}
        print(f"{'list':44} {'demo p50':>9} {'grown p50':>9} {'grown p95':>9} {'first':>8} {'ratio p50':>9}   [ms]")
        for path, times in cold.items():
            middle, usual = statistics.median(times), statistics.median(demo[path])
            print(
                f"{path:44} {usual:9.1f} {middle:9.1f} {times[int(0.95 * ROUNDS)]:9.1f} {max(times):8.1f} {middle / usual:9.2f}"
            )
        print(f"memory of the server at most {memory_mb(pid):.0f} MB")


if __name__ == "__main__":
    main()
