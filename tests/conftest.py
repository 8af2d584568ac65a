"""What every test runs under."""

from __future__ import annotations

import os
import shutil
from pathlib import Path

import pytest
from hypothesis import settings

from fendra.core.errors import EngineError
from fendra.native.compiler import find_compiler
from helpers import keep_in

# No deadline: machines are shared, and tests measure no time. CI finds the same examples twice.
settings.register_profile("fendra", deadline=None, print_blob=True)
settings.register_profile("ci", settings.get_profile("fendra"), derandomize=True)
settings.register_profile("fuzz", settings.get_profile("fendra"), max_examples=3_000)
settings.register_profile("quick", settings.get_profile("fendra"), max_examples=15)
settings.load_profile("ci" if os.environ.get("CI") else "fendra")


def pytest_collection_modifyitems(items):
    """What needs a C compiler is not in `make test-quick`, and a compiler that is a shell script is
    not on Windows.
    """
    marks = {"compiler": "slow", "counted_compiler": "posix"}
    for item in items:
        for name in marks.keys() & {*getattr(item, "fixturenames", ())}:
            item.add_marker(marks[name])


@pytest.fixture(scope="session", autouse=True)
def cache(tmp_path_factory):
    """What is compiled and allowed is kept for this run, apart from what its user has; zig's own C
    library for each system is not, which takes a minute and more to make.
    """
    with pytest.MonkeyPatch.context() as patch:
        if "ZIG_GLOBAL_CACHE_DIR" not in os.environ:
            here = os.environ.get("XDG_CACHE_HOME") or Path.home() / ".cache"
            patch.setenv("ZIG_GLOBAL_CACHE_DIR", str(Path(here) / "zig"))
        keep_in(patch, "config", tmp_path_factory.mktemp("config"))
        keep_in(patch, "cache", shared_folder(tmp_path_factory) / "cache")
        yield


@pytest.fixture(scope="session")
def need():
    """Leaves tests out where tools are missing, with the word how to get them; fails in CI."""

    def ask(what, packages):
        if what:
            reason = f"no {', '.join(what)} (on Debian: apt install {packages})"
            tell = pytest.fail if os.environ.get("CI") else pytest.skip
            tell(f"left out: {reason}")

    return ask


@pytest.fixture(scope="session")
def compiler():
    """The machine's C compiler. Without one native tests are skipped here, and fail in CI."""
    try:
        found = find_compiler()
    except EngineError as exc:
        if os.environ.get("CI"):
            pytest.fail(f"CI holds the native engine to NumPy, and there is {exc}")
        pytest.skip(f"the native engine is not held to NumPy: {exc}")
    return found


def shared_folder(tmp_path_factory):
    """A folder that all processes of this run share."""
    mine = tmp_path_factory.getbasetemp()
    return mine.parent if "PYTEST_XDIST_WORKER" in os.environ else mine


BROWSER_FLAGS = (
    "--no-sandbox", "--use-angle=swiftshader", "--enable-unsafe-swiftshader", "--disable-quic",
    "--disable-background-networking", "--disable-component-update", "--disable-sync",
)  # fmt: skip


@pytest.fixture(scope="session")
def chromium():
    """A browser. Without one these tests are left out here, and fail in CI."""
    playwright = pytest.importorskip("playwright.sync_api", reason="no page is opened in a browser")
    path = next(filter(None, map(shutil.which, ("chromium", "chromium-browser"))), None)
    if path is None:
        if os.environ.get("CI"):
            pytest.fail("CI opens pages in Chromium, and there is none")
        pytest.skip("no page is opened in a browser: there is no Chromium")
    with playwright.sync_playwright() as running:
        browser = running.chromium.launch(executable_path=path, args=[*BROWSER_FLAGS])
        yield browser
        browser.close()


pytest.register_assert_rewrite("every_kind")
