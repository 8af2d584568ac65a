"""How late the loop is with pages open, and what a page takes: `python benchmarks/served.py`.

Heron runs on what `fendra simulate game` sends; pages are other processes that take every message,
as a browser does. All numbers of one table come from one run, turn by turn: no page, one, ten, and
again.
"""

from __future__ import annotations

import argparse
import json
import shutil
import subprocess
import sys
import time
from urllib.request import urlopen

import fendra as fd

PAGE = """
import sys
from websockets.sync.client import connect
with connect(sys.argv[1], subprotocols=["fendra"]) as page:
    count = 0
    next(iter(page))
    for message in page:
        count += 1
        if count % 4 == 0:
            page.send(str(count))
"""


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--seconds", type=float, default=12.0)
    parser.add_argument("--turns", type=int, default=2)
    parser.add_argument("--browsers", action="store_true", help="from page to page, in Chromium")
    parser.add_argument("--port", type=int, default=8466)
    given = parser.parse_args()
    game = f"127.0.0.1:{given.port + 1}"
    words = ["run", str(fd.demo_file("heron.toml")), "--from", f"udp:{game}", "--to", "null:"]
    run = started(*words, "--page", str(given.port))
    game = started("simulate", "game", "--at", game)
    try:
        time.sleep(3)
        if given.browsers:
            from_page_to_page(given.port)
            return
        print("pages  frames/s  late, ms  1 in 100  left out  light, %  page, %")
        for pages in (0, 1, 10) * given.turns:
            say(pages, given.port, given.seconds)
    finally:
        for each in (game, run):
            each.terminate()
            each.wait()


def started(*words: str) -> subprocess.Popen:
    """A command of Fendra that goes on."""
    return subprocess.Popen([sys.executable, "-m", "fendra", *words], stdout=subprocess.DEVNULL)


def say(pages: int, port: int, seconds: float) -> None:
    """A row of the table."""
    address = f"ws://127.0.0.1:{port}/live"
    opened = [subprocess.Popen([sys.executable, "-c", PAGE, address]) for _ in range(pages)]
    try:
        time.sleep(2.0 + 0.3 * pages)
        before = state(port)["rate"]
        time.sleep(seconds)
        rate = state(port)["rate"]
    finally:
        for each in opened:
            each.kill()
            each.wait()
    left_out = rate["left_out"] - before["left_out"]
    print(
        f"{pages:5}  {rate['now']:8.2f}  {rate['late_ms']:8.3f}  {rate['late_p99_ms']:8.3f}  "
        f"{left_out:8}  {100 * rate['loop']:8.2f}  {100 * rate['page']:7.2f}"
    )


def from_page_to_page(port: int) -> None:
    """How long it takes until one page shows what another has set, by the computer's one clock."""
    from playwright.sync_api import sync_playwright

    flags = ["--no-sandbox", "--use-angle=swiftshader", "--enable-unsafe-swiftshader"]
    with sync_playwright() as running:
        browser = running.chromium.launch(executable_path=shutil.which("chromium"), args=flags)
        one, two = (browser.new_page() for _ in range(2))
        for page in (one, two):
            page.goto(f"http://127.0.0.1:{port}/")
        time.sleep(4)
        two.evaluate(SEES)
        took = []
        for step in range(40):
            sent = one.evaluate(SETS, step / 10)
            while (came := two.evaluate(f"came[{step / 10}]")) is None:
                time.sleep(0.1)
            took.append(came - sent)
        browser.close()
    took.sort()
    print(f"from page to page: median {took[20]} ms, 95 % {took[38]} ms, most {took[-1]} ms")


SEES = """() => {
  globalThis.came = {};
  fendra.onChange(() => {
    const held = fendra.state.signals.find((each) => each.name === "lean").held;
    if (held && !(held[0] in came)) came[held[0]] = Date.now();
  });
}"""
SETS = """(value) => {
  const at = Date.now();
  fendra.steer("PUT", "/api/signals/lean", { value });
  return at;
}"""


def state(port: int) -> dict:
    with urlopen(f"http://127.0.0.1:{port}/api/state") as answer:
        return json.load(answer)


if __name__ == "__main__":
    main()
