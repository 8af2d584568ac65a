"""Odd inputs of every kind, for a time: `make fuzz MINUTES=10`.

    .venv-dev/bin/python scripts/fuzz.py --minutes 10 --kind svg     # of one kind
    .venv-dev/bin/python scripts/fuzz.py --count 100000 --kind udp   # so many

Each kind has a small corpus in tests/fuzz and a function that takes bytes. It may refuse them with
Fendra's own errors, or with ValueError where that is what its docs say. Anything else, more than
ten seconds for one input, or more than 2 GB, is a fault: the input is kept in `fuzz-found`. Where
atheris is installed it finds inputs that reach new code; otherwise they are changed by chance.
"""

from __future__ import annotations

import argparse
import contextlib
import io
import logging
import os
import random
import resource
import signal
import subprocess
import sys
import tempfile
import time
import warnings
from collections.abc import Callable
from pathlib import Path

HERE = Path(__file__).parent.parent
CORPUS, FOUND = HERE / "tests/fuzz", Path("fuzz-found")
MOST_S, MOST_BYTES = 10, 2_000_000_000


def targets() -> dict[str, Callable[[bytes], object]]:
    """What takes the bytes of each kind."""
    import numpy as np
    from pymavlink.dialects.v20 import common

    import fendra as fd
    from fendra.core.document.design import Design
    from fendra.core.errors import FendraError
    from fendra.core.language.reader import read
    from fendra.files.csv_places import read_csv
    from fendra.files.design_file import check_text
    from fendra.files.layout_file import read_json, to_lines
    from fendra.files.media import read_picture
    from fendra.files.svg_places import Drawing
    from fendra.files.tape_file import read_tape
    from fendra.live.inbox import Inbox
    from fendra.live.loop import recall
    from fendra.outputs.packets import Answers
    from fendra.sources import DRIVERS
    from fendra.sources.lines import LineCutter
    from fendra.sources.mavlink import news_of
    from fendra.sources.mqtt import MqttSource, value_of
    from fendra.sources.osc import OscSource
    from fendra.sources.texts import parse_text

    part = {"name": "bar", "shape": "strip", "start": [0, 0], "end": [70, 0], "count": 8}
    signals = {
        "s": {"range": [0, 1]}, "on": {"kind": "switch"}, "tint": {"kind": "colour"},
        "mode": {"kind": "choice", "choices": ["calm", "wild"]}, "hit": {"kind": "event"},
        "bands": {"kind": "vector", "size": 3},
    }  # fmt: skip
    values = {"name": "F", "line": [{"name": "a", "part": [part]}], "signals": signals}
    plain = {**values, "layer": [{"name": "l", "on": "bar", "effect": "solid"}]}
    made = fd.Design.from_values(plain)
    program = made.compile("numpy")
    bare = fd.demo_file("bare.toml").read_text(encoding="utf-8")
    scratch = Path(tempfile.mkdtemp(prefix="fendra-fuzz-"))
    osc = OscSource("9000")
    osc._packets = __import__("pythonosc.osc_packet").osc_packet
    parser = common.MAVLink(None)
    parser.robust_parsing = True
    box = Inbox(made)

    def hear(news: object) -> None:
        for name, raw in news:  # type: ignore[attr-defined]
            box.put("fuzz", name, raw)
        box.take()

    def udp(data: bytes) -> None:
        with contextlib.suppress(ValueError):
            hear(parse_text(data.decode()).items())

    def columns(data: bytes) -> None:
        with contextlib.suppress(ValueError):
            hear(parse_text(data.decode(), ("s", "bands[1]", "mode")).items())

    def osc_(data: bytes) -> None:
        with contextlib.suppress(ValueError):
            hear(osc._news_of(data))

    def mqtt(data: bytes) -> None:
        topic, _, payload = data.partition(b"\n")
        source = MqttSource("localhost", root="r")
        source._root, source._is_connected = "r", True
        source._came.append((f"r/{topic.decode('latin-1')}", payload))
        hear(source.read(0))
        with contextlib.suppress(ValueError):
            value_of(payload)

    def mavlink(data: bytes) -> None:
        for message in parser.parse_buffer(data[:4096]) or ():
            if message.get_type() != "BAD_DATA":
                hear(news_of(message).items())
        parser.buf = bytearray()

    def memory(data: bytes) -> None:
        with contextlib.suppress(ValueError):
            told = value_of(data)
            if isinstance(told, dict):
                recall(program, told, 1.0)

    def lines(data: bytes) -> None:
        cutter = LineCutter()
        for line in cutter.feed(data) + cutter.feed(b"\n"):
            with contextlib.suppress(ValueError):
                hear(parse_text(line.decode()).items())

    def answers(data: bytes) -> None:
        for identity in Answers().feed(data + b"\0"):
            str(identity)

    def expression(data: bytes) -> None:
        text = data.decode("utf-8", "replace")
        with contextlib.suppress(FendraError):
            read(text)
        keys = {"when": text} if len(data) % 2 else {"level": text}
        layer = {"name": "l", "on": "bar", "effect": "solid", **keys}
        with contextlib.suppress(FendraError):
            fd.Design.from_values({**values, "layer": [layer]}).check()

    def design(data: bytes) -> None:
        checked = check_text(data.decode("utf-8", "replace"), "f.toml", folder=scratch)
        assert all(finding.code != "internal" for finding in checked.findings), checked.findings

    def patch(data: bytes) -> None:
        """Pieces of a design in a whole one."""
        design(f"{bare}\n{data.decode('utf-8', 'replace')}".encode())

    def svg(data: bytes) -> None:
        with contextlib.suppress(FendraError):
            drawing = Drawing(data.decode("utf-8", "replace"))
            with contextlib.suppress(FendraError):
                drawing.marks()
            found = drawing.along(None, count=5)
            assert np.isfinite([each.position for each in found]).all()

    def csv(data: bytes) -> None:
        with contextlib.suppress(FendraError):
            placements = read_csv(data.decode("utf-8", "replace"))
            to_lines(placements, line="a", part="b")

    def layout(data: bytes) -> None:
        with contextlib.suppress(FendraError):
            placements, keys = read_json(data.decode("utf-8", "replace"))
            to_lines(placements, line="a", part="b", keys=keys)

    def written(data: bytes, name: str) -> Path:
        path = scratch / name
        path.write_bytes(data)
        return path

    def tape(data: bytes) -> None:
        with contextlib.suppress(FendraError):
            played = read_tape(written(data, "t.csv"), made)
            if played.duration_s < 5:
                program.film(played)

    def picture(data: bytes) -> None:
        with contextlib.suppress(FendraError):
            read_picture(written(data, "p.png"))

    del Design, DRIVERS
    return {
        "udp": udp, "columns": columns, "osc": osc_, "mqtt": mqtt, "mavlink": mavlink,
        "memory": memory, "lines": lines, "answers": answers, "expression": expression,
        "design": design, "patch": patch, "svg": svg, "csv": csv, "layout": layout, "tape": tape,
        "picture": picture,
    }  # fmt: skip


KINDS = ("udp", "columns", "osc", "mqtt", "mavlink", "memory", "lines", "answers", "expression",
         "design", "patch", "svg", "csv", "layout", "tape", "picture")  # fmt: skip
WORDS = (
    b"\0", b"\xff", b"\x1b[2J", b"1e308", b"-1", b"9" * 400, b"nan", b"inf", b"[" * 200, b"{" * 60,
    b"\n", b'"', b"'", b"=", b":", b",", b";", b"//", b"\\", b"\xef\xbb\xbf", b"\xe2\x80\xae", b"$",
    b"#", b"(", b")", b"s", b"hold(", b"use", b"true", b"[[layer]]", b"a.b.c", b"0x", b"1_0", b"%",
)  # fmt: skip


def changed(data: bytes, pool: list[bytes], chance: random.Random) -> bytes:
    """An input with some changes by chance."""
    made = bytearray(data)
    for _ in range(chance.randint(1, 6)):
        at = chance.randint(0, len(made))
        match chance.randrange(7):
            case 0 if made:
                made[min(at, len(made) - 1)] = chance.randrange(256)
            case 1:
                del made[at : at + chance.randint(1, 20)]
            case 2:
                made[at:at] = chance.choice(WORDS)
            case 3:
                piece = made[at : at + chance.randint(1, 40)]
                made[at:at] = piece * chance.choice((1, 2, 3, 50))
            case 4:
                other = chance.choice(pool)
                start = chance.randint(0, len(other))
                made[at:at] = other[start : start + chance.randint(1, 60)]
            case 5:
                made[at : at + 1] = str(chance.choice((0, 1, -1, 255, 65536, 10**9, 1e-9))).encode()
            case _:
                made[at:at] = bytes(chance.randrange(256) for _ in range(chance.randint(1, 8)))
    return bytes(made[:100_000])


def corpus(kind: str) -> list[bytes]:
    """The inputs of a kind that are known to be good."""
    return [path.read_bytes() for path in sorted((CORPUS / kind).iterdir())]


def run_one(kind: str, minutes: float, count: int | None, seed: int) -> None:
    """Fuzz one kind in this process; raises at the first fault, with the input kept."""
    resource.setrlimit(resource.RLIMIT_AS, (3 * MOST_BYTES, 3 * MOST_BYTES))
    warnings.simplefilter("ignore")
    logging.disable(logging.CRITICAL)
    take = targets()[kind]
    pool, chance, done = corpus(kind), random.Random(seed), 0
    end_s = time.monotonic() + minutes * 60

    def hang(_number: int, _frame: object) -> None:
        raise TimeoutError(f"more than {MOST_S} s")

    signal.signal(signal.SIGALRM, hang)
    longest = 0.0
    while time.monotonic() < end_s if count is None else done < count:
        data = pool[done] if done < len(pool) else changed(chance.choice(pool), pool, chance)
        begun_s = time.monotonic()
        signal.alarm(MOST_S)
        try:
            with contextlib.redirect_stdout(io.StringIO()):
                take(data)
        except BaseException as exc:
            signal.alarm(0)
            FOUND.mkdir(exist_ok=True)
            path = FOUND / f"{kind}-{seed}-{done}"
            path.write_bytes(data)
            raise SystemExit(f"{kind}: {type(exc).__name__}: {str(exc)[:300]} ({path})") from exc
        signal.alarm(0)
        longest = max(longest, time.monotonic() - begun_s)
        done += 1
    most = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1e3
    if most > MOST_BYTES / 1e6:
        raise SystemExit(f"{kind}: {most:.0f} MB")
    print(f"{kind:<11} {done:>9,} inputs, the longest {longest:.2f} s, {most:.0f} MB", flush=True)


def run_guided(kind: str, minutes: float) -> bool:
    """Let atheris look for inputs that reach new code; false where it is not there."""
    code = (
        "import sys, atheris\nsys.path.insert(0, 'scripts')\nimport fuzz\n"
        "with atheris.instrument_imports(include=['fendra']):\n"
        "    take = fuzz.targets()[sys.argv[1]]\n"
        "import warnings; warnings.simplefilter('ignore')\n"
        "atheris.Setup([sys.argv[0], *sys.argv[2:]], take)\natheris.Fuzz()\n"
    )
    with tempfile.TemporaryDirectory() as folder:
        FOUND.mkdir(exist_ok=True)
        words = [
            folder, str(CORPUS / kind), f"-max_total_time={max(int(minutes * 60), 1)}",
            f"-timeout={MOST_S}", f"-rss_limit_mb={MOST_BYTES // 1_000_000}", "-max_len=20000",
            f"-artifact_prefix={FOUND}/{kind}-", "-print_final_stats=1",
        ]  # fmt: skip
        done = subprocess.run(
            [sys.executable, "-c", code, kind, *words], cwd=HERE, capture_output=True, text=True,
            errors="replace", check=False,
        )  # fmt: skip
    if "No module named 'atheris'" in done.stderr:
        return False
    if done.returncode:
        print(done.stderr[-3000:])
        raise SystemExit(f"{kind}: atheris found a fault; the input is in {FOUND}")
    stats = dict(
        line.removeprefix("stat::").split(":", 1)
        for line in done.stderr.splitlines()
        if line.startswith("stat::")
    )
    count = int(stats.get("number_of_executed_units", 0))
    print(f"{kind:<11} {count:>9,} inputs, led by what code they reach", flush=True)
    return True


def main() -> int:
    """Fuzz every kind, or one."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--minutes", type=float, default=10, help="in all")
    parser.add_argument("--count", type=int, help="inputs of each kind instead, by chance alone")
    parser.add_argument("--kind", choices=KINDS)
    parser.add_argument("--seed", type=int, default=int.from_bytes(os.urandom(3)))
    options = parser.parse_args()
    kinds = [options.kind] if options.kind else [*KINDS]
    each = options.minutes / len(kinds)
    for kind in kinds:
        if options.count is None and run_guided(kind, each / 2):
            run_in_child(kind, each / 2, None, options.seed)
        else:
            run_in_child(kind, each, options.count, options.seed)
    return 0


def run_in_child(kind: str, minutes: float, count: int | None, seed: int) -> None:
    """In a process of its own, since one kind's memory is none of the next one's."""
    process = os.fork()
    if process == 0:
        try:
            run_one(kind, minutes, count, seed)
        except SystemExit as exc:
            print(exc, file=sys.stderr, flush=True)
            os._exit(1)
        os._exit(0)
    _, status = os.waitpid(process, 0)
    if status:
        raise SystemExit(1)


if __name__ == "__main__":
    sys.exit(main())
