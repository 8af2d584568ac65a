"""Beginning: a run that is served, with all that its page needs."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from fendra.core.checks.examine import Examined
from fendra.core.program import Program
from fendra.live.session import Session
from fendra.live.steering import Steering
from fendra.live.watch import Watch
from fendra.page.served.cues import Cues
from fendra.page.served.desk import Desk
from fendra.page.served.served import Served
from fendra.page.served.server import Server


def served_run(
    server: Server,
    read: Examined,
    compiled: Callable[[Examined], Program],
    session_of: Callable[[Program], Session],
    path: Path | None,
    *,
    reloads: bool = True,
) -> tuple[Session, Served]:
    """A session that can be steered, not yet begun, and what a server shows of it.

    read: the design. compiled: makes its program; session_of: makes the session for that. path: the
    design's file, if it has one; cues are kept beside it. reloads: something reloads the file when
    it changes, so the page may change it. Raises DesignError if the design has a signal with a name
    that steering needs.
    """
    with server.closed_if_it_fails():
        steering = Steering(read, compiled)
        session = session_of(steering.program())
    steering.steer(session.inbox, session.loop.use)
    cues = None if path is None else Cues(path)
    desk = Desk(path) if path is not None and reloads else None
    return session, Served(server.gate, Watch(session, steering), steering, cues=cues, desk=desk)
