"""What every test runs under."""

from __future__ import annotations

import os

from hypothesis import settings

# No deadline: machines are shared, and tests measure no time. CI finds the same examples twice.
settings.register_profile("fendra", deadline=None, print_blob=True)
settings.register_profile("ci", settings.get_profile("fendra"), derandomize=True)
settings.load_profile("ci" if os.environ.get("CI") else "fendra")
