"""Make docs/screenshots anew from the demo data: `make screenshots`.

The maps, film strips and an animation come straight from the package. The terminal
views are taken in an xterm under Xvfb (Debian: xvfb xterm imagemagick tmux), the build sheet in
chromium; without those they are left as they are, and it says so.
"""

from __future__ import annotations

import shlex
import shutil
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import fendra as fd
from fendra.cli.compare import varied
from fendra.cli.demo import ANIMATION_S
from fendra.cli.effect_examples import example_films
from fendra.draw.compare import draw_compare
from fendra.draw.effects_sheet import draw_effects
from fendra.draw.scenes import draw_scenes
from fendra.draw.strip import draw_strip
from fendra.draw.style import save_figure

SHOTS = Path(__file__).parents[1] / "docs" / "screenshots"
BIN = Path(sys.executable).parent
MOST_S = 120
"""What a command may take."""
DISPLAY = ":77"
PAGE_SHOWS = "t=23.6&view=-32,40,1&show=names"
"""The moment of the animation: it turns left while it brakes."""


def main() -> None:
    """All of them."""
    design = fd.load(fd.demo_file("heron.toml"))
    film = design.compile().film(fd.read_tape(fd.demo_file("ride.csv")))
    design.save_map(SHOTS / "map.png")
    save_figure(draw_strip(film, title="Heron: ride"), SHOTS / "film-strip.png")
    save_figure(draw_effects(example_films()), SHOTS / "effects.png")
    film.save_timeline(SHOTS / "timeline.png")
    designs, names = varied(design, "rpm.threshold=4000,4700,5100")
    films = [made.compile().film(film.tape) for made in designs]
    title = "Heron: rpm.threshold, ride"
    save_figure(draw_compare(films, names, title), SHOTS / "compare.png")
    film.save_animation(SHOTS / "animation.gif", *ANIMATION_S)
    desk = fd.load(fd.demo_file("desk.toml"))
    evening = desk.compile().film(fd.read_tape(fd.demo_file("desk.csv"), desk))
    save_figure(draw_scenes(evening, evening.timeline()), SHOTS / "scenes.png")
    shoot_sheet(design, film, SHOTS / "sheet.png")
    shoot_page(design, film.tape, SHOTS / "page.png")
    shoot_served(SHOTS / "steer.png")
    shoot_site(SHOTS / "site.png")
    if not all(shutil.which(tool) for tool in ("Xvfb", "xterm", "import")):
        print("no Xvfb, xterm or import here: the terminal views stay as they were")
        return
    with tempfile.TemporaryDirectory() as folder:
        wrong = Path(folder) / "wrong.toml"
        wrong.write_text(with_mistakes(fd.demo_file("heron.toml").read_text(encoding="utf-8")))
        with subprocess.Popen(["Xvfb", DISPLAY, "-screen", "0", "1280x800x24"]) as screen:
            time.sleep(1)
            shoot(folder, "fendra demo", SHOTS / "demo.png")
            design = "fendra-demo/heron.toml"
            pair = [Path(folder) / "wrong.png", Path(folder) / "sound.png"]
            shoot(folder, "fendra check wrong.toml", pair[0])
            shoot(folder, f"fendra check {design} --tape fendra-demo/ride.csv", pair[1])
            one_below_another(pair, SHOTS / "check.png")
            shoot_live(folder, SHOTS / "live.png")
            new = "fendra new 'Night glider' --like drone\nfendra layout night-glider.toml"
            begun = [Path(folder) / "new.png", Path(folder) / "import.png"]
            shoot(folder, new, begun[0])
            why = (
                f"fendra explain {design} --tape fendra-demo/ride.csv --at 33.1 --spot deck-left:30"
            )
            shoot(folder, why, SHOTS / "explain.png")
            shutil.copy(fd.demo_file("board.csv"), folder)
            shoot(folder, "fendra import board.csv --only 'D*' --order name", begun[1])
            one_below_another(begun, SHOTS / "new.png")
            shoot_raw(folder, SHOTS / "raw.png")
            shoot_probe(folder, SHOTS / "probe.png")
            for name in ("heron.toml", "ride.csv"):
                shutil.copy(fd.demo_file(name), folder)
            emit = "fendra emit heron.toml --tape ride.csv"
            making = "make -s -C heron-rp2040\nmake -s -C heron-rp2040 check\nls heron-rp2040/*.uf2"
            shoot(folder, f"{emit}\n{making}", SHOTS / "firmware.png")
            screen.terminate()


def shoot_sheet(design: fd.Design, film: fd.Film, path: Path) -> None:
    """The build sheet's first screen, in a browser without a screen, where there is one."""
    if not shutil.which("chromium"):
        print("no chromium here: the build sheet's picture stays as it was")
        return
    with tempfile.TemporaryDirectory() as folder:
        page = design.sheet(Path(folder) / "sheet.html", film)
        browser = ["chromium", "--headless", "--no-sandbox", "--disable-gpu", "--hide-scrollbars"]
        shot = [f"--screenshot={path}", "--window-size=1280,1500", f"file://{page}"]
        subprocess.run([*browser, *shot], check=True, capture_output=True)


def shoot_page(design: fd.Design, tape: fd.Tape, path: Path) -> None:
    """The page at the moment of the still, turned a little, in a browser without a screen."""
    if not shutil.which("chromium"):
        print("no chromium here: the page's picture stays as it was")
        return
    from playwright.sync_api import sync_playwright

    flags = ["--no-sandbox", "--use-angle=swiftshader", "--enable-unsafe-swiftshader"]
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as running:
        written = design.page(Path(folder) / "heron.html", tape).path
        assert written is not None
        browser = running.chromium.launch(executable_path=shutil.which("chromium"), args=flags)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"{written.as_uri()}#{PAGE_SHOWS}")
        page.wait_for_timeout(3000)
        page.screenshot(path=path)
        browser.close()


def shoot_served(path: Path) -> None:
    """The page of a run: its light, a part that is dragged, the panel of a phone; and the bench."""
    if not shutil.which("chromium"):
        print("no chromium here: the picture of the page of a run stays as it was")
        return
    from playwright.sync_api import sync_playwright

    flags = ["--no-sandbox", "--use-angle=swiftshader", "--enable-unsafe-swiftshader"]
    wide, phone = {"width": 1280, "height": 800}, {"width": 390, "height": 844}
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as running:
        there = Path(folder)
        for name in ("heron.toml", "ride.csv"):
            shutil.copy(fd.demo_file(name), folder)
        browser = running.chromium.launch(executable_path=shutil.which("chromium"), args=flags)
        words = ["run", "heron.toml", "--tape", "ride.csv", "--start", "24", "--speed", "0.2"]
        with served(folder, [*words, "--to", "null:", "--page", "8497"]) as address:
            page = browser.new_page(viewport=wide)
            page.goto(address)
            page.wait_for_timeout(2500)
            page.get_by_role("slider", name="brake").fill("1")
            page.wait_for_timeout(1000)
            page.screenshot(path=there / "1.png")
            page.get_by_role("tab", name="place").click()
            page.wait_for_timeout(1500)
            box = page.locator("circle[data-led]").nth(3).bounding_box()
            assert box is not None
            page.mouse.move(box["x"] + 3, box["y"] + 3)
            page.mouse.down()
            page.mouse.move(box["x"] + 20, box["y"] + 10)
            page.mouse.move(box["x"] + 43, box["y"] + 23)
            page.wait_for_timeout(300)
            page.screenshot(path=there / "2.png")
            page.mouse.up()
            page = browser.new_page(viewport=phone)
            page.goto(f"{address}panel")
            page.wait_for_timeout(1500)
            page.screenshot(path=there / "3.png")
        shutil.copy(fd.demo_file("heron.toml"), folder)
        words = ["probe", "heron.toml", "colours", "--line", "tail", "--to", "null:"]
        with served(folder, [*words, "--page", "8497"]) as address:
            page = browser.new_page(viewport=phone)
            page.goto(address)
            page.wait_for_timeout(1500)
            for sent, seen in (("red", "green"), ("green", "red"), ("blue", "blue")):
                asked = page.get_by_role("group", name=f"What did you see when {sent} was sent?")
                asked.get_by_role("button", name=seen).click()
            page.get_by_role("button", name="That is what I see").click()
            page.locator(".verdict").scroll_into_view_if_needed()
            page.wait_for_timeout(800)
            page.screenshot(path=there / "4.png")
        browser.close()
        put_together(there, path)


def shoot_site(path: Path) -> None:
    """The docs as a site: first page, tutorial, gallery; and the schema at work in an editor."""
    if not shutil.which("chromium"):
        print("no chromium here: the picture of the site stays as it was")
        return
    from playwright.sync_api import sync_playwright

    with tempfile.TemporaryDirectory() as folder, sync_playwright() as running:
        there = Path(folder)
        site = there / "site"
        subprocess.run(
            [BIN / "mkdocs", "build", "--strict", "--quiet", "--site-dir", site],
            cwd=SHOTS.parents[1],
            check=True,
        )
        flags = ["--no-sandbox", "--use-angle=swiftshader", "--enable-unsafe-swiftshader"]
        browser = running.chromium.launch(executable_path=shutil.which("chromium"), args=flags)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        for number, (name, down) in enumerate(
            (("index", 0), ("tutorial", 430), ("gallery", 210)), 1
        ):
            page.goto((site / f"{name}.html").as_uri())
            page.wait_for_timeout(800)
            page.evaluate(f"window.scrollTo(0, {down})")
            page.wait_for_timeout(800)
            page.screenshot(path=there / f"{number}.png")
        for name in ("heron.toml", "ride.csv"):
            shutil.copy(fd.demo_file(name), folder)
        words = ["run", "heron.toml", "--tape", "ride.csv", "--start", "24", "--speed", "0.2"]
        with served(folder, [*words, "--to", "null:", "--page", "8497"]) as address:
            page.goto(address)
            page.wait_for_timeout(2500)
            page.get_by_role("tab", name="text").click()
            page.wait_for_timeout(1500)
            page.locator(".cm-content").click()
            page.keyboard.press("Control+Home")
            for _ in range(24):
                page.keyboard.press("ArrowDown")
            page.keyboard.press("Home")
            page.keyboard.type('\n[[layer]]\nname = "hazard"\non = "tail-bar"\neffect = "comet"\n')
            page.keyboard.press("ArrowUp")
            page.keyboard.press("End")
            page.keyboard.type("\n")
            page.keyboard.press("Control+Space")
            page.wait_for_timeout(1500)
            page.screenshot(path=there / "4.png")
        browser.close()
        from PIL import Image

        whole = Image.new("RGB", (1608, 1008), "#303848")
        for number, place in enumerate(((0, 0), (808, 0), (0, 508), (808, 508)), 1):
            with Image.open(there / f"{number}.png") as picture:
                whole.paste(picture.resize((800, 500), Image.Resampling.LANCZOS), place)
        whole.save(path)


def one_below_another(paths: list[Path], path: Path) -> None:
    """Two pictures of one width as one."""
    from PIL import Image

    pictures = [Image.open(each) for each in paths]
    whole = Image.new("RGB", (pictures[0].width, sum(each.height for each in pictures)))
    down = 0
    for each in pictures:
        whole.paste(each, (0, down))
        down += each.height
    whole.save(path)


def put_together(folder: Path, path: Path) -> None:
    """Two pictures of a desktop, and two of a phone beside them."""
    from PIL import Image

    whole = Image.new("RGB", (1744, 1008), "#303848")
    for place, size, number in (
        ((0, 0), (800, 500), 1), ((0, 508), (800, 500), 2),
        ((808, 0), (464, 1008), 3), ((1280, 0), (464, 1008), 4),
    ):  # fmt: skip
        with Image.open(folder / f"{number}.png") as picture:
            whole.paste(picture.resize(size, Image.Resampling.LANCZOS), place)
    whole.save(path)


@contextmanager
def served(folder: str, words: list[str]) -> Iterator[str]:
    """A command that serves a page, until the block ends; gives its address."""
    with subprocess.Popen([BIN / "fendra", *words], cwd=folder, stdout=subprocess.DEVNULL) as run:
        time.sleep(4)
        yield "http://127.0.0.1:8497/"
        run.terminate()


def shoot_probe(folder: str, path: Path) -> None:
    """`fendra probe`: corners of a part, on a stand-in controller, and what was seen of them."""
    command = [sys.executable, "-m", "fendra.demo.controller"]
    command += [word for leds in (256, 79, 20) for word in ("--line", str(leds))]
    (Path(folder) / "cabinet.toml").write_bytes(fd.demo_file("cabinet.toml").read_bytes())
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as controller:
        assert controller.stdout is not None
        port = controller.stdout.readline().split()[-1]
        probe = "fendra probe cabinet.toml corners --part sign"
        saw = "red=top-right green=top-left"
        shoot(folder, f"{probe} --to serial:{port} --speed 10 --times 1 --saw '{saw}'", path)
        controller.terminate()


def with_mistakes(text: str) -> str:
    """Heron with some of the mistakes that makers make."""
    for was, now in (
        ('led = "ws2812b"', 'led = "ws2812"'),
        ("count = 36\n", "count = 0\n"),
        ('hubs = { of = "part', 'hubs = { of = "prat'),
        ('level = "0.35 + 0.65 * brake"', 'level = "0.35 + 0.65 * brke"'),
        ('effect = "cloud"', 'effect = "clod"'),
        ('colour = "#ff0060"', 'color = "#ff0060"'),
    ):
        assert was in text, was
        text = text.replace(was, now, 1)
    return text


def shoot_live(folder: str, path: Path) -> None:
    """`fendra run` in the terminal above, `fendra listen` below, both on a made-up bus."""
    if not shutil.which("tmux"):
        print("no tmux here: the live picture stays as it was")
        return
    for name in ("heron.toml", "heron.dbc"):
        (Path(folder) / name).write_bytes(fd.demo_file(name).read_bytes())
    bus = "can:239.74.163.2,interface=udp_multicast,dbc=heron.dbc"
    colours = "set -g default-terminal xterm-256color ; set -as terminal-overrides ,*:Tc"
    run = f"fendra run heron.toml --from {bus} --to terminal:"
    listen = f"fendra listen heron.toml --from {bus}"
    tmux = (
        f"tmux -L shots -f /dev/null {colours.replace(';', chr(92) + ';')} {chr(92)}; "
        f"set -g status off {chr(92)}; new-session {shlex.quote(run)} {chr(92)}; "
        f"split-window -v -l 13 {shlex.quote(listen)}"
    )
    with subprocess.Popen(
        [BIN / "fendra", "simulate", "vehicle"], stdout=subprocess.DEVNULL
    ) as bus_:
        time.sleep(20)
        shoot(folder, f"clear; {tmux}", path, 9)
        bus_.terminate()
    subprocess.run(["tmux", "-L", "shots", "kill-server"], check=False)


def shoot_raw(folder: str, path: Path) -> None:
    """`fendra listen --raw`, after Enter was pressed at rest and the simulator drives."""
    if not shutil.which("tmux"):
        print("no tmux here: the picture of bytes stays as it was")
        return
    listen = shlex.quote("fendra listen --raw udp:9410")
    with subprocess.Popen(
        [BIN / "fendra", "simulate", "simulator"], stdout=subprocess.DEVNULL
    ) as simulator:
        with subprocess.Popen(["bash", "-c", "sleep 4; tmux -L shots send-keys Enter"]) as pressed:
            shoot(folder, f"clear; tmux -L shots -f /dev/null set -g status off {chr(92)}; "
                  f"new-session {listen}", path, 14)  # fmt: skip
            pressed.wait()
        simulator.terminate()
    subprocess.run(["tmux", "-L", "shots", "kill-server"], check=False)


def shoot(folder: str, command: str, path: Path, seconds: float | None = None) -> None:
    """Commands, a line each, in a terminal window; a picture at their end, or after seconds."""
    done = Path(folder) / "done"
    done.unlink(missing_ok=True)
    each = "; ".join(f"echo {shlex.quote(f'$ {one}')}; {one}" for one in command.splitlines())
    line = f"PATH={BIN}:$PATH; cd {folder}; {each}; touch done; sleep 60"
    terminal = [
        "xterm", "-display", DISPLAY, "-geometry", "124x40+0+0", "-fa", "DejaVu Sans Mono",
        "-fs", "12", "-bg", "#0c0e13", "-fg", "#e4e8ef", "-xrm", "xterm*termName: xterm-256color",
        "-e", "env", "COLORTERM=truecolor", "bash", "-c", line,
    ]  # fmt: skip
    with subprocess.Popen(terminal) as window:
        end_s = time.monotonic() + (MOST_S if seconds is None else seconds)
        while time.monotonic() < end_s and not done.exists():
            time.sleep(0.2)
        if seconds is None and not done.exists():
            raise SystemExit(f"{command} is not done after {MOST_S} s")
        time.sleep(1)  # the terminal draws
        subprocess.run(["import", "-display", DISPLAY, "-window", "root", str(path)], check=True)
        window.terminate()


if __name__ == "__main__":
    main()
