"""Sound: level, peak, bands and onsets, from a microphone, from what the computer plays, or from a
file.

Names: `level` and `peak` (0 to 1), `bands` (a vector, each 0 to 1, from low to high), `onset` (an
event with its strength). A sound becomes a number in about 23 ms, plus the frame's time.
"""

from __future__ import annotations

import time
from collections.abc import Callable
from pathlib import Path
from queue import Empty, SimpleQueue
from typing import Annotated, Any, Literal

from pydantic import Field

from fendra.core.document.design import Design
from fendra.core.errors import NEVER, SourceError
from fendra.core.layout import Layout
from fendra.core.senses.sound import Listener, SoundLevels
from fendra.core.signals.kinds import kind_of
from fendra.core.signals.raw import Event
from fendra.drivers import Options
from fendra.sources import EndOfSource, News, Source, package
from fendra.sources.loopback import Loopback

LOOPBACK = "loopback"


class AudioOptions(Options):
    """Options of sound.

    Attributes:
        address: a file (WAV, FLAC, OGG), or the name of an input device; the usual device
            by default; `loopback` for what the computer itself plays, `loopback NAME` for one of
            its outputs. `fendra devices` lists them
        bands: how many bands; as many as the design's signal has by default
        low: lowest frequency, Hz
        high: highest frequency, Hz
        weighting: `A` as the ear hears, `C` flatter, or `none`
        attack: time constant when the sound rises, s
        release: time constant when it falls, s
        gain: dB to add; by default it adapts to the sound
        loop: a file starts again at its end
    """

    bands: Annotated[int, Field(ge=1, le=64)] | None = None
    low: Annotated[float, Field(ge=10, le=20_000)] = 40.0
    high: Annotated[float, Field(ge=20, le=96_000)] = 16_000.0
    weighting: Literal["A", "C", "none"] = "A"
    attack: Annotated[float, Field(ge=0, le=10)] = 0.01
    release: Annotated[float, Field(ge=0, le=10)] = 0.25
    gain: Annotated[float, Field(ge=-60, le=120)] | None = None
    loop: bool = True


class AudioSource(Source):
    """A microphone, a line in, what the computer plays, or a file in real time (without sound)."""

    Options = AudioOptions
    options: AudioOptions
    example = "audio:song.wav,bands=8"

    def __init__(
        self, address: str = "", *, clock: Callable[[], float] = time.perf_counter,
        sleep: Callable[[float], None] = time.sleep, **options: Any,
    ) -> None:  # fmt: skip
        super().__init__(address, **options)
        self._clock, self._sleep = clock, sleep
        self._file: Any = None
        self._stream: Any = None
        self._device_s = 0.0

    def __str__(self) -> str:
        return f"sound {self.options.address}".strip()

    @property
    def latency_s(self) -> float:
        """From a sound to its number, in seconds; once it is open."""
        return self._listener.latency_s + self._device_s

    def _open(self, design: Design, layout: Layout) -> None:  # noqa: ARG002 - the place is nothing to it
        sizes = [s.size for s in design.signals.values() if kind_of(s).is_list and s.size]
        self._bands = self.options.bands or (sizes[0] if sizes else 8)
        path = self.folder / self.options.address
        if self.options.address and path.suffix.lower() in (".wav", ".flac", ".ogg", ".aiff"):
            self._open_file(path)
        else:
            self._open_device()

    def _listen_at(self, rate_hz: float) -> None:
        options = self.options
        self._listener = Listener(
            rate_hz, bands=self._bands, low_hz=options.low, high_hz=options.high,
            weighting=options.weighting, attack_s=options.attack, release_s=options.release,
            gain_db=options.gain,
        )  # fmt: skip

    def _open_file(self, path: Path) -> None:
        soundfile = package("soundfile")
        try:
            self._file = soundfile.SoundFile(path)
        except (OSError, RuntimeError) as exc:
            raise SourceError(f"'{path}' cannot be read as sound: {exc}", code=NEVER) from exc
        self._listen_at(self._file.samplerate)
        self._due_s = self._clock()

    def _open_device(self) -> None:
        self._blocks: SimpleQueue[Any] = SimpleQueue()
        word, _, name = self.options.address.partition(" ")
        if word == LOOPBACK:
            self._stream = Loopback(name.strip(), self._blocks.put)
            self._listen_at(self._stream.samplerate)
            self._tell_latency(self._stream.latency_s)
            return
        sounddevice = package("sounddevice")

        def take(block: Any, _frames: int, _time: Any, _status: Any) -> None:
            self._blocks.put(block.copy())

        try:
            self._stream = sounddevice.InputStream(
                device=self.options.address or None, channels=1, latency="low", callback=take
            )
            self._listen_at(self._stream.samplerate)
            self._stream.start()
            self._tell_latency(float(self._stream.latency))
        except Exception as exc:  # PortAudio has errors of its own
            cure = "is a microphone plugged in? `fendra devices` lists them"
            raise SourceError(f"{self} cannot be opened: {exc}; {cure}", code=NEVER) from exc

    def _tell_latency(self, device_s: float) -> None:
        self._device_s = device_s
        self.notice = f"{self}: a sound becomes a number after about {self.latency_s * 1000:.0f} ms"

    def _read(self, wait_s: float) -> News:
        heard = self._read_file(wait_s) if self._file is not None else self._read_device(wait_s)
        if not heard:
            return ()
        last = heard[-1]
        news: list[tuple[str, Any]] = [
            ("level", last.level), ("peak", last.peak), ("bands", last.bands),
        ]  # fmt: skip
        return news + [("onset", Event(look.onset)) for look in heard if look.onset > 0]

    def _read_file(self, wait_s: float) -> list[SoundLevels]:
        left_s = self._due_s - self._clock()
        if left_s > 0:
            self._sleep(min(left_s, wait_s))
            if left_s > wait_s:
                return []
        behind_s = self._clock() - self._due_s
        hops = 1 + min(int(behind_s / self._listener.hop_s), 64)
        self._due_s += hops * self._listener.hop_s
        block = self._file.read(hops * self._listener.hop, dtype="float32", always_2d=True)
        if len(block) == 0:
            if not self.options.loop or self._file.frames == 0:
                raise EndOfSource
            self._file.seek(0)
        return self._listener.feed(block) if len(block) else []

    def _read_device(self, wait_s: float) -> list[SoundLevels]:
        heard: list[SoundLevels] = []
        try:
            heard += self._listener.feed(self._blocks.get(timeout=wait_s))
            while True:
                heard += self._listener.feed(self._blocks.get_nowait())
        except Empty:
            pass
        if not self._stream.active:
            raise SourceError(f"{self} is gone")
        return heard

    def _close(self) -> None:
        if self._file is not None:
            self._file.close()
            self._file = None
        if self._stream is not None:
            self._stream.close()
            self._stream = None
