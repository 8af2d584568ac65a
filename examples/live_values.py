"""Heron live from Python: values come from a program of one's own, frames go to a film.

Run it: it rides for two seconds, brakes in the second one, and says what the tail bar showed.
"""

from __future__ import annotations

import tempfile
import threading
import time
from pathlib import Path

import numpy as np

import fendra as fd


def main() -> list[int]:
    """Put values in from a thread while it runs; gives the red of the tail bar over time."""
    design = fd.load(fd.demo_file("heron.toml"))
    with tempfile.TemporaryDirectory() as folder:
        film = Path(folder) / "ride.npz"
        session = design.live(sources=[], outputs=[f"film:{film}"], for_s=2.0)

        def ride() -> None:
            for step in range(20):
                session.inbox.put("me", "speed", 20 - step / 2)
                session.inbox.put("me", "lights", True)
                session.inbox.put("me", "brake", 1.0 if step > 9 else 0.0)
                time.sleep(0.1)

        threading.Thread(target=ride, daemon=True).start()
        report = session.run()
        with np.load(film) as shown:
            tail = design.layout().spots_of_part("tail-bar")
            reds = shown["rgb"][:, tail, 0].max(axis=1).tolist()
    print(f"{report.rendered} frames, {report.late} late; red of the tail bar every 0.2 s:")
    print(" ".join(f"{red:3d}" for red in reds[::10]))
    return [int(red) for red in reds]


if __name__ == "__main__":
    main()
