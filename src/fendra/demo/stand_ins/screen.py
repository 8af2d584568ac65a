"""A screen: pictures of a sunset that moves, with black bars above and below."""

from __future__ import annotations

from pathlib import Path

import numpy as np
from PIL import Image

from fendra.demo.stand_ins import WritesFiles

COUNT = 48
WIDTH, HEIGHT, BAR = 480, 270, 34


def scene(number: int) -> np.ndarray:
    """One picture, (height, width, 3) sRGB: a sky, a sun that wanders, a sea."""
    y, x = np.mgrid[0:HEIGHT, 0:WIDTH] / (HEIGHT, WIDTH)[0]
    x = x * HEIGHT / WIDTH
    turn = 2 * np.pi * number / COUNT
    sky = np.stack([40 + 190 * y, 30 + 90 * y, 120 - 60 * y], axis=-1)
    sun = np.exp(-(((x - 0.5 - 0.35 * np.cos(turn)) * 1.8) ** 2 + (y - 0.45) ** 2) * 40)
    picture = sky + sun[..., None] * np.array([255, 190, 60])
    sea = np.stack([10 + 30 * np.sin(40 * y + turn * 4), 60 + 40 * y, 110 + 60 * y], axis=-1)
    picture = np.where((y > 0.62)[..., None], sea, picture)
    picture[:BAR] = picture[-BAR:] = 0
    return np.asarray(np.clip(picture, 0, 255), np.uint8)


class Screen(WritesFiles):
    """Writes the pictures into a folder."""

    about = "what a screen shows, as a folder of pictures"
    design = "cabinet.toml"
    file = "game.csv"

    def start(self) -> str:
        folder = Path(self.address or "screen")
        folder.mkdir(parents=True, exist_ok=True)
        for number in range(COUNT):
            Image.fromarray(scene(number)).save(folder / f"{number:03}.png")
        return f"screen:{folder}"
