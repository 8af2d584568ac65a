"""Something that publishes by MQTT; the broker itself must run."""

from __future__ import annotations

from collections.abc import Mapping

from fendra.demo.stand_ins import StandIn


class Broker(StandIn):
    """Publishes each value below `heron/`, retained."""

    about = "things that publish by MQTT (a broker must run, as mosquitto)"

    def start(self) -> str:
        from paho.mqtt.client import Client
        from paho.mqtt.enums import CallbackAPIVersion

        host, _, port = (self.address or "localhost:1883").rpartition(":")
        self._client = Client(CallbackAPIVersion.VERSION2)
        self._client.connect(host or "localhost", int(port))
        self._client.loop_start()
        return f"mqtt:{host or 'localhost'}:{port},root=heron"

    def say(self, at_s: float, values: Mapping[str, float]) -> None:
        del at_s
        for name, value in values.items():
            self._client.publish(f"heron/{name}", f"{value:g}", retain=True)

    def close(self) -> None:
        self._client.disconnect()
        self._client.loop_stop()
