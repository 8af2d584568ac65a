"""Texts that leave a design for another language: one function for each.

A text of a design or of a source may come from a stranger. So whatever writes C, Makefiles,
Markdown, a shell command or a terminal sends it through the function of that language. HTML is
escaped by the template engine (autoescape); Matplotlib takes texts as they are, since its own
little language is off (`fendra.draw.style.plain_text`).
"""

from __future__ import annotations

import json
import re
import shlex
import unicodedata


class Ready(str):
    """A text that is in the language of its page already, so that nothing escapes it again."""

    __slots__ = ()


def c_string(text: str) -> Ready:
    r"""A text as C takes it: its UTF-8 bytes, and nothing that C would read as something else.

    >>> print(c_string('a "b"'), c_string("ü1"))
    "a \"b\"" "\303\2741"
    """
    plain = set(range(32, 127)) - {ord('"'), ord("\\"), ord("?")}
    named = {ord('"'): '\\"', ord("\\"): "\\\\", ord("?"): "\\?"}
    parts = (
        chr(byte) if byte in plain else named.get(byte, f"\\{byte:03o}") for byte in text.encode()
    )
    return Ready(f'"{"".join(parts)}"')


def c_comment(text: str) -> str:
    """A text in one line that neither ends a comment of C nor begins one.

    >>> c_comment("a */ b" + chr(10) + "c /* d")
    'a * / b c / * d'
    """
    text = _one_line(text)
    return re.sub(r"(?<=\*)(?=/)|(?<=/)(?=\*)|(?<=\?)(?=\?)", " ", text)


def make_text(text: str) -> str:
    r"""A text in one line of a Makefile, in a comment or between commands, that make does not read.

    >>> print(make_text("$(shell id) # x"))
    $$(shell id) \# x
    """
    text = _one_line(text)
    return text.replace("\\", "/").replace("$", "$$").replace("#", "\\#")


def markdown(text: str) -> str:
    r"""A text in one line of Markdown that is shown as it is, also in a table.

    >>> print(markdown("tail_bar <b> | [x](y)"))
    tail_bar \<b> \| \[x\](y)
    """
    text = _one_line(text)
    text = re.sub(r"([\\`*\[\]<|]|(?<![A-Za-z0-9])_|_(?![A-Za-z0-9])|&(?=[#\w]+;))", r"\\\1", text)
    return re.sub(r"^(?=[#+>=~-])", r"\\", text)


def shell_word(text: str) -> str:
    """A text as one word of a command that a user pastes into a shell.

    >>> shell_word("heron.toml"), shell_word("my design.toml")
    ('heron.toml', "'my design.toml'")
    """
    return shlex.quote(visible(text))


def visible(text: str, *, keep: str = "") -> str:
    r"""A text with escapes for all that a terminal would obey, or that hides or turns letters.

    keep: control characters that stay, as line ends in a message of several lines.

    >>> print(visible("\x1b[2J" + "left"))
    \x1b[2Jleft
    >>> print(visible("a\u202eb"))
    a\u202eb
    """
    if text.isascii() and text.isprintable():
        return text
    return "".join(c if c in keep or _is_harmless(c) else _escape(c) for c in text)


def in_lines(text: str) -> str:
    """A message of several lines as `visible` makes it; line ends and tabs stay."""
    return visible(text, keep="\n\t")


def _one_line(text: str) -> str:
    return visible(re.sub(r"[\t-\r]+", " ", text))


def json_text(value: object, indent: int | None = 2) -> str:
    """A value as readable JSON that no terminal can obey."""
    text = json.dumps(value, indent=indent, ensure_ascii=False)
    return "".join(c if c == "\n" or _is_harmless(c) else json.dumps(c)[1:-1] for c in text)


def script_json(value: object) -> str:
    """A value as JSON inside a script element of HTML: no letter of it ends the element.

    >>> script_json({"name": "</script><b>"})
    '{"name":"\\\\u003c/script\\\\u003e\\\\u003cb\\\\u003e"}'
    """
    text = json.dumps(value, ensure_ascii=True, separators=(",", ":"))
    return text.replace("<", "\\u003c").replace(">", "\\u003e").replace("&", "\\u0026")


_JOINERS = "\u200c\u200d"
"""They shape letters of some scripts, and emoji, and do nothing else."""


def _is_harmless(character: str) -> bool:
    category = unicodedata.category(character)
    return category not in ("Cc", "Cf", "Cs", "Zl", "Zp") or character in _JOINERS


def _escape(character: str) -> str:
    code = ord(character)
    return (
        f"\\x{code:02x}" if code < 256 else f"\\u{code:04x}" if code < 65536 else f"\\U{code:08x}"
    )
