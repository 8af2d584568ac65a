"""An STM32F103 as far as the board layer uses it: its processor by Unicorn, its registers from the
reference manual RM0008 (clock, ports, timers with PWM, DMA, ADC) and the ARMv7-M manual (SysTick)."""

from __future__ import annotations

import struct
from dataclasses import dataclass, field

from unicorn import UC_ARCH_ARM, UC_HOOK_BLOCK, UC_MODE_MCLASS, UC_MODE_THUMB, Uc
from unicorn.arm_const import UC_ARM_REG_PC, UC_ARM_REG_SP, UC_CPU_ARM_CORTEX_M3
from unicorn.unicorn_const import UC_PROT_ALL

FLASH, RAM, STACK = 0x0800_0000, 0x2000_0000, 0x2000_5000
TIMERS = {1: 0x4001_2C00, 2: 0x4000_0000, 3: 0x4000_0400, 4: 0x4000_0800}
UPDATE_DMA = {1: 5, 2: 2, 3: 3, 4: 7}
"""The DMA channel that each timer's update asks (table 78)."""
OUTPUTS = {(1, i): ("A", 8 + i) for i in range(4)} | {(2, i): ("A", i) for i in range(4)}
OUTPUTS |= {(3, 0): ("A", 6), (3, 1): ("A", 7), (3, 2): ("B", 0), (3, 3): ("B", 1)}
OUTPUTS |= {(4, i): ("B", 6 + i) for i in range(4)}
"""The pins of the timers' outputs without remapping (tables 46 to 49)."""
PORTS = {"A": 0x4001_0800, "B": 0x4001_0C00, "C": 0x4001_1000}
CR1, DIER, SR, CCMR1, CCER, CNT, ARR, CCR1, BDTR = 0, 12, 16, 24, 32, 36, 44, 52, 68
SLOW = 8
"""Cycles that an instruction takes here: time passes faster, so that waiting takes less of it."""


@dataclass
class Timer:
    """A timer that counts up: when its last update was, and what its outputs compare with now."""

    number: int
    base: int
    since: int = 0
    active: list[int] = field(default_factory=lambda: [0, 0, 0, 0])


class Stm32:
    """Runs a firmware image. pulses: of each pin, the lengths of its pulses in timer ticks, and when
    each began, in cycles. levels: of pins that are inputs; volts: of analogue channels, of 3.3."""

    def __init__(self, image: bytes, *, has_crystal: bool = True) -> None:
        self.cycles, self.has_crystal = 0, has_crystal
        self.pulses: dict[tuple[str, int], list[tuple[int, int]]] = {}
        self.levels: dict[tuple[str, int], bool] = {}
        self.volts: dict[int, float] = {}
        self.timers = [Timer(number, base) for number, base in TIMERS.items()]
        self.registers: dict[int, int] = {}
        self._counts: dict[int, int] = {}
        self._uc = uc = Uc(UC_ARCH_ARM, UC_MODE_THUMB | UC_MODE_MCLASS)
        uc.ctl_set_cpu_model(UC_CPU_ARM_CORTEX_M3)
        uc.mem_map(FLASH, 0x10000, UC_PROT_ALL)
        uc.mem_map(RAM, 0x5000)
        uc.mmio_map(0x4000_0000, 0x30000, self._read, 0x4000_0000, self._write, 0x4000_0000)
        uc.mmio_map(0xE000_E000, 0x1000, self._read, 0xE000_E000, self._write, 0xE000_E000)
        uc.mem_write(FLASH, image)
        uc.hook_add(UC_HOOK_BLOCK, self._on_block)
        stack, self._entry = struct.unpack("<II", image[:8])
        uc.reg_write(UC_ARM_REG_SP, stack)
        self.until = 0

    @property
    def core_hz(self) -> int:
        return 72_000_000 if self.has_crystal else 64_000_000

    def run(self, seconds: float) -> None:
        """Go on for so long."""
        self.until = self.cycles + int(seconds * self.core_hz)
        self._uc.emu_start(self._entry, 0)
        self._entry = self._uc.reg_read(UC_ARM_REG_PC) | 1
        self._go_on()

    def _on_block(self, uc, address, size, _):
        self.cycles += SLOW * size // 2
        if self.cycles >= self.until:
            uc.emu_stop()

    def _read(self, uc, offset, size, base):
        address = base + offset
        self._go_on()
        value = self.registers.get(address, 0)
        match address:
            case 0x4002_1000:  # RCC_CR: what is on is ready
                return value | (value & 1 << 16 and self.has_crystal) << 17 | (value & 1 << 24) << 1
            case 0x4002_1004:  # RCC_CFGR: the clock that is asked for is taken
                return value | (value & 3) << 2
            case 0xE000_E018:
                return -self.cycles & 0xFFFFFF
            case 0x4001_2400:  # ADC_SR: done
                return 2
            case 0x4001_2408:  # ADC_CR2: calibrated
                return value & ~4
            case 0x4001_244C:
                channel = self.registers.get(0x4001_2434, 0) & 31
                return round(self.volts.get(channel, 0.0) / 3.3 * 4095)
        for port, start in PORTS.items():
            if address == start + 8:
                return sum(1 << pin for pin in range(16) if self._level(port, pin))
        for timer in self.timers:
            if address == timer.base + CNT:
                return (self.cycles - timer.since) % (self.registers.get(timer.base + ARR, 0) + 1)
        return value

    def _level(self, port, pin):
        """What an input sees: from outside, else what pulls it."""
        pulled = self.mode(port, pin) == 8 and bool(
            self.registers.get(PORTS[port] + 12, 0) >> pin & 1
        )
        return self.levels.get((port, pin), pulled)

    def mode(self, port, pin):
        """The four bits that say what a pin is (table 20)."""
        return self.registers.get(PORTS[port] + 4 * (pin // 8), 0x4444_4444) >> 4 * (pin % 8) & 15

    def _write(self, uc, offset, size, value, base):
        address = base + offset
        self._go_on()
        for start in PORTS.values():
            if address == start + 16:  # BSRR
                output = self.registers.get(start + 12, 0)
                self.registers[start + 12] = (output | value & 0xFFFF) & ~(value >> 16)
        if 0x4002_0008 <= address < 0x4002_0094 and (address - 0x4002_0008) % 20 == 4:
            self._counts[address] = value  # CNDTR: so many bytes are to be moved
        for timer in self.timers:
            was_on = self.registers.get(timer.base + CR1, 0) & 1
            if address == timer.base + CR1 and value & 1 and not was_on:
                timer.since = self.cycles
            if address == timer.base + 20 and value & 1:  # EGR: an update by hand
                timer.active = [self.registers.get(timer.base + CCR1 + 4 * i, 0) for i in range(4)]
                self.registers[timer.base + SR] = 1
                return
            if address == timer.base + SR:
                value &= self.registers.get(address, 0)  # cleared by writing 0
        self.registers[address] = value

    def _go_on(self):
        """What the timers and DMA have done since."""
        for timer in self.timers:
            period = self.registers.get(timer.base + ARR, 0xFFFF) + 1
            while (
                self.registers.get(timer.base + CR1, 0) & 1 and self.cycles - timer.since >= period
            ):
                timer.since += period
                self._update(timer)

    def _update(self, timer):
        get, base = self.registers.get, timer.base
        timer.active = [get(base + CCR1 + 4 * i, 0) for i in range(4)]
        self.registers[base + SR] = get(base + SR, 0) | 1
        for i, length in enumerate(timer.active):
            port, pin = OUTPUTS[timer.number, i]
            is_pwm = get(base + CCMR1 + 4 * (i // 2), 0) >> 8 * (i % 2) & 0x78 == 0x68
            is_out = get(base + CCER, 0) >> 4 * i & 1 and self.mode(port, pin) == 0xB and is_pwm
            if timer.number == 1:
                is_out = is_out and get(base + BDTR, 0) >> 15
            if is_out and length:
                self.pulses.setdefault((port, pin), []).append((length, timer.since))
        channel = 0x4002_0008 + 20 * (UPDATE_DMA[timer.number] - 1)
        control, left = get(channel, 0), get(channel + 4, 0)
        if get(base + DIER, 0) >> 8 & 1 and control & 1 and left:
            assert control & 0xC90 == 0x90  # from memory, byte after byte
            source = get(channel + 12, 0) + self._counts[channel + 4] - left
            self.registers[get(channel + 8, 0)] = self._uc.mem_read(source, 1)[0]
            self.registers[channel + 4] = left - 1
