"""Tokens: secrets that let other devices of a network in, in a file of their owner."""

from __future__ import annotations

import json
import os
import secrets
from contextlib import suppress
from dataclasses import dataclass
from pathlib import Path

from fendra.core.errors import FileError, reason
from fendra.system.files import is_read_by_others

FILE = "page-tokens.json"


@dataclass(frozen=True)
class Tokens:
    """look: who has it may look. steer: who has it may look and steer."""

    look: str
    steer: str


def tokens_path() -> Path:
    """Where they are kept: FENDRA_TOKENS, if that is set, else in the user's own folder."""
    from platformdirs import user_data_path

    given = os.environ.get("FENDRA_TOKENS")
    return Path(given) if given else user_data_path("fendra", appauthor=False) / FILE


def read_tokens(*, anew: bool = False) -> Tokens:
    """The tokens of this user; they are made when they are first needed.

    anew: make new ones; the old ones are then invalid. Tokens in a file that others can read are
    replaced too, because somebody may know them. Raises FileError.
    """
    path = tokens_path()
    if not anew and (known := _known(path)) is not None:
        return known
    made = Tokens(secrets.token_urlsafe(18), secrets.token_urlsafe(18))
    try:
        path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
        with suppress(FileNotFoundError):
            path.unlink()
        handle = os.open(path, os.O_CREAT | os.O_EXCL | os.O_WRONLY, 0o600)
        with os.fdopen(handle, "w", encoding="utf-8") as file:
            json.dump(vars(made), file)
    except OSError as exc:
        raise FileError(f"'{path}' cannot be written: {reason(exc)}") from exc
    return made


def _known(path: Path) -> Tokens | None:
    """The tokens of a file that only its owner can read; None if there is no such file."""
    try:
        if is_read_by_others(path.stat()):
            return None
        values = json.loads(path.read_text(encoding="utf-8"))
        tokens = Tokens(values["look"], values["steer"])
    except (OSError, ValueError, KeyError, TypeError):
        return None
    are_texts = all(isinstance(each, str) and len(each) >= 16 for each in vars(tokens).values())
    return tokens if are_texts and tokens.look != tokens.steer else None
