"""The limits of everything: the size of a design, a file or a packet.

Below each limit a command ends within seconds and a gigabyte; above it, an error says so.
docs/security.md shows the table.
"""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Limit:
    """A limit.

    most: the number. what: what is counted, as a message says it. why: what the limit prevents.
    """

    most: int
    what: str
    why: str

    @property
    def in_words(self) -> str:
        """The most, as a message says it.

        >>> Limit(2_000, "parts of a design", "slow checks").in_words
        '2,000 parts of a design'
        """
        return f"{self.most:,} {self.what}"


DESIGN_BYTES = Limit(2_000_000, "bytes of a design", "slow reading")
DESIGN_KEYS = Limit(500_000, "keys and values of a design", "slow reading")
DEPTH = Limit(64, "levels of tables and lists in a design", "a stack that overflows")
TEXT = Limit(10_000, "characters of a text in a design", "slow messages")
LEDS = Limit(100_000, "LEDs of a design", "slow checks and large pictures")
LINES = Limit(255, "lines of a design", "what a packet of the serial stream can number")
PARTS = Limit(1_000, "parts of a design", "slow checks")
LAYERS = Limit(500, "layers of a design", "slow checks")
SIGNALS = Limit(1_000, "signals of a design", "slow checks")
PICTURE_PIXELS = Limit(4_000_000, "pixels of a picture, all frames together", "memory")
PICTURE_FRAMES = Limit(2_000, "frames of a picture", "slow reading")
PICTURE_BYTES = Limit(50_000_000, "bytes of a picture's file", "memory")
CODE_BYTES = Limit(1_000_000, "bytes of a Python file of effects", "memory")
LAYOUT_BYTES = Limit(20_000_000, "bytes of a file of positions: SVG, CSV, JSON", "memory")
LAYOUT_DEPTH = Limit(100, "levels of groups in an SVG", "a stack that overflows")
LAYOUT_PLACES = Limit(20_000, "places of a file of positions", "slow checks")
TAPE_BYTES = Limit(200_000_000, "bytes of a tape", "memory")
PACKET_BYTES = Limit(65_536, "bytes of a packet, message or line of text from a source", "work")
PACKET_NAMES = Limit(2_000, "values of one packet", "work")
NAME_LETTERS = Limit(200, "characters of a name from a source", "memory")
WAITING = Limit(256, "messages of a broker that wait", "memory")

LIMITS = tuple(value for value in [*globals().values()] if isinstance(value, Limit))
"""Every limit, in the order of the table."""
