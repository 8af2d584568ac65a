"""Code for 8-bit parts: tables that are read from flash, and functions that stay small."""

from __future__ import annotations

from dataclasses import dataclass

from fendra.core.engines.c99.text import comment


@dataclass(frozen=True)
class Read:
    """How a number of one type is read. avr: what does so on an 8-bit AVR."""

    macro: str
    avr: str


READS = {
    "uint8_t": Read("READ_U8", "pgm_read_byte(&(x))"),
    "int8_t": Read("READ_I8", "(int8_t)pgm_read_byte(&(x))"),
    "uint16_t": Read("READ_U16", "pgm_read_word(&(x))"),
    "int16_t": Read("READ_I16", "(int16_t)pgm_read_word(&(x))"),
    "uint32_t": Read("READ_U32", "pgm_read_dword(&(x))"),
    "int32_t": Read("READ_I32", "(int32_t)pgm_read_dword(&(x))"),
    "float": Read("READ_F32", "pgm_read_float(&(x))"),
    "int": Read("READ_INT", "(int)pgm_read_word(&(x))"),
}
"""By C type."""


def read(c_type: str, element: str) -> str:
    """The text that reads an element of a table.

    >>> read("uint8_t", "ranks[k]")
    'READ_U8(ranks[k])'
    """
    return f"{READS[c_type].macro}({element})"


def target_macros(used: set[str]) -> list[str]:
    """The definitions that differ between targets, for the words used."""
    reads = [each for each in READS.values() if each.macro in used]
    on_avr = [
        "#include <avr/pgmspace.h>",
        "#define IN_FLASH PROGMEM",
        *(f"#define {each.macro}(x) {each.avr}" for each in reads),
    ]
    elsewhere = ["#define IN_FLASH", *(f"#define {each.macro}(x) (x)" for each in reads)]
    about = "On 8-bit parts, several functions need fewer instructions than one large one."
    if reads:
        about = (
            "8-bit parts have flash as a separate memory: tables stay there and are read number by "
            f"number. {about}"
        )
    return [
        "",
        *comment(about),
        "#ifdef __AVR__",
        *(on_avr if reads else []),
        "#define ON_ITS_OWN __attribute__((noinline))",
        "#else",
        *(elsewhere if reads else []),
        "#define ON_ITS_OWN",
        "#endif",
        *(_SKIP if "SKIP_WHERE" in used else []),
    ]


_SKIP = (
    "",
    *comment(
        "Without a floating point unit it is faster to skip LEDs that a layer does not change. "
        "With one it is faster to paint them."
    ),
    "#if defined(__AVR__) || defined(__SOFTFP__) || defined(__riscv_float_abi_soft)",
    "#define SKIP_WHERE(is_bare) \\",
    "    if (is_bare) { \\",
    "        continue; \\",
    "    }",
    "#else",
    "#define SKIP_WHERE(is_bare) (void)(is_bare)",
    "#endif",
)
