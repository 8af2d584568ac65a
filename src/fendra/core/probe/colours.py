"""Which colour order LEDs have, from the colours that were seen when others were sent."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fendra.core.names import in_words

_LETTERS = {"red": "R", "green": "G", "blue": "B", "white": "W"}
_MIXED = ("yellow", "orange", "cyan", "turquoise", "magenta", "purple", "pink", "violet")
_DARK = ("none", "nothing", "off", "dark", "black")
_SENT = ("red", "green", "blue", "white")


@dataclass(frozen=True)
class ColourOrder:
    """A conclusion from the colours that the user saw.

    order: the colour order to write; None if no LED can have shown this. words: what it means.
    """

    order: str | None
    words: str


def deduce_order(sent_as: str, seen: Sequence[str]) -> ColourOrder:
    """The colour order of LEDs that showed `seen` when red, green and blue, and white, were sent.

    sent_as: the order in which they were sent, `GRB`. seen: three colours, as words or first
    letters; of LEDs with a white channel four, or three from which the fourth follows. A fourth
    one of LEDs without it is what white looked like.

    >>> deduce_order("GRB", ["green", "red", "blue"]).order
    'RGB'
    >>> deduce_order("GRB", ["red", "red", "blue"]).words
    'impossible: red was seen twice, and each colour is one channel. Look again.'
    """
    letters = []
    for word in seen:
        name = word.strip().casefold()
        match = [letter for full, letter in _LETTERS.items() if name in (full, full[0])]
        if match:
            letters += match
        elif name in _MIXED:
            return _impossible(
                f"{name} is two channels at once, and one was sent. If LEDs differ from each "
                "other, they have more or fewer channels than the LED type says."
            )
        elif name in _DARK:
            return _impossible(
                "no channel stays dark when it is sent. If white was sent, the LEDs have no white "
                "channel; else the data does not arrive, or the channel is dead."
            )
        else:
            return _impossible(
                f"{in_words(word)} is no colour that was sent: red, green, blue, white."
            )
    if not 3 <= len(letters) <= 4:
        return _impossible(f"three or four colours are needed, and here are {len(letters)}.")
    has_white = "W" in sent_as
    if not has_white:
        if "W" in letters[:3]:
            return _impossible(
                "LEDs of three channels show no white when one is sent. They have a fourth, white: "
                "set led = 'sk6812-rgbw' and try again."
            )
        if letters[3:] not in ([], ["W"]):
            return _impossible(
                f"all channels at once looked {_word(letters[3])}: the others are dead, or the "
                "LEDs get too little voltage."
            )
        letters = letters[:3]
    elif len(letters) == 3:
        letters += [letter for letter in "RGBW" if letter not in letters][:1]
    for letter in letters:
        if letters.count(letter) > 1:
            return _impossible(
                f"{_word(letter)} was seen twice, and each colour is one channel. Look again."
            )
    real = [""] * len(sent_as)
    for sent, letter in zip(_SENT, letters, strict=False):
        real[sent_as.index(_LETTERS[sent])] = letter
    order = "".join(real)
    if order == sent_as:
        return ColourOrder(order, f"the order is {order}, as it is written.")
    return ColourOrder(order, f"the order is {order}, not {sent_as}.")


def _impossible(why: str) -> ColourOrder:
    return ColourOrder(None, f"impossible: {why}")


def _word(letter: str) -> str:
    return next(word for word, known in _LETTERS.items() if known == letter)
