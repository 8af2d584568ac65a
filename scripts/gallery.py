"""docs/gallery.md: the shipped designs, with what is worth reading in each."""

from __future__ import annotations

import re

import fendra as fd

HEAD = """# Gallery

Whole designs to learn from and to begin with. `fendra demo --files` writes all of them, with their tapes. `fendra new
NAME --like trike` (or `drone`, `pad`, `cabinet`) begins a design of your own from one of them. Made from the files by
`make docs`.
"""

SHOWN: dict[str, tuple[str, str, tuple[str, ...]]] = {
    "heron.toml": (
        "Heron, an electric cargo trike",
        "158 LEDs on three lines, fed from the traction battery. Turn signals run outward in step with the flasher "
        "relay. A battery warning wins over all other light. When the bus falls silent, the scene `no news` shows "
        "plain lights.",
        ("turn left, front", "brake light", "battery warning"),
    ),
    "drone.toml": (
        "Kestrel, a fixed-wing drone",
        "One wing is an assembly; the other is its mirror image. Position lights are always on. The wings show the "
        "flight mode from the autopilot, and how far it banks.",
        ("position, left", "banking"),
    ),
    "pad.toml": (
        "Otter, a macro pad with a knob ring",
        "One LED a key. A ripple starts where a key goes down, and the ring round the knob shows the volume.",
        ("a key goes down", "volume"),
    ),
    "cabinet.toml": (
        "Palace, an arcade cabinet",
        "A sign of 5 x 40 LEDs, a frame round the screen and rings round the buttons. Scenes follow the game: "
        "somebody waits, plays, or has lost.",
        ("marquee", "score"),
    ),
    "desk.toml": (
        "The desk beside the cabinet",
        "An open computer with three fans and two sticks of memory, a strip along the edge, and a keyboard that is a "
        "lamp array. Each program has its look. Heat blinks the case. There is a look for a locked computer, and one "
        "for when nothing is heard any more.",
        ("rally: the motor along the keys", "too hot"),
    ),
    "swift.toml": (
        "Swift, a small drone with an 8-bit controller",
        "It needs no computer: an ATmega328P runs the design, with switches and voltages at its own pins.",
        ("throttle", "strobes"),
    ),
}
"""Design to its title, what is worth knowing, and layers to show."""


def page() -> str:
    """All of them, each with its picture beside its layers."""
    text = HEAD
    for name, (title, about, layers) in SHOWN.items():
        file = fd.demo_file(name).read_text(encoding="utf-8")
        excerpt = "\n".join(layer_of(file, layer) for layer in layers)
        stem = name.removesuffix(".toml")
        text += f"""
## {title}

{about}

<div class="beside" markdown>

![{title}, moving](pictures/{stem}.webp)

```toml
{excerpt}```

</div>

??? note "The whole of {name}"
    ```toml
{indented(file)}    ```
"""
    return text


def layer_of(file: str, name: str) -> str:
    """The text of one layer, its comments near its values: the column is narrow."""
    found = re.search(
        rf'^\[\[layer\]\][^\n]*\nname = "{re.escape(name)}"\n(?:[^\[\n][^\n]*\n)+',
        file,
        re.M,
    )
    if found is None:
        raise SystemExit(f"there is no layer '{name}' in this design")
    return re.sub(r" {3,}#", "  #", found[0])


def indented(text: str) -> str:
    """A text four places further in."""
    return "".join(f"    {line}".rstrip() + "\n" for line in text.splitlines())
