"""Names of the emitted code: what people wrote, as C takes it, and each once."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterable

WORDS = frozenset(
    """
    auto bool break case char const continue default do double else enum extern false float for
    goto if inline int long register restrict return short signed sizeof static struct switch true
    typedef union unsigned void volatile while asm typeof
    alignas alignof and bitand bitor catch class compl concept constexpr decltype delete explicit
    export friend module mutable namespace new noexcept not nullptr operator or private protected
    public requires template this thread_local throw try typeid typename using virtual wchar_t xor
    """.split()  # noqa: SIM905, words read better than a list of texts
)
"""Words of C and C++: no field is called so."""

TAKEN = WORDS | frozenset(
    """
    int8_t int16_t int32_t uint8_t uint16_t uint32_t assert ctype errno limits math signal stdbool
    stdint stdio stdlib string time
    abs ceilf exp fabsf floorf free gamma index j0 j1 jn log main malloc sqrtf y0 y1 yn
    state signals now now_ms dt_ms first light frame advance paint from to i k r at end rgb full
    bytes to_wire put_dark count memset run_of quotient
    draw add_draw add_white_draw follow scale
    of_picture smaller larger clamp earlier later to_byte run from_uint8_t from_int16_t from_int32_t
    """.split()  # noqa: SIM905, likewise
)
"""And words of the library, and of the emitted code itself: nothing else is called so."""


def identifier(text: str) -> str:
    """A text as a name in C.

    >>> identifier("Turn left, rear"), identifier("3 colours"), identifier("Blaulicht grün")
    ('turn_left_rear', 'n3_colours', 'blaulicht_grun')
    """
    plain = unicodedata.normalize("NFKD", text).encode("ascii", "ignore").decode()
    name = re.sub(r"[^a-z0-9]+", "_", plain.casefold()).strip("_")
    if not name:
        return "unnamed"
    return f"n{name}" if name[0].isdigit() else name


class Names:
    """Gives each name once; the second of the same name ends in 2."""

    def __init__(self, taken: Iterable[str] = TAKEN) -> None:
        self._taken = set(taken)

    def take(self, text: str) -> str:
        """A name like the text that nothing else has."""
        name = stem = identifier(text)
        count = 1
        while name in self._taken:
            count += 1
            name = f"{stem}_{count}"
        self._taken.add(name)
        return name

    def hold(self, names: Iterable[str]) -> None:
        """Reserve these names."""
        self._taken.update(names)

    def inner(self) -> Names:
        """Names of a block inside: those outside are taken, and its own are free again after."""
        return Names(self._taken)
