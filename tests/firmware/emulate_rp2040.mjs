// Whole RP2040 firmware in an emulator of the chip, with its pins: switches, voltages and bytes go in,
// one-wire data comes out and is decoded by the length of its pulses.
//
//   node emulate_rp2040.mjs < job.json > result.json
//
// A job: { seconds, boards: [{ uf2, outs: [{ pin, size }], spis: [unit], events: [[us, what, which, value]] }] }.
// what: "pin" (a level, 0 or 1), "adc" (0 to 4095), "byte" (for a UART), "key" (the pins that it
// joins and whether it is down), "stop" (the processor hangs), "cut" (the power goes and comes back). With
// With usb: [[setup, data]], both hexadecimal, a computer makes these control transfers, one after the other,
// after it has reset the bus; answers: what each gave, or "stall". With
// torn: N the power goes in the middle of the N-th record that is written to the flash. A result: for each board its lines (frames: when each began, us, and its bytes), the
// pulses (the shortest and the longest of a 0, of a 1, of a bit, ns), bytes of its UARTs and SPIs, its
// times of power-up (the watchdog resets), and the baud rates.
import { readFileSync } from "node:fs";

import { ConsoleLogger, GPIOPinState, LogLevel, RP2040 } from "../../web/node_modules/rp2040js/dist/esm/index.js";

const CYCLE_NS = 8; // 125 MHz
const LIMIT_NS = 500; // between a 0 and a 1
const RESET_NS = 50_000;
const ROM_LOOKUP = 0x20;
const ROM_TABLE = 0x100;
const ROM_NAMES = ["IF", "EX", "RE", "RP", "FC", "CX"];

class Line {
  constructor(size) {
    this.size = size;
    this.frames = [];
    this.pulses = { zero: [1e9, 0], one: [1e9, 0], bit: [1e9, 0] };
    this.rose = -1;
    this.last = -1;
    this.begin(0);
  }

  begin(at) {
    this.began = at;
    this.bits = 0;
    this.bytes = new Uint8Array(this.size);
  }

  edge(ns, isHigh) {
    if (isHigh) {
      if (this.bits > 0 && ns - this.last < RESET_NS) {
        note(this.pulses.bit, ns - this.last);
      } else {
        this.begin(ns);
      }
      this.last = ns;
      this.rose = ns;
      return;
    }
    if (this.rose < 0) {
      return;
    }
    const high = ns - this.rose;
    const bit = high > LIMIT_NS ? 1 : 0;
    note(bit ? this.pulses.one : this.pulses.zero, high);
    const place = this.bits >> 3;
    if (place < this.size) {
      this.bytes[place] = (this.bytes[place] << 1) | bit;
    }
    this.bits++;
    if (this.bits === 8 * this.size) {
      this.frames.push([this.began / 1000, Buffer.from(this.bytes).toString("hex")]);
    }
  }
}

function note(span, value) {
  span[0] = Math.min(span[0], value);
  span[1] = Math.max(span[1], value);
}

// The image of a flash, as the drive of the board takes it.
function imageOf(path) {
  const file = readFileSync(path);
  const image = new Uint8Array(2 * 1024 * 1024).fill(0xff);
  for (let at = 0; at < file.length; at += 512) {
    const [first, second, flags, address, size, , , family] = Array.from({ length: 8 }, (_, i) => file.readUInt32LE(at + 4 * i));
    if (first !== 0x0a324655 || second !== 0x9e5d5157 || file.readUInt32LE(at + 508) !== 0x0ab16f30 || flags !== 0x2000 || family !== 0xe48bff56) {
      throw new Error("no UF2 for an RP2040");
    }
    image.set(file.subarray(at + 32, at + 32 + size), address - 0x10000000);
  }
  return image;
}

class Board {
  constructor({ uf2, outs, events = [], torn = -1, usb = [] }) {
    this.transfers = usb.map(([setup, data = ""]) => [Buffer.from(setup, "hex"), Buffer.from(data, "hex")]);
    this.answers = [];
    this.image = imageOf(uf2);
    this.torn = torn;
    this.levels = new Map(); // of pins, as they are driven from outside, also while the power is off
    this.written = 0;
    this.erased = 0;
    this.events = events.map(([us, ...rest]) => [us * 1000, ...rest]).sort((a, b) => a[0] - b[0]);
    this.allKeys = this.events.filter(([, what]) => what === "key");
    this.lines = outs.map(({ size }) => new Line(size));
    this.outs = outs;
    this.sent = [[], []];
    this.spi = [[], []];
    this.bauds = [];
    this.powered = [];
    this.heard = () => {};
    this.start(0);
  }

  // As the chip's own loader does it: 256 bytes to RAM, if their checksum is right.
  start(ns) {
    const chip = new RP2040();
    chip.logger = new ConsoleLogger(LogLevel.Error);
    chip.flash.set(this.image);
    this.since = ns;
    this.clock = chip.clock;
    this.chip = chip;
    this.isOver = false;
    this.powered.push(ns / 1000);
    const stage = this.image.subarray(0, 256);
    let crc = 0xffffffff;
    for (const byte of stage.subarray(0, 252)) {
      crc ^= byte << 24;
      for (let bit = 0; bit < 8; bit++) {
        crc = crc & 0x80000000 ? (crc << 1) ^ 0x04c11db7 : crc << 1;
      }
    }
    if (crc >>> 0 !== new DataView(stage.buffer, stage.byteOffset).getUint32(252, true)) {
      throw new Error("the loader refuses the second stage: its checksum is wrong");
    }
    chip.sram.set(stage, 0x41f00);
    chip.bootrom[5] = ROM_TABLE; // at 0x14: where the functions are told; behind it what looks them up
    chip.bootrom[6] = ROM_LOOKUP | 1;
    chip.core.VTOR = 0;
    chip.core.SP = 0x20041f00;
    chip.core.PC = 0x20041f00;
    this.machines = [];
    for (const pio of chip.pio) {
      pio.run = () => {}; // its machines are stepped here, each by its own clock
      for (const machine of pio.machines) {
        machine.outputShiftCount = 32; // nothing to shift out yet, as the data sheet says (3.5.4)
        this.machines.push({ pio, machine, due: 0 });
      }
    }
    this.at = 0;
    this.outs.forEach(({ pin }, i) => {
      this.lines[i].rose = -1;
      chip.gpio[pin].addListener((state, before) => {
        if ((state === GPIOPinState.High) !== (before === GPIOPinState.High)) {
          this.lines[i].edge(this.since + this.at, state === GPIOPinState.High);
        }
      });
    });
    chip.uart.forEach((uart, i) => {
      uart.onByte = (byte) => {
        this.sent[i].push([this.now / 1000, byte]);
        this.heard(i, byte, this.now, uart.baudRate);
      };
      uart.onBaudRateChange = (rate) => this.bauds.push([i, rate]);
    });
    chip.spi.forEach((spi, i) => {
      spi.onTransmit = (byte) => {
        this.spi[i].push(byte);
        spi.completeTransmit(0);
      };
    });
    for (const part of Object.values(chip.peripherals)) {
      if (part.onWatchdogTrigger) {
        part.onWatchdogTrigger = () => {
          this.isOver = true;
          part.alarm.enabled = false; // else it rings again in the same moment, for ever
        };
      }
    }
    this.plugIn(chip.usbCtrl);
    this.hangs = false;
    for (const [pin, isHigh] of this.levels) {
      chip.gpio[pin].setInputValue(isHigh);
    }
    this.keys = new Map();
    for (const [, what, which] of this.events) {
      if (what === "key" && !this.keys.has(which[0])) {
        this.keys.set(which[0], new Set());
        chip.gpio[which[1]].setInputValue(true);
        chip.gpio[which[0]].addListener(() => this.press());
      }
    }
  }

  // The computer that its USB is plugged into.
  plugIn(usb) {
    let open = null;
    const next = () => {
      const [setup, data] = this.transfers[this.answers.length] ?? [];
      open = setup ? { setup, data, got: [], isIn: (setup[0] & 0x80) !== 0, wanted: setup[6] | (setup[7] << 8) } : null;
      if (open) {
        usb.sendSetupPacket(setup);
      }
    };
    const done = (answer) => {
      this.answers.push(answer);
      open = null;
      this.plan([this.now + 200_000, "usb", next]);
    };
    usb.onUSBEnabled = () => usb.resetDevice();
    usb.onResetReceived = () => this.plan([this.now + 1_000_000, "usb", next]);
    usb.onEndpointWrite = (endpoint, bytes) => {
      if (endpoint !== 0 || !open) {
        return;
      }
      open.got.push(...bytes);
      if (!open.isIn) {
        done("");
      }
    };
    usb.onEndpointRead = (endpoint) => {
      if (endpoint === 0 && open) {
        usb.endpointReadDone(0, open.isIn ? new Uint8Array(0) : new Uint8Array(open.data));
        if (open.isIn) {
          const { got } = open; // the emulator hands the last packet over a moment later
          const isWhole = () => got.length % 64 > 0 || got.length >= open.wanted;
          this.plan([this.now + 50_000, "usb", () => done(isWhole() ? Buffer.from(got).toString("hex") : "too little")]);
        }
      }
    };
    this.checkStall = () => {
      if (open && usb.epStallArm === 3) {
        usb.epStallArm = 0;
        done("stall");
      }
    };
  }

  // A key lets its column go low with its row, as its diode wants it.
  press() {
    const columns = new Map();
    for (const [, what, [row, column] = []] of this.allKeys) {
      const isLow = this.keys.get(row)?.has(column) && this.chip.gpio[row].value === GPIOPinState.Low;
      columns.set(column, (columns.get(column) ?? false) || isLow);
    }
    for (const [column, isLow] of columns) {
      this.chip.gpio[column].setInputValue(!isLow);
    }
  }

  get now() {
    return this.since + this.clock.nanos;
  }

  // The chip's own functions for its flash.
  rom(core) {
    const [first, second, third] = core.registers;
    const { flash } = this.chip;
    const which = (core.PC - ROM_TABLE) / 4;
    if (core.PC === ROM_LOOKUP) {
      core.registers[0] = (ROM_TABLE + 4 * ROM_NAMES.indexOf(String.fromCharCode(second & 255, second >> 8))) | 1;
    } else if (ROM_NAMES[which] === "RE") {
      flash.fill(0xff, first, first + second);
      this.erased++;
    } else if (ROM_NAMES[which] === "RP") {
      this.isOver = this.written++ === this.torn;
      const count = this.isOver ? 9 : third;
      for (let i = 0; i < count; i++) {
        flash[first + i] &= this.chip.readUint8(second + i);
      }
    }
    core.PC = core.LR & ~1;
    this.clock.tick(1_000_000);
  }

  // One event more, in its order.
  plan(event) {
    const place = this.events.findIndex(([at]) => at > event[0]);
    this.events.splice(place < 0 ? this.events.length : place, 0, event);
  }

  take([, what, which, value]) {
    const { chip } = this;
    if (what === "pin") {
      this.levels.set(which, value === 1);
      chip.gpio[which].setInputValue(value === 1);
    } else if (what === "adc") {
      chip.adc.channelValues[which] = value;
    } else if (what === "byte") {
      chip.uart[which].feedByte(value);
    } else if (what === "key") {
      const down = this.keys.get(which[0]);
      if (value) {
        down.add(which[1]);
      } else {
        down.delete(which[1]);
      }
      this.press();
    } else if (what === "usb") {
      which();
    } else if (what === "cut") {
      this.isOver = true;
    } else if (what === "stop") {
      this.hangs = true;
    }
  }

  runUntil(ns) {
    while (this.now < ns) {
      const { core } = this.chip;
      while (this.events.length && this.events[0][0] <= this.now) {
        this.take(this.events.shift());
      }
      if (core.PC < 0x4000) {
        this.rom(core);
      } else if (core.waiting) {
        this.sleep(ns);
      } else {
        const cycles = this.hangs ? 100 : core.executeInstruction();
        this.clock.tick(cycles * CYCLE_NS);
      }
      this.checkStall();
      this.stepMachines();
      if (this.isOver) {
        this.image = this.chip.flash.slice(0, this.image.length);
        this.start(this.now);
      }
    }
  }

  // Up to what comes next: an alarm, an event, a tick of a machine that is sending.
  sleep(ns) {
    const sending = this.machines.some(({ machine }) => machine.enabled && !(machine.waiting && machine.txFIFO.empty));
    const event = this.events.length ? this.events[0][0] - this.now : Infinity;
    const most = sending ? 10 * CYCLE_NS : Math.min(event, ns - this.now, this.clock.nanosToNextAlarm || 100);
    this.clock.tick(Math.max(most, CYCLE_NS));
  }

  stepMachines() {
    const now = this.clock.nanos;
    for (const each of this.machines) {
      const { machine, pio } = each;
      if (!machine.enabled) {
        each.due = now;
        continue;
      }
      const divider = (machine.clockDivInt + machine.clockDivFrac / 256) * CYCLE_NS;
      while (each.due <= now) {
        const before = machine.cycles;
        this.at = each.due;
        machine.step();
        pio.checkChangedPins();
        each.due += Math.max(machine.cycles - before, 1) * divider;
        if (machine.waiting && machine.txFIFO.empty) {
          each.due = Math.max(each.due, now); // it waits for a byte
        }
      }
    }
    this.at = now;
  }

  report() {
    return {
      lines: this.lines.map(({ frames, pulses }) => ({ frames, pulses })), sent: this.sent, spi: this.spi, bauds: this.bauds,
      powered: this.powered, pulls: this.chip.gpio.map((pin) => (pin.pullupEnabled ? "up" : pin.pulldownEnabled ? "down" : "none")),
      written: this.written, erased: this.erased, answers: this.answers,
    };
  }
}

const job = JSON.parse(readFileSync(0, "utf8"));
const boards = job.boards.map((board) => new Board(board));
for (const [from, fromUart, to, toUart] of job.wires ?? []) {
  let free = 0; // when the wire is: the emulator sends all bytes of a queue at once
  boards[from].heard = ((before) => (uart, byte, ns, baud) => {
    before(uart, byte, ns, baud);
    if (uart === fromUart && !(job.cuts ?? []).some(([begin, end]) => ns >= begin * 1000 && ns < end * 1000)) {
      free = Math.max(free, ns) + 1e10 / baud;
      boards[to].plan([free, "byte", toUart, byte]);
    }
  })(boards[from].heard);
}
const step = boards.length > 1 ? 20_000 : 1_000_000;
for (let ns = step; ns <= job.seconds * 1e9; ns += step) {
  for (const board of boards) {
    board.runUntil(ns);
  }
}
process.stdout.write(JSON.stringify(boards.map((board) => board.report())));
