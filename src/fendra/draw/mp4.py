"""Moving pictures as MP4, where ffmpeg is installed."""

from __future__ import annotations

import shutil
import subprocess
from collections.abc import Sequence
from pathlib import Path

from PIL import Image

from fendra.core.errors import FileError


def find_ffmpeg() -> str:
    """The path of ffmpeg. Raises FileError, with the cure, if it is not installed."""
    found = shutil.which("ffmpeg")
    if found is None:
        raise FileError(
            "MP4 needs ffmpeg, which is not installed here. Install it (Debian: apt-get install "
            "ffmpeg), or write a .gif or .apng."
        )
    return found


def write_mp4(path: Path, pictures: Sequence[Image.Image], per_s: int) -> None:
    """Write pictures of one size as an MP4 that every player takes. Raises FileError."""
    width, height = (side // 2 * 2 for side in pictures[0].size)
    command = [
        find_ffmpeg(), "-y", "-loglevel", "error", "-f", "rawvideo", "-pix_fmt", "rgb24",
        "-s", f"{width}x{height}", "-r", str(per_s), "-i", "-", "-an", "-c:v", "libx264",
        "-pix_fmt", "yuv420p", "-crf", "18", "-movflags", "+faststart", str(path),
    ]  # fmt: skip
    raw = b"".join(p.convert("RGB").crop((0, 0, width, height)).tobytes() for p in pictures)
    done = subprocess.run(command, input=raw, capture_output=True, check=False)
    if done.returncode != 0:
        said = done.stderr.decode(errors="replace").strip().splitlines() or ["no reason given"]
        raise FileError(f"ffmpeg could not write the MP4: {said[-1]}")
