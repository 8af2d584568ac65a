"""Two small fonts, drawn for LEDs: 3 x 5 and 5 x 7, capitals, digits and some signs."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

GLYPHS = " 0123456789:.,-+%/!?'()=<>*°ABCDEFGHIJKLMNOPQRSTUVWXYZ"
"""The order of characters in a font: the blank first, then the digits."""

BLANK, ZERO, MINUS = 0, 1, GLYPHS.index("-")

# A row an octal digit, from the top: its bits are the columns, the left one the highest.
_SMALL = """
00000 75557 26227 71747 71717 55711 74717 74757 71244 75757 75717
02020 00002 00024 00700 02720 51245 11244 22202 71202 22000 12221 42224
07070 12421 42124 52725 25200
25755 65656 34443 65556 74647 74644 34553 55755 72227 11152 55655 44447 57755 65555 25552
65644 25563 65655 34216 72222 55557 55552 55775 55255 55222 71247
"""

# A row two hexadecimal digits, from the top.
_LARGE = """
00000000000000 0E11131519110E 040C040404040E 0E11010204081F 1F02040201110E 02060A121F0202
1F101E0101110E 0608101E11110E 1F010204080808 0E11110E11110E 0E11110F01020C
00040400040400 00000000000404 00000000040408 0000001F000000 0004041F040400 18190204081303
00010204081000 04040404040004 0E110102040004 04040800000000 02040808080402 08040202020408
00001F001F0000 02040810080402 08040201020408 00150E1F0E1500 06090906000000
0E11111F111111 1E11111E11111E 0E11101010110E 1C12111111121C 1F10101E10101F 1F10101E101010
0E11101711110F 1111111F111111 0E04040404040E 0702020202120C 11121418141211 1010101010101F
111B1515111111 11111915131111 0E11111111110E 1E11111E101010 0E11111115120D 1E11111E141211
0F10100E01011E 1F040404040404 1111111111110E 11111111110A04 11111115151B11 11110A040A1111
11110A04040404 1F01020408101F
"""


@dataclass(frozen=True)
class Font:
    """Letters of one size.

    columns, rows: of a letter. shapes: for each glyph its rows from the top; the bits are the
    columns, the left one highest.
    """

    columns: int
    rows: int
    shapes: tuple[tuple[int, ...], ...]

    @property
    def advance(self) -> int:
        """Columns from one letter to the next."""
        return self.columns + 1

    def place(self, letter: str) -> int:
        """The place of a letter; small letters become capitals, unknown ones a blank."""
        return max(GLYPHS.find(letter.upper()), BLANK)

    @cached_property
    def bits(self) -> list[int]:
        """Every letter and the gap after it, column by column: bit r is set where row r,
        from the top, is lit.
        """
        found = []
        for shape in self.shapes:
            for column in range(self.columns):
                mask = 1 << (self.columns - 1 - column)
                found.append(sum(1 << row for row, bits in enumerate(shape) if bits & mask))
            found.append(0)
        return found


def _small(word: str) -> tuple[int, ...]:
    return tuple(int(digit, 8) for digit in word)


def _large(word: str) -> tuple[int, ...]:
    return tuple(bytes.fromhex(word))


FONTS = {
    "3x5": Font(3, 5, tuple(map(_small, _SMALL.split()))),
    "5x7": Font(5, 7, tuple(map(_large, _LARGE.split()))),
}  # fmt: skip
