"""The page: a design that runs in a browser, in one file.

Its source in TypeScript is in web/; the built files are in built/, a part of the package.
"""

from __future__ import annotations
