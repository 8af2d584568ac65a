"""Heron driven by hand: no tape, just values, frame by frame, and the bytes for the wire.

Run it: it prints what the tail bar shows while the brake goes from nothing to full.
"""

from __future__ import annotations

import fendra as fd


def main() -> list[int]:
    """Brake harder from frame to frame; gives the red of the tail bar's first LED."""
    design = fd.load(fd.demo_file("heron.toml"))
    program = design.compile()
    reds = []
    for step in range(11):
        brake = step / 10
        frame = program.frame(speed=20, brake=brake, lights=1, at=step * 0.2)
        red = int(frame.part("tail-bar")[0, 0])
        tail = frame.line_bytes()[2]  # the third line, in its chips' colour order
        print(f"brake {brake:.1f}  red {red:3d}  on the wire: {tail[:6].hex(' ')} ...")
        reds.append(red)
    return reds


if __name__ == "__main__":
    main()
