"""The screen: its edges, or all of it, for LEDs round it or behind it. Its name is `screen`."""

from __future__ import annotations

import io
import time
from collections.abc import Callable
from pathlib import Path
from typing import Annotated, Any

import numpy as np
from PIL import Image
from pydantic import Field

from fendra.core.document.design import Design
from fendra.core.errors import NEVER, SourceError
from fendra.core.findings import Report
from fendra.core.layout import Layout, choose_all
from fendra.core.layout.views import VIEWS, best_view
from fendra.core.limits import PICTURE_BYTES, PICTURE_PIXELS
from fendra.core.senses.screen import Curve, ScreenLight
from fendra.core.signals.kinds import kind_of
from fendra.drivers import Options, setting
from fendra.sources import EndOfSource, News, Source
from fendra.sources.captures import grabber
from fendra.whole import read_bytes

CURVES: dict[str, Curve] = {
    "day": [(0.0, 0.0), (0.5, 0.5), (1.0, 1.0)],
    "night": [(0.0, 0.0), (0.5, 0.25), (1.0, 0.65)],
}
"""How bright the light is for a brightness of the screen, as the eye sees both."""
SETTINGS = {"saturation": (0.0, 4.0), "floor": (0.0, 1.0), "grey": (0.0, 1.0)}
"""Settings that can be signals, with their least and most."""


def curve_between(day: float) -> Curve | None:
    """The curve at a time between night, 0, and day, 1; none by day, which changes nothing.

    >>> curve_between(0.5)
    [(0.0, 0.0), (0.5, 0.375), (1.0, 0.825)]
    """
    day = min(max(day, 0.0), 1.0)
    if day == 1.0:
        return None
    pairs = zip(CURVES["night"], CURVES["day"], strict=True)
    return [(x, dark + (bright - dark) * day) for (x, dark), (_, bright) in pairs]


ENDINGS = {".png", ".jpg", ".jpeg", ".webp", ".bmp"}


class ScreenOptions(Options):
    """Options of the screen.

    Attributes:
        address: the number of the screen (1 is the first), a picture, or a folder of
            pictures, shown in the order of their names
        rate: captures a second
        area: the side of the square that an LED sees, as a share of the screen's shorter
            side
        step: samples every n-th pixel
        bars: ignores black bars
        saturation: 1 leaves colours as they are; a number, or the name of a signal
        floor: the least brightness, 0 to 1; dark light keeps its colour; or the name of a signal
        grey: colours weaker than this become grey, 0 to 1; or the name of a signal
        curve: `day`, `night`, or the name of a signal that is 1 by day and 0 at night
        settle: time constant, s
        loop: pictures start again at the end
    """

    address: str = "1"
    rate: Annotated[float, Field(gt=0, le=240)] = 30.0
    area: Annotated[float, Field(gt=0, le=1)] = 0.15
    step: Annotated[int, Field(ge=1, le=64)] = 4
    bars: bool = True
    saturation: Annotated[float | str, setting(0, 4)] = 1.2
    floor: Annotated[float | str, setting(0, 1)] = 0.0
    grey: Annotated[float | str, setting(0, 1)] = 0.02
    curve: str = "day"
    settle: Annotated[float, Field(ge=0, le=10)] = 0.06
    loop: bool = True


class ScreenSource(Source):
    """The picture of a screen, captured repeatedly (under X11, macOS and Windows)."""

    Options = ScreenOptions
    options: ScreenOptions
    example = "screen:1,rate=30"

    def __init__(
        self, address: str = "1", *, clock: Callable[[], float] = time.perf_counter,
        sleep: Callable[[float], None] = time.sleep, **options: Any,
    ) -> None:  # fmt: skip
        super().__init__(address or "1", **options)
        self._clock, self._sleep = clock, sleep
        self._grabber: Any = None

    def __str__(self) -> str:
        return f"screen {self.options.address}"

    @property
    def follows(self) -> frozenset[str]:
        """The signals that its settings are."""
        options = self.options
        given = (options.saturation, options.floor, options.grey)
        names = {each for each in given if isinstance(each, str)}
        return frozenset(names if options.curve in CURVES else {*names, options.curve})

    def _set(self, look: ScreenLight) -> None:
        """Settings as they are now. One whose signal is not known yet has its usual value."""
        for key, (least, most) in SETTINGS.items():
            given, usual = getattr(self.options, key), ScreenOptions.model_fields[key].default
            told = self.value_of(given) if isinstance(given, str) else given
            setattr(look, key, min(max(usual if told is None else float(told), least), most))
        named = self.options.curve
        share = {"day": 1.0, "night": 0.0}.get(named)
        told = self.value_of(named) if share is None else share
        look.curve = curve_between(1.0 if told is None else float(told))

    def _open(self, design: Design, layout: Layout) -> None:
        places, self._spots = screen_places(design, layout)
        self._light = np.zeros((len(layout), 3), np.float32)
        options = self.options
        settle = 1.0 if options.settle == 0 else 1 - np.exp(-1 / (options.rate * options.settle))
        self.check_signals(design)
        self._look = ScreenLight(
            places, area=options.area, step=options.step, finds_bars=options.bars,
            settle=float(settle),
        )  # fmt: skip
        self._set(self._look)
        self._due_s = self._clock()
        self._pictures: list[Path] = []
        if options.address.isdigit():
            self._open_screen(int(options.address))
        else:
            self._open_pictures(self.folder / options.address)

    def _open_pictures(self, path: Path) -> None:
        every = sorted(path.iterdir()) if path.is_dir() else [path]
        self._pictures = [
            file for file in every if file.suffix.lower() in ENDINGS and file.is_file()
        ]
        if not self._pictures:
            kinds = "PNG, JPEG, WebP and BMP can be read"
            raise SourceError(f"there is no picture at '{path}'; {kinds}", code=NEVER)
        self._place = 0

    def _open_screen(self, number: int) -> None:
        try:
            self._grabber = grabber()
            monitors = self._grabber.monitors
        except SourceError:
            raise
        except Exception as exc:  # of each system its own
            raise SourceError(f"{self} cannot be captured: {exc}") from exc
        if not 1 <= number < len(monitors):
            raise SourceError(f"there is no {self}; there are {len(monitors) - 1}", code=NEVER)
        self._monitor = monitors[number]

    def _read(self, wait_s: float) -> News:
        left_s = self._due_s - self._clock()
        if left_s > 0:
            self._sleep(min(left_s, wait_s))
            if left_s > wait_s:
                return ()
        period_s = 1 / self.options.rate
        self._due_s = max(self._due_s + period_s, self._clock() - period_s)
        if self.follows:
            self._set(self._look)
        self._light[self._spots] = self._look.look(self._picture())
        return [("screen", self._light.copy())]

    def _picture(self) -> Any:
        if self._grabber is not None:
            try:
                shot = self._grabber.grab(self._monitor)
            except Exception as exc:
                raise SourceError(f"{self} cannot be captured: {exc}") from exc
            return np.frombuffer(shot.bgra, np.uint8).reshape(shot.height, shot.width, 4)[
                ..., 2::-1
            ]
        if self._place == len(self._pictures):
            if not self.options.loop:
                raise EndOfSource
            self._place = 0
        path = self._pictures[self._place]
        self._place += 1
        try:
            data = read_bytes(path, PICTURE_BYTES, is_plain=True)
            with Image.open(io.BytesIO(data)) as picture:
                if picture.width * picture.height > PICTURE_PIXELS.most:
                    raise SourceError(f"it is too large; the most is {PICTURE_PIXELS.in_words}")
                return np.asarray(picture.convert("RGB"))
        except Exception as exc:  # each format has errors of its own
            problem = str(exc)[:100] or type(exc).__name__
            raise SourceError(f"'{path}' cannot be read as a picture: {problem}") from exc

    def _close(self) -> None:
        if self._grabber is not None:
            self._grabber.close()
            self._grabber = None


def screen_places(design: Design, layout: Layout) -> tuple[Any, Any]:
    """Where on the screen the LEDs of the design's picture are, (n, 2), and which those are.

    From left to right and from top to bottom, each 0 to 1, as they are seen best.
    Raises SourceError if the design has no signal that is a picture.
    """
    name = next((name for name, s in design.signals.items() if kind_of(s).is_picture), None)
    if name is None:
        raise SourceError(
            "no signal of the design is a picture; add one with kind = 'picture'", code=NEVER
        )
    spots = choose_all(design, layout, Report()).written["signals", name, "on"].spots
    side = VIEWS[best_view(layout.position[spots], layout.facing[spots])]
    flat = side.flat(layout.position[spots]) * (-1.0 if side.is_flipped else 1.0, 1.0)
    low, high = flat.min(axis=0), flat.max(axis=0)
    shares = (flat - low) / np.where(high > low, high - low, 1.0)
    shares[:, high <= low] = 0.5
    shares[:, 1] = 1 - shares[:, 1]
    return shares, spots
