"""STM32 as far as the board layer uses them: the processor by Unicorn, registers from the reference
manuals RM0008 and RM0090 (clock, ports, timers with PWM, DMA, ADC) and the ARMv7-M manual (its count of cycles)."""

from __future__ import annotations

import struct
from dataclasses import dataclass, field

from unicorn import UC_ARCH_ARM, UC_HOOK_BLOCK, UC_MODE_MCLASS, UC_MODE_THUMB, Uc
from unicorn.arm_const import (
    UC_ARM_REG_PC,
    UC_ARM_REG_SP,
    UC_CPU_ARM_CORTEX_M3,
    UC_CPU_ARM_CORTEX_M4,
)
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
    slow: int = 1
    since: int = 0
    active: list[int] = field(default_factory=lambda: [0, 0, 0, 0])


class Stm32:
    """Runs a firmware image on an STM32F103. pulses: of each pin, the lengths of its pulses in timer ticks, and when
    each began, in cycles. levels: of pins that are inputs; volts: of analogue channels, of 3.3."""

    cpu, timers_at, ports, idr, odr, bsrr = UC_CPU_ARM_CORTEX_M3, TIMERS, PORTS, 8, 12, 16
    slow_timers, ram, adc = 1, 0x5000, (0x4001_2400, 0x4001_2434, 0x4001_244C)

    def __init__(self, image: bytes, *, has_crystal: bool = True) -> None:
        self.cycles, self.has_crystal = 0, has_crystal
        self.pulses: dict[tuple[str, int], list[tuple[int, int]]] = {}
        self.levels: dict[tuple[str, int], bool] = {}
        self.volts: dict[int, float] = {}
        self.timers = [
            Timer(number, base, 1 if number == 1 else self.slow_timers)
            for number, base in self.timers_at.items()
        ]
        self.registers: dict[int, int] = {}
        self._counts: dict[int, int] = {}
        self._uc = uc = Uc(UC_ARCH_ARM, UC_MODE_THUMB | UC_MODE_MCLASS)
        uc.ctl_set_cpu_model(self.cpu)
        uc.mem_map(FLASH, 0x10000, UC_PROT_ALL)
        uc.mem_map(RAM, self.ram)
        uc.mmio_map(0x4000_0000, 0x30000, self._read, 0x4000_0000, self._write, 0x4000_0000)
        for base in (0xE000_1000, 0xE000_E000):
            uc.mmio_map(base, 0x1000, self._read, base, self._write, base)
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
            case 0x4002_1000 | 0x4002_3800:  # RCC_CR: what is on is ready
                return value | (value & 1 << 16 and self.has_crystal) << 17 | (value & 1 << 24) << 1
            case 0x4002_1004 | 0x4002_3808:  # RCC_CFGR: the clock that is asked for is taken
                return value | (value & 3) << 2
            case 0xE000_1004:  # DWT_CYCCNT
                return self.cycles & 0xFFFF_FFFF
            case 0x4001_2408:  # ADC_CR2: calibrated
                return value & ~4
        status, channel_at, result = self.adc
        if address == status:
            return 2  # done
        if address == result:
            channel = self.registers.get(channel_at, 0) & 31
            return round(self.volts.get(channel, 0.0) / 3.3 * 4095)
        for port, start in self.ports.items():
            if address == start + self.idr:
                return sum(1 << pin for pin in range(16) if self._level(port, pin))
        for timer in self.timers:
            if address == timer.base + CNT:
                ticks = (self.cycles - timer.since) // timer.slow
                return ticks % (self.registers.get(timer.base + ARR, 0) + 1)
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
        for start in self.ports.values():
            if address == start + self.bsrr:
                output = self.registers.get(start + self.odr, 0)
                self.registers[start + self.odr] = (output | value & 0xFFFF) & ~(value >> 16)
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
            period = (self.registers.get(timer.base + ARR, 0xFFFF) + 1) * timer.slow
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
            port, pin = self.output(timer, i)
            is_pwm = get(base + CCMR1 + 4 * (i // 2), 0) >> 8 * (i % 2) & 0x78 == 0x68
            is_out = get(base + CCER, 0) >> 4 * i & 1 and self.is_timers(port, pin) and is_pwm
            if timer.number == 1:
                is_out = is_out and get(base + BDTR, 0) >> 15
            if is_out and length:
                self.pulses.setdefault((port, pin), []).append((length, timer.since))
        if get(base + DIER, 0) >> 8 & 1:
            self.move(timer)

    def output(self, timer, i):
        """The pin of a timer's output."""
        return OUTPUTS[timer.number, i]

    def is_timers(self, port, pin):
        """Whether a pin is a timer's."""
        return self.mode(port, pin) == 0xB

    def move(self, timer):
        """What DMA moves when a timer asks it."""
        get = self.registers.get
        channel = 0x4002_0008 + 20 * (UPDATE_DMA[timer.number] - 1)
        control, left = get(channel, 0), get(channel + 4, 0)
        if control & 1 and left:
            assert control & 0xC90 == 0x90  # from memory, byte after byte
            source = get(channel + 12, 0) + self._counts[channel + 4] - left
            self.registers[get(channel + 8, 0)] = self._uc.mem_read(source, 1)[0]
            self.registers[channel + 4] = left - 1


class Stm32F405(Stm32):
    """The same of an STM32F405 (RM0090): other ports, DMA by streams, slow timers at half speed."""

    cpu = UC_CPU_ARM_CORTEX_M4
    timers_at = {1: 0x4001_0000, 2: 0x4000_0000, 3: 0x4000_0400, 4: 0x4000_0800}
    ports = {"A": 0x4002_0000, "B": 0x4002_0400, "C": 0x4002_0800}
    idr, odr, bsrr, slow_timers, ram = 0x10, 0x14, 0x18, 2, 0x2_0000
    adc = (0x4001_2000, 0x4001_2034, 0x4001_204C)
    core_hz = 168_000_000
    streams = {1: (0x4002_6400, 5, 6), 2: (0x4002_6000, 1, 3), 3: (0x4002_6000, 2, 5),
               4: (0x4002_6000, 6, 2)}  # fmt: skip
    """The DMA, the stream and the request of each timer's update (tables 42 and 43)."""
    functions = {1: 1, 2: 1, 3: 2, 4: 2}
    """The alternate function of each timer's pins (DS8626, table 9)."""

    def mode(self, port, pin):
        """Its two bits of mode, of pull, and its four of alternate function."""
        get, start = self.registers.get, self.ports[port]
        mode, pull = (get(start + at, 0) >> 2 * pin & 3 for at in (0, 12))
        return mode, pull, get(start + 0x20 + 4 * (pin // 8), 0) >> 4 * (pin % 8) & 15

    def _level(self, port, pin):
        return self.levels.get((port, pin), self.mode(port, pin)[1] == 1)

    def output(self, timer, i):
        self._function = self.functions[timer.number]
        return OUTPUTS[timer.number, i]

    def is_timers(self, port, pin):
        mode, _, function = self.mode(port, pin)
        return (mode, function) == (2, self._function)

    def _write(self, uc, offset, size, value, base):
        address = base + offset
        for dma in (0x4002_6000, 0x4002_6400):
            stream = address - dma - 0x10
            if 0 <= stream < 8 * 0x18 and stream % 0x18 == 4:
                self._counts[address] = value
        super()._write(uc, offset, size, value, base)

    def move(self, timer):
        get, (dma, number, request) = self.registers.get, self.streams[timer.number]
        stream = dma + 0x10 + 0x18 * number
        control, left = get(stream, 0), get(stream + 4, 0)
        if control & 1 and left:
            assert control >> 25 & 7 == request
            assert control & 0x7C40 == 0x5440  # from memory, 32 bits each, word after word
            source = get(stream + 12, 0) + 4 * (self._counts[stream + 4] - left)
            word = struct.unpack("<I", self._uc.mem_read(source, 4))[0]
            self.registers[get(stream + 8, 0)] = word
            self.registers[stream + 4] = left - 1


class Stm32F411(Stm32F405):
    """The same of an STM32F411 (RM0383): all of its timers at 84 MHz."""

    slow_timers, core_hz = 1, 84_000_000
