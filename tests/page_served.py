"""A page that is served: a run, the bench, and what asks them for something."""

from __future__ import annotations

import json
import threading
from contextlib import suppress
from pathlib import Path
from urllib.error import HTTPError
from urllib.request import Request, urlopen

import fendra as fd
from fendra.core.errors import PageError
from fendra.core.program import compile_design
from fendra.live.connect import Connected, connect
from fendra.live.session import Session
from fendra.live.steering import Steering
from fendra.live.watch import Watch
from fendra.page.served.bench import LiveBench
from fendra.page.served.cues import Cues
from fendra.page.served.desk import Desk
from fendra.page.served.served import Served
from fendra.page.served.server import Place, Server
from helpers import free_port, until


class Running:
    """A run of a design with its page. address: where it is, without the last stroke."""

    def __init__(self, path: Path, *, port: int | None = None, outputs=(), **place):
        self.path = path
        read = fd.load(path)
        self.server = a_server(port, **place)
        self.steering = Steering(read.examined, compile_design)
        connected = connect(read, sources=[], outputs=outputs) if outputs else Connected()
        self.session = Session(self.steering.program(), connected)
        self.steering.steer(self.session.inbox, self.session.loop.use)
        self.served = Served(
            self.server.gate, Watch(self.session, self.steering), self.steering,
            cues=Cues(path), desk=Desk(path),
        )  # fmt: skip
        self.server.serve(self.served)
        self.thread = threading.Thread(target=self.session.run)
        self.thread.start()
        until(lambda: self.session.loop.frame is not None, "the first frame")
        self.address = f"{self.server.scheme}://127.0.0.1:{self.server.port}"

    def end(self):
        self.session.loop.stop()
        self.thread.join()
        self.server.stop()


class OnBench:
    """The bench with its page."""

    def __init__(self, path: Path):
        read = fd.load(path)
        self.server = a_server()
        connected = connect(read, sources=[], outputs=["memory:"])
        self.bench = LiveBench(path, read.examined, [*connected.outputs.values()], print)
        self.server.serve(Served(self.server.gate, bench=self.bench))
        self.bench.start()
        self.address = f"http://127.0.0.1:{self.server.port}"

    def end(self):
        self.bench.stop()
        self.bench.join()
        self.server.stop()


def a_server(port: int | None = None, **place) -> Server:
    """A server at that port, or at one that is free: another program may be quicker to take it."""
    if port is not None:
        return Server(Place(port=port, **place))
    for _ in range(5):
        with suppress(PageError):
            return Server(Place(port=free_port(), **place))
    raise AssertionError("no port is free")


def ask(address, method="GET", body=None, *, token="", raw=None, **headers):
    """Status and answer of a call. body: JSON; raw: bytes instead."""
    data = raw if raw is not None else None if body is None else json.dumps(body).encode()
    request = Request(address, data=data, method=method)
    request.add_header("Content-Type", "application/json")
    if token:
        request.add_header("Authorization", f"Bearer {token}")
    for name, value in headers.items():
        request.add_header(name.replace("_", "-"), value)
    try:
        with urlopen(request, timeout=30) as answer:
            return answer.status, _read(answer)
    except HTTPError as exc:
        with exc:
            return exc.code, _read(exc)


def _read(answer):
    held = answer.read()
    is_json = "json" in answer.headers.get("Content-Type", "")
    return json.loads(held) if is_json else held
