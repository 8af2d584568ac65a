"""A stranger's design: whatever it names, nothing runs, nothing is written outside its folder, and
nothing is connected to. Watched by an audit hook of the interpreter.
"""

from __future__ import annotations

import json
import os
import socket
import subprocess
import sys
import threading

import pytest

BASE = """
name = "Gift"
TOP
[[line]]
name = "a"
pin = "D6"
[[line.part]]
name = "bar"
shape = "strip"
start = [0, 0]
end = [70, 0]
count = 8
[signals.s]
range = [0, 1]
[[layer]]
name = "plain"
on = "bar"
effect = "solid"
colour = "red"
level = "s"
REST
"""
GIFTS = {
    "code": ('effects = ["evil.py", "../evil.py", "link.py"]', ""),
    "a film elsewhere": ("", '[outputs.m]\ntype = "film"\naddress = "../victim.npz"'),
    "a film over a script": ("", '[outputs.m]\ntype = "film"\naddress = "victim.sh"'),
    "a film by a link": ("", '[outputs.m]\ntype = "film"\naddress = "away/victim.npz"'),
    "a film over another's": ("", '[outputs.m]\ntype = "film"\naddress = "dear.npz"'),
    "a picture elsewhere": ("", '[outputs.m]\ntype = "gif"\naddress = "../victim.gif"'),
    "raw bytes": ("", '[outputs.m]\ntype = "spi"\naddress = "victim.sh"'),
    "secrets": ("", '[sources.b]\ntype = "mqtt"\naddress = "127.0.0.1:PORT"\nuser = "AWS_KEY"'),
    "a host": ("", '[sources.b]\ntype = "mqtt"\naddress = "9.9.9.9:PORT"'),
    "light to a host": ("", '[outputs.b]\ntype = "sacn"\naddress = "9.9.9.9"'),
    "a pipe as a picture": (
        "", '[[layer]]\nname = "p"\non = "bar"\neffect = "picture"\nfile = "pipe.png"'),
    "a device as a tape": ("", '[sources.t]\ntype = "tape"\naddress = "/dev/zero"'),
    "a pipe as a tape": ("", '[sources.t]\ntype = "tape"\naddress = "pipe.png"'),
    "a pipe as places": ("", '[[line.part]]\nname = "q"\nshape = "points"\nfile = "pipe.csv"'),
    "a driver": ("", '[outputs.m]\ntype = "os.system"\naddress = "touch pwned"'),
}  # fmt: skip
WATCH = """
import json, os, sys
seen, WRITES = [], os.O_WRONLY | os.O_RDWR | os.O_CREAT | os.O_APPEND | os.O_TRUNC
def hook(event, args):
    if event == "open" and isinstance(args[0], (str, bytes)) and args[2] & WRITES:
        seen.append(["write", os.path.abspath(os.fsdecode(args[0]))])
    elif event in ("subprocess.Popen", "os.exec", "os.posix_spawn", "os.system", "os.fork"):
        seen.append(["process", str(args)])
    elif event in ("socket.connect", "socket.sendto"):
        seen.append(["host", str(args[1])])
    elif event in ("os.rename", "os.mkdir", "os.remove", "os.symlink", "os.link"):
        seen.append(["write", os.path.abspath(os.fsdecode(args[0]))])
    elif event in ("compile", "exec") and "evil" in str(args):
        seen.append(["code", str(args)])
from fendra.cli import app
import matplotlib.font_manager, fendra.draw.map, fendra.sheet.page
sys.addaudithook(hook)
codes = []
for words in json.loads(sys.argv[1]):
    sys.argv = ["fendra", *words]
    try:
        app.main()
    except SystemExit as exc:
        codes.append(exc.code or 0)
    finally:
        print("----", file=sys.stderr)
print("RESULT" + json.dumps([codes, seen]))
"""
COMMANDS = (
    ["check", "gift.toml"], ["film", "gift.toml", "--sweep", "s=0:1:0.2s", "--seconds", "0.05"],
    ["sheet", "gift.toml"], ["layout", "gift.toml"], ["presets", "list", "gift.toml"],
    ["run", "gift.toml", "--for", "0.3", "--set", "s=1"],
)  # fmt: skip


@pytest.mark.unix
@pytest.mark.parametrize("name", GIFTS)
def test_it_leaves_no_trace_outside_its_folder(name, tmp_path):
    folder, home = tmp_path / "gift", tmp_path / "home"
    folder.mkdir()
    home.mkdir()
    evil = 'from pathlib import Path\nPath(__file__).with_name("pwned").write_text("x")\n'
    for path in (folder / "evil.py", tmp_path / "evil.py"):
        path.write_text(evil)
    (folder / "link.py").symlink_to(tmp_path / "evil.py")
    (folder / "away").symlink_to(tmp_path)
    (folder / "victim.sh").write_text("echo dear\n")
    (folder / "dear.npz").write_bytes(b"PK dear")
    for pipe in ("pipe.png", "pipe.csv"):
        os.mkfifo(folder / pipe)
    with socket.create_server(("127.0.0.1", 0)) as broker:
        port = broker.getsockname()[1]
        top, rest = GIFTS[name]
        text = BASE.replace("TOP", top).replace("REST", rest).replace("PORT", str(port))
        (folder / "gift.toml").write_text(text)
        came = []
        threading.Thread(target=lambda: came.append(broker.accept()), daemon=True).start()
        env = {
            "PATH": os.environ["PATH"], "HOME": str(home), "AWS_KEY": "secret", "MPLCONFIGDIR": str(home),
            "PYTHONPATH": os.pathsep.join(sys.path), "PYTHONDONTWRITEBYTECODE": "1",
        }  # fmt: skip
        done = subprocess.run(
            [sys.executable, "-c", WATCH, json.dumps(COMMANDS)], cwd=folder, env=env, text=True,
            capture_output=True, stdin=subprocess.DEVNULL, timeout=120, check=False,
        )  # fmt: skip
    result = [line for line in done.stdout.splitlines() if line.startswith("RESULT")]
    assert result, (done.stdout, done.stderr)
    assert "Traceback" not in done.stderr
    assert "internal error" not in done.stderr + done.stdout
    codes, seen = json.loads(result[0].removeprefix("RESULT"))
    assert len(codes) == len(COMMANDS)
    assert all(code in (0, 1, 2) for code in codes)
    if name == "code":
        assert codes[:5] == [0] * 5  # everything else works
    kept = (str(folder), str(home), "/dev/null")
    assert not [each for each in seen if each[0] != "write" or not each[1].startswith(kept)]
    assert not came
    assert not list(tmp_path.rglob("pwned"))
    assert (folder / "victim.sh").read_text() == "echo dear\n"
    assert (folder / "dear.npz").read_bytes() == b"PK dear"
    assert sorted(path.name for path in tmp_path.iterdir()) == ["evil.py", "gift", "home"]
    assert "secret" not in done.stdout + done.stderr
