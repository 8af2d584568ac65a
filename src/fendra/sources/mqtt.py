"""MQTT: topics are names. Below the root `heron` the topic `heron/speed` is `speed`.

A payload is a number, a word, a colour or a JSON object, whose items are named `topic.item`. The
run publishes its state below `ROOT/state`, retained. `ROOT/state/online` is `on` while it runs;
when it is gone, the broker changes it to `off` (its last will).
"""

from __future__ import annotations

import json
import os
import re
from collections import deque
from contextlib import suppress
from threading import Event
from typing import Annotated, Any

from pydantic import Field

from fendra.core.document.design import Design
from fendra.core.errors import SourceError, reason
from fendra.core.layout import Layout
from fendra.core.limits import NAME_LETTERS, PACKET_BYTES, WAITING
from fendra.drivers import Options
from fendra.sources import News, Source, package, split_address
from fendra.sources.texts import check_size

CONNECT_S = 5.0
KEEPALIVE_S = 10


class MqttOptions(Options):
    """Options of a broker.

    Attributes:
        address: `HOST` or `HOST:PORT`
        root: the topic below which everything is; the design's name in lower case by
            default
        tls: encrypts the connection
        ca: a file of certificates to trust instead of the system's
        user: the name of an environment variable with the user; a design may name those
            that begin with FENDRA_
        password: the name of an environment variable with the password; likewise
        keepalive: time between signs of life, s
    """

    address: str = "localhost"
    root: str = ""
    tls: bool = False
    ca: str = ""
    user: str = "FENDRA_MQTT_USER"
    password: str = "FENDRA_MQTT_PASSWORD"
    keepalive: Annotated[int, Field(ge=1, le=3600)] = KEEPALIVE_S


class MqttSource(Source):
    """A broker whose topics feed signals."""

    is_public = True
    brings_memory = True
    Options = MqttOptions
    options: MqttOptions
    example = "mqtt:localhost,root=heron"

    def __init__(self, address: str = "localhost", **options: object) -> None:
        super().__init__(address or "localhost", **options)
        port = 8883 if self.options.tls else 1883
        self._host, self._port = split_address(self.options.address, "localhost", port)
        self._client: Any = None
        self._came: deque[tuple[str, bytes]] = deque(maxlen=WAITING.most)
        self._lost: SourceError | None = None
        self._news, self._answered = Event(), Event()
        self._told: dict[str, str] = {}

    def __str__(self) -> str:
        return f"MQTT broker {self._host}:{self._port}"

    @property
    def host(self) -> str:
        """The broker's."""
        return self._host

    def check_from_design(self) -> None:
        """A design names no other environment variables than those that are meant for Fendra."""
        for key in ("user", "password"):
            name = getattr(self.options, key)
            if not name.startswith("FENDRA_"):
                raise SourceError(
                    (
                        f"{key} = '{name}': a design may only name environment "
                        "variables that begin with FENDRA_, such as "
                        f"FENDRA_MQTT_{key.upper()}. Name others yourself: --from "
                        f"mqtt:HOST,{key}=NAME"
                    ),
                    code="unsafe",
                )

    def _open(self, design: Design, layout: Layout) -> None:  # noqa: ARG002 - all is taken
        paho = package("paho.mqtt.client")
        name = re.sub(r"[^a-z0-9]+", "-", design.name.casefold()).strip("-") or "fendra"
        self._root = self.options.root.strip("/") or name
        self._came.clear()
        self._answered.clear()
        self._lost = None
        self._is_connected = False
        self._client = client = paho.Client(paho.CallbackAPIVersion.VERSION2)
        user = os.environ.get(self.options.user)
        if user is not None:
            client.username_pw_set(user, os.environ.get(self.options.password))
        client.will_set(f"{self._root}/state/online", "off", qos=1, retain=True)
        client.on_connect = self._on_connect
        client.on_disconnect = self._on_disconnect
        client.on_message = self._on_message
        client.connect_timeout = CONNECT_S
        try:
            if self.options.tls:
                client.tls_set(ca_certs=self.options.ca or None)
            client.connect(self._host, self._port, keepalive=self.options.keepalive)
        except (OSError, ValueError) as exc:
            raise SourceError(f"{self} cannot be reached: {reason(exc)}") from exc
        client.loop_start()
        if not self._answered.wait(CONNECT_S):
            raise SourceError(f"{self} does not answer")

    def _on_connect(self, client: Any, _data: Any, _flags: Any, reason: Any, _more: Any) -> None:
        if reason.is_failure:
            self._fail(SourceError(f"{self} refuses the login: {reason}"))
            return
        self._is_connected = True
        self._answered.set()
        client.subscribe(f"{self._root}/#", qos=0)
        client.publish(f"{self._root}/state/online", "on", qos=1, retain=True)
        for topic, text in self._told.items():
            client.publish(topic, text, retain=True)

    def _on_disconnect(self, _client: Any, _d: Any, _flags: Any, reason: Any, _more: Any) -> None:
        self._fail(SourceError(f"{self} is gone: {reason}"))

    def _fail(self, error: SourceError) -> None:
        self._lost = self._lost or error
        self._answered.set()
        self._news.set()

    def _on_message(self, _client: Any, _data: Any, message: Any) -> None:
        """Take a message; if messages arrive too fast to read, the older ones are dropped."""
        try:
            topic, payload = message.topic, message.payload
        except UnicodeDecodeError:
            self.refuse("a topic that is not UTF-8")
            return
        if len(payload) > PACKET_BYTES.most or len(topic) > NAME_LETTERS.most:
            self.refuse(
                f"{topic[:60]}: a message of {len(payload):,} bytes; at most 65,536 are allowed"
            )
            return
        self.skipped += len(self._came) == WAITING.most
        self._came.append((topic, payload))
        self._news.set()

    def _read(self, wait_s: float) -> News:
        news: list[tuple[str, object]] = []
        self._news.wait(wait_s)
        self._news.clear()
        if self._lost is not None:
            raise self._lost
        while self._came and len(news) < WAITING.most:
            self._hear(*self._came.popleft(), news)
        return news

    def _hear(self, topic: str, payload: bytes, news: list[tuple[str, object]]) -> None:
        name = topic.removeprefix(f"{self._root}/")
        if name.startswith("state/") and name != "state/memory":
            return
        try:
            news.append((name, value_of(payload)))
        except ValueError as exc:
            self.refuse(f"{topic}: {exc}")

    def say(self, name: str, value: Any) -> bool:
        """Publish something about the run below `ROOT/state`, retained."""
        topic, text = f"{self._root}/state/{name}", str(value)
        if self._client is None or self._told.get(topic) == text:
            return self._client is not None
        self._told[topic] = text
        if self._is_connected:
            self._client.publish(topic, text, retain=True)
        return True

    def _close(self) -> None:
        client, self._client = self._client, None
        if client is None:
            return
        client.on_disconnect = None
        if self._is_connected:
            with suppress(Exception):
                client.publish(f"{self._root}/state/online", "off", qos=1, retain=True)
                client.disconnect()
        client.loop_stop()


def value_of(payload: bytes) -> Any:
    """A payload as a raw value: JSON if it is JSON, else its text. Raises ValueError.

    >>> value_of(b"12.5"), value_of(b'{"x": 1}'), value_of(b"wild"), value_of(b"")
    (12.5, {'x': 1}, 'wild', 1.0)
    """
    text = payload.decode().strip()
    if not text:
        return 1.0
    try:
        found = json.loads(text)
        check_size(found)
        return found
    except RecursionError as exc:
        raise ValueError("it is nested too deeply") from exc
    except json.JSONDecodeError:
        return text
