"""Some seconds as an animated GIF or PNG."""

from __future__ import annotations

import os
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from functools import partial
from itertools import chain
from pathlib import Path
from typing import Any

import numpy as np
from PIL import Image
from PIL.PngImagePlugin import PngInfo

from fendra.core.film import Film
from fendra.core.names import ViewName
from fendra.draw.glow import Stage
from fendra.draw.mp4 import find_ffmpeg, write_mp4
from fendra.draw.still import draw_still
from fendra.draw.style import format_of
from fendra.outputs.files import MARK
from fendra.whole import write_whole

Progress = Callable[[int, int], None]

PICTURES_PER_S = 20
"""GIF counts in hundredths of a second; many viewers slow down below 0.03 s a picture."""

KINDS = {".gif": "GIF", ".png": "PNG", ".apng": "PNG", ".mp4": "MP4"}


def write_animation(
    film: Film,
    path: str | Path,
    start_s: float,
    duration_s: float,
    *,
    size: tuple[int, int] = (640, 400),
    view: ViewName = "top",
    diffuser_mm: float = 0.0,
    progress: Progress | None = None,
) -> Path:
    """Write the part of a film from `start_s` on as GIF (.gif), animated PNG (.png, .apng) or,
    where ffmpeg is installed, MP4 (.mp4).

    diffuser_mm: as seen through one that far before the LEDs. progress: called with pictures done
    and pictures in all. Raises FileError.
    """
    kind = format_of(path, KINDS)
    if kind == "MP4":
        find_ffmpeg()
    stage = Stage(film.design, film.layout, size, view, diffuser_mm)
    count = max(round(duration_s * PICTURES_PER_S), 1)
    times = (start_s + np.arange(count) / PICTURES_PER_S).tolist()
    first = draw_still(stage, film, times[0])  # makes all that the others share
    pictures = []
    with ThreadPoolExecutor(os.cpu_count()) as pool:  # most of the work is NumPy's and Pillow's
        others = pool.map(partial(draw_still, stage, film), times[1:])
        for picture in chain([first], others):
            pictures.append(picture)
            if progress is not None:
                progress(len(pictures), count)
    if kind == "MP4":
        return write_whole(path, lambda beside: write_mp4(beside, pictures, PICTURES_PER_S))
    if kind == "GIF":
        pictures = _with_one_palette(pictures)
    step_ms = 1000 // PICTURES_PER_S

    def write(beside: Path) -> None:
        first, *rest = pictures
        mark: dict[str, Any] = {"comment": MARK}
        if kind == "PNG":
            mark = {"pnginfo": PngInfo()}
            mark["pnginfo"].add_text("Software", MARK)
        first.save(
            beside, format=kind, save_all=True, append_images=rest, duration=step_ms, loop=0, **mark
        )

    return write_whole(path, write)


def _with_one_palette(pictures: list[Image.Image]) -> list[Image.Image]:
    """Pictures in 256 colours that suit all of them, so that nothing flickers.

    Most of a picture is night, and what matters is a few lit pixels: a colour counts by a root
    of how often it is seen.
    """
    shown = pictures[:: max(len(pictures) // 12, 1)]
    pixels = np.concatenate([np.asarray(picture).reshape(-1, 3) for picture in shown])
    coarse = (pixels >> 2).astype(np.uint32) @ np.array([1 << 12, 1 << 6, 1], np.uint32)
    _, first, counts = np.unique(coarse, return_index=True, return_counts=True)
    samples = np.repeat(pixels[first], np.ceil(counts**0.35).astype(int), axis=0)
    palette = Image.fromarray(samples[None]).quantize(256, method=Image.Quantize.MEDIANCUT)
    with ThreadPoolExecutor(os.cpu_count()) as pool:
        fit = partial(Image.Image.quantize, palette=palette, dither=Image.Dither.NONE)
        return [*pool.map(fit, pictures)]
