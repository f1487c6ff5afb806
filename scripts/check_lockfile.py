"""Refuse a lock file that names a registry, lacks hashes, or misses another platform's packages."""

from __future__ import annotations

import json
import re
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent


def npm_faults() -> list[str]:
    lock = json.loads((ROOT / "web" / "package-lock.json").read_text(encoding="utf-8"))
    packages = lock["packages"]
    faults = [f"{name} has a download address" for name, entry in packages.items() if "resolved" in entry]
    faults += [f"{name} has no hash" for name, entry in packages.items() if name and "integrity" not in entry]
    for name, entry in packages.items():
        for wanted in entry.get("optionalDependencies", {}):
            places = (f"{name}/node_modules/{wanted}", f"node_modules/{wanted}")
            if not any(place in packages for place in places):
                faults.append(f"{wanted}, optional of {name}, is missing; npm ci fails on that platform")
    return faults


def pip_faults() -> list[str]:
    faults = []
    for path in ROOT.glob("requirements*.txt"):
        text = path.read_text(encoding="utf-8")
        if re.search(r"https?://|--(extra-)?index-url", text):
            faults.append(f"{path.name} names a registry")
        pinned = len(re.findall(r"^[A-Za-z].*==", text, re.MULTILINE))
        if len(re.findall(r"^[A-Za-z].*== ?\S+.*\\\n\s+--hash=", text, re.MULTILINE)) < pinned:
            faults.append(f"{path.name} has a package without hash")
    return faults


if __name__ == "__main__":
    found = npm_faults() + pip_faults()
    print("\n".join(found))
    sys.exit(1 if found else 0)
