"""A server with a JSON address, as a home automation has one, for a colour or a level to share."""

from __future__ import annotations

import json
from collections.abc import Mapping
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from threading import Thread
from typing import Any

from fendra.demo.stand_ins import StandIn


class Web(StandIn):
    """Answers with the newest values, each by its name; with an ETag, so that unchanged values are
    not sent again.
    """

    about = "a server with a JSON address"

    def __init__(self, address: str = "") -> None:
        super().__init__(address or "127.0.0.1:9480")
        self.values: dict[str, float] = {}
        self.asked = 0
        self._server: Any = None

    def start(self) -> str:
        stand_in = self

        class Handler(BaseHTTPRequestHandler):
            def do_GET(self) -> None:
                stand_in.asked += 1
                text = json.dumps(stand_in.values).encode()
                tag = f'"{hash(text):x}"'
                is_known = self.headers.get("If-None-Match") == tag
                self.send_response(304 if is_known else 200)
                self.send_header("ETag", tag)
                self.send_header("Content-Type", "application/json")
                self.end_headers()
                if not is_known:
                    self.wfile.write(text)

            def log_message(self, *_: Any) -> None:
                pass

        host, _, port = self.address.rpartition(":")
        self._server = ThreadingHTTPServer((host, int(port)), Handler)
        Thread(target=self._server.serve_forever, daemon=True).start()
        return f"http:http://{host}:{self._server.server_address[1]}/,every=0.5"

    def say(self, at_s: float, values: Mapping[str, float]) -> None:  # noqa: ARG002 - they are asked for
        self.values |= values

    def close(self) -> None:
        if self._server is not None:
            self._server.shutdown()
            self._server.server_close()
