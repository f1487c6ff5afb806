"""Every list, page and file of a grown studio beside those of the demo, in one run: make bench-lists.

Grows the studio where it is missing (a minute), serves both, asks each address thirty times and prints the first answer, p50 and
p95 with their ratio, and which of them are beyond what is promised: at most three times the demo or 20 ms, p95 under 100 ms once
warm, nothing over a second cold, and a start under twice that of the demo. The exit code says whether any is.
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
SIZE = ("--formulas", "1000", "--batches", "4000", "--weigh-ins", "100000", "--seed", "1")
ROUNDS = 30
LISTS = (
    "/api/formulas", "/api/formulas?q=kelp%20scoop", "/api/formulas?q=glycerin&limit=200", "/api/batches",
    "/api/batches?q=cracked", "/api/batches?formula_id=3", "/api/batches?cursor=2", "/api/journal", "/api/journal?q=cra",
    "/api/journal?q=kel%20weigh", "/api/journal?q=%22thin%20ring%22", "/api/journal?kind=felt",
    "/api/journal?gone_wrong=true&kind=result", "/api/journal?month=2020-05&q=pieces", "/api/journal?cursor=900", "/api/rack",
    "/api/rack?wrapped=true", "/api/rack?q=peat", "/api/profiles", "/api/ingredients", "/api/calendar.ics",
    "/api/learning", "/api/shopping-list", "/api/shopping-list.csv", "/api/orders", "/api/stock.csv", "/api/stock.xlsx",
    "/api/lots", "/api/movements", "/api/tub-tests", "/api/test-series", "/api/measurements", "/api/trial-designs",
    "/api/troubles", "/api/labels", "/api/settings", "/api/air?days=30", "/api/backups/warnings", "/api/formulas/3",
    "/api/batches/3", "/api/batches/3/lots", "/api/batches/3/record.json", "/api/records/3.json", "/api/rack/3",
    "/api/formulas/3/run-sheet", "/api/reference", "/",
)  # fmt: skip
LONGEST_RATIO, LONGEST_P95_MS, LONGEST_COLD_MS, NOTHING_MS = 3.0, 100.0, 1000.0, 20.0
"""What is promised of each; below the last no ratio is told, for a millisecond more is no more to anybody."""


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
    return found


def memory_mb(pid: int) -> float:
    text = Path(f"/proc/{pid}/status").read_text(encoding="utf-8")
    return int(re.search(r"VmHWM:\s+(\d+)", text)[1]) / 1024  # type: ignore[index]


def judged(usual: list[float], grown: list[float]) -> list[str]:
    """Return what is beyond what is promised, of times in the order they were taken."""
    middle, p95 = statistics.median(grown), sorted(grown[1:])[int(0.95 * (ROUNDS - 1))]
    beyond = {
        "ratio": middle > max(NOTHING_MS, LONGEST_RATIO * statistics.median(usual)), "p95": p95 > LONGEST_P95_MS,
        "cold": grown[0] > LONGEST_COLD_MS,
    }  # fmt: skip
    return [name for name, is_so in beyond.items() if is_so]


def main() -> None:
    big = Path(sys.argv[1] if len(sys.argv) > 1 else tempfile.gettempdir()) / "rosy-kettle-grown"
    if not (big / "studio.sqlite3").exists():
        big.mkdir(parents=True, exist_ok=True)
        began = time.perf_counter()
        grown = subprocess.run([COMMAND, "grow", *SIZE], env=os.environ | {"ROSY_KETTLE_DATA": str(big)}, capture_output=True,
                               text=True, check=True)  # fmt: skip
        print(f"grown in {time.perf_counter() - began:.0f} s: {json.loads(grown.stdout)}")
    with tempfile.TemporaryDirectory() as folder:
        with served(Path(folder), "--seed-demo"):
            pass  # its first start puts the demo in
        with served(Path(folder)) as (address, _, demo_s):
            demo = {path: times_ms(address, path) for path in LISTS}
        wrong = []
        with served(big) as (address, pid, first_s):
            print(f"started after {first_s:.2f} s, the demo after {demo_s:.2f} s")
            wrong += ["the start"] if first_s > 2 * demo_s else []
            print(f"{'page or file':44} {'demo p50':>9} {'grown p50':>9} {'grown p95':>9} {'cold':>8} {'ratio':>6}   [ms]")
            for path in LISTS:
                times, usual = times_ms(address, path), statistics.median(demo[path])
                middle, p95, beyond = (
                    statistics.median(times),
                    sorted(times[1:])[int(0.95 * (ROUNDS - 1))],
                    judged(demo[path], times),
                )
                print(
                    f"{path:44} {usual:9.1f} {middle:9.1f} {p95:9.1f} {times[0]:8.1f} {middle / usual:6.2f}   {' '.join(beyond)}"
                )
                wrong += [path] if beyond else []
            print(f"memory of the server at most {memory_mb(pid):.0f} MB")
    sys.exit(f"beyond what is promised: {', '.join(wrong)}" if wrong else 0)


if __name__ == "__main__":
    main()
