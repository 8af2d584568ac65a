"""`fendra emit`: what is written, what is told, and what it says when something cannot be."""

from __future__ import annotations

import re

import fendra as fd

SWIFT, GLIDE = fd.demo_file("swift.toml"), fd.demo_file("glide.csv")
HERON = fd.demo_file("heron.toml")


def test_a_folder_with_all_that_a_controller_needs_is_written_and_told(fendra, tmp_path):
    code, out, err = fendra("emit", SWIFT, "--tape", GLIDE)
    assert (code, err) == (0, "")
    folder = tmp_path / "swift-avr"
    assert {path.name for path in folder.iterdir()} == {
        "swift.c", "swift.h", "main.c", "board.c", "board.h", "Makefile", "README.md", "host",
        "made-by-fendra.txt",
    }  # fmt: skip
    assert "Swift, for an ATmega328P at 16 MHz: wings 84 bytes, belly 36 bytes" in out
    assert "D2 (PD2)  signal armed: on when it is connected to ground (swift.toml:" in out
    assert "A0 (PC0)  signal throttle: 0 to 1 of the full scale (swift.toml:" in out
    assert "bytes of flash of 32,256" in out
    assert "on the tape about " in out
    assert "make -C swift-avr try" in out
    readme = (folder / "README.md").read_text()
    assert "| D6 (PD6) | data of line wings: ws2812b, 84 bytes |" in readme
    assert "bytes of flash of 32,256" in readme


def test_the_target_is_what_the_controller_is_unless_another_is_said(fendra, tmp_path):
    assert fendra("emit", fd.demo_file("drone.toml"))[0] == 0
    assert (tmp_path / "kestrel-arm" / "stm32f103.ld").exists()
    code, out, _ = fendra("emit", HERON, "--target", "arm", "--out", "there")
    assert code == 0
    assert "line 'front' is at PA8: GP2 cannot do this on this chip." in out
    assert (tmp_path / "there" / "startup.c").exists()
    assert fendra("emit", HERON)[0] == 0
    assert (tmp_path / "heron-rp2040" / "host" / "uf2.c").exists()
    code, out, _ = fendra("emit", HERON, "--target", "generic")
    assert (tmp_path / "heron-generic" / "board.c").exists()
    assert "then fill in your board" in out


def test_a_receiver_has_the_protocol_too(fendra, tmp_path):
    code, out, _ = fendra("emit", HERON, "--receiver")
    assert code == 0
    assert "Heron as a receiver" in out
    folder = tmp_path / "heron-receiver-rp2040"
    assert (folder / "heron_receiver.c").exists()
    assert "board_take_byte" in (folder / "board.h").read_text()


SEVERAL = """
fendra = 1
name = "Split"
[controllers.left]
type = "rp2040"
[controllers.right-arm]
type = "atmega32u4"
[[line]]
name = "l"
controller = "left"
pin = "GP2"
[[line.part]]
name = "l"
shape = "strip"
start = [-90, 0, 0]
end = [-10, 0, 0]
count = 5
[[line]]
name = "r"
controller = "right-arm"
pin = "D6"
[[line.part]]
name = "r"
shape = "strip"
start = [10, 0, 0]
end = [90, 0, 0]
count = 7
[[layer]]
name = "x"
on = "all"
effect = "solid"
"""


def test_several_controllers_get_a_folder_each(fendra, tmp_path):
    (tmp_path / "split.toml").write_text(SEVERAL)
    code, out, _ = fendra("emit", "split.toml")
    assert code == 0
    assert "for an RP2040" in out
    assert "for an ATmega32U4" in out
    for folder in ("split-left-rp2040", "split-right-arm-avr"):
        assert "SPLIT_LEDS" in (tmp_path / folder / "split.h").read_text()
    code, out, _ = fendra("emit", "split.toml", "--out", "both")
    assert sorted(path.name for path in (tmp_path / "both").iterdir()) == ["left", "right-arm"]
    code, out, _ = fendra("emit", "split.toml", "--controller", "left", "--out", "one")
    assert (tmp_path / "one" / "startup.c").exists()


def test_where_the_compiler_is_missing_it_says_how_to_get_it(fendra, monkeypatch):
    monkeypatch.setattr("fendra.firmware.chips.which", lambda _: None)
    monkeypatch.setattr("fendra.firmware.chips.find_spec", lambda _: None)
    for system, words in (
        ("linux", "arm-none-eabi-gcc (apt install gcc-arm-none-eabi"),
        ("macos", "arm-none-eabi-gcc (brew install"),
        ("windows", "arm-none-eabi-gcc (winget install"),
    ):
        monkeypatch.setattr("fendra.firmware.chips.NAME", system)
        _, out, _ = fendra("emit", HERON)
        assert words in out.replace("\n", " ")
        assert 'pip install "fendra[firmware]"' in out
    monkeypatch.setattr("fendra.firmware.chips.find_spec", lambda _: True)
    assert "to build it you need" not in fendra("emit", HERON)[1]


def test_a_rate_that_is_not_reached_is_a_warning_with_its_place_and_what_costs_most(fendra):
    code, out, err = fendra("emit", HERON, "--target", "avr")
    assert code == 0
    assert re.search(
        r"heron.toml:\d+: warning: controllers.main: the firmware makes about", out + err
    )
    assert "'parked' (" in out + err


def test_what_may_not_fit_is_a_warning_and_what_cannot_an_error(fendra, tmp_path):
    text = SWIFT.read_text().replace("count = 11", "count = 280")
    (tmp_path / "long.toml").write_text(text)
    code, out, err = fendra("emit", "long.toml")
    assert code == 0
    assert "bytes of RAM" in out + err
    assert (tmp_path / "swift-avr" / "swift.c").exists()
    (tmp_path / "long.toml").write_text(text.replace("count = 280", "count = 400"))
    code, _, err = fendra("emit", "long.toml", "--out", "other")
    assert code == 1
    assert "bytes of RAM" in err
    assert not (tmp_path / "other").exists()


def test_what_was_changed_by_hand_is_kept_and_told(fendra, tmp_path):
    fendra("emit", HERON, "--out", "there")
    board = tmp_path / "there" / "board.c"
    board.write_text("/* mine */")
    code, out, _ = fendra("emit", HERON, "--out", "there")
    assert code == 0
    assert board.read_text() == "/* mine */"
    assert "kept as you changed it: board.c (the new text is in board.c.new)" in out


def test_a_design_with_errors_is_not_emitted(fendra, tmp_path):
    (tmp_path / "wrong.toml").write_text(
        HERON.read_text().replace('effect = "spin"', 'effect = "x"')
    )
    code, _, err = fendra("emit", "wrong.toml")
    assert code == 1
    assert "there is no effect 'x'" in err
    assert not (tmp_path / "heron-generic").exists()


def test_a_pin_that_cannot_do_it_names_those_that_are_free(fendra, tmp_path):
    text = fd.demo_file("drone.toml").read_text().replace('pin = "PB6"', 'pin = "PC13"')
    (tmp_path / "kestrel.toml").write_text(text)
    code, _, err = fendra("emit", "kestrel.toml")
    assert code == 1
    assert "line 'body': pin PC13 of an STM32F103" in err
    assert "Free are " in err


def test_a_controller_that_is_not_there_names_those_that_are(fendra):
    code, _, err = fendra("emit", HERON, "--controller", "mian")
    assert code == 2
    assert "there is no controller 'mian'. Did you mean 'main'?" in err


def test_a_folder_that_is_a_file_is_one_line(fendra, tmp_path):
    (tmp_path / "there").write_text("keep")
    code, _, err = fendra("emit", HERON, "--out", "there")
    assert code == 2
    assert "is not a folder" in err
    assert (tmp_path / "there").read_text() == "keep"
