/* A whole firmware of an 8-bit part in simavr, with its pins: switches and voltages go in, one-wire data comes
   out and is decoded by the length of its pulses.

   emulate_board ELF [mcu=atmega328p] [uart=0] [eeprom=FILE] out=D6:84 in=D2 adc=0 ... In, before each frame: a byte for each switch (its level),
   then two for each voltage (mV, low byte first). With `serial` instead of in and adc: bytes for the
   serial link, each behind the cycles to wait before it, as uint32_t; what comes back from the link goes
   to stderr as `back HEX`. With `timed`: rows of text, `CYCLE pin D 2 LEVEL`, `CYCLE adc CHANNEL MV`,
   `CYCLE key D 2 B 1 IS_DOWN` (row, column) and at last `CYCLE end`. Out, a frame: when its data began, in us, as
   uint32_t; then the bytes of all lines, in the order of the outs. At the end, to stderr: cycles that a 0
   and a 1 are high, at the least and at the most, and of the longest pause inside a line. */
#include <stdint.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <unistd.h>

#include <simavr/avr_adc.h>
#include <simavr/avr_eeprom.h>
#include <simavr/avr_ioport.h>
#include <simavr/avr_uart.h>
#include <simavr/sim_avr.h>
#include <simavr/sim_elf.h>
#include <simavr/sim_irq.h>
#include <simavr/sim_time.h>

enum { MOST = 8, LARGEST = 2048, LIMIT = 8 };

struct line {
    char port;
    int pin, size, bits;
    uint64_t rose, fell;
    uint8_t bytes[LARGEST];
};

static struct line lines[MOST];
struct wire {
    char port;
    int pin;
};

static struct wire switches[MOST];
static avr_irq_t *voltages[MOST];
static int line_count, switch_count, voltage_count, is_over, has_serial, is_timed;
static char uart = '0';
static const char *kept_path;
struct key {
    struct wire row, column;
    int is_down;
};
static struct key keys[64];
static int key_count;
static uint64_t shortest[2] = {~0u, ~0u}, longest[2], gap, began;
static avr_t *avr;
static FILE *out;

/* A level from outside, which is stronger than the pull-up. */
static void set_switch(const struct wire *wire, int level)
{
    static unsigned masks[256], values[256];
    const unsigned port = (unsigned char)wire->port, bit = 1u << wire->pin;
    masks[port] |= bit;
    values[port] = level ? values[port] | bit : values[port] & ~bit;
    avr_ioport_external_t external = {.name = port, .mask = masks[port], .value = values[port]};
    avr_ioctl(avr, (uint32_t)AVR_IOCTL_IOPORT_SET_EXTERNAL(wire->port), &external);
    avr_raise_irq(avr_io_getirq(avr, (uint32_t)AVR_IOCTL_IOPORT_GETIRQ(wire->port), wire->pin),
        (uint32_t)level);
}

static void take_inputs(void)
{
    for (int i = 0; i < switch_count; i++) {
        const int level = getchar();
        is_over |= level < 0;
        set_switch(&switches[i], level > 0);
    }
    for (int i = 0; i < voltage_count; i++) {
        const int low = getchar(), high = getchar();
        is_over |= high < 0;
        avr_raise_irq(voltages[i], (uint32_t)(low + 256 * high));
    }
}

static void end_frame(void)
{
    const uint32_t us = (uint32_t)(began * 1000000u / avr->frequency);
    fwrite(&us, sizeof us, 1, out);
    for (int i = 0; i < line_count; i++) {
        fwrite(lines[i].bytes, (size_t)lines[i].size, 1, out);
        lines[i].bits = 0;
    }
    if (!has_serial && !is_timed) {
        take_inputs();
    }
}

static void on_edge(avr_irq_t *irq, uint32_t level, void *which)
{
    struct line *const line = which;
    (void)irq;
    if (level) {
        line->rose = avr->cycle;
        if (line->bits > 0 && line->rose - line->fell > gap) {
            gap = line->rose - line->fell;
        }
        if (line == lines && line->bits == 0) {
            began = line->rose;
        }
        return;
    }
    if (line->rose == 0) {
        return;
    }
    line->fell = avr->cycle;
    const uint64_t high = line->fell - line->rose;
    const int bit = high > LIMIT;
    shortest[bit] = high < shortest[bit] ? high : shortest[bit];
    longest[bit] = high > longest[bit] ? high : longest[bit];
    uint8_t *const byte = &line->bytes[line->bits / 8];
    *byte = (uint8_t)(*byte << 1 | bit);
    line->bits++;
    if (line == &lines[line_count - 1] && line->bits == 8 * line->size) {
        end_frame();
    }
}

/* The next byte of the serial link, and when the one after it comes. */
static avr_cycle_count_t on_serial(avr_t *of, avr_cycle_count_t when, void *unused)
{
    static int next = -1;
    uint32_t wait;
    (void)unused;
    if (next >= 0) {
        avr_raise_irq(avr_io_getirq(of, (uint32_t)AVR_IOCTL_UART_GETIRQ(uart), UART_IRQ_INPUT), (uint32_t)next);
    }
    if (fread(&wait, sizeof wait, 1, stdin) != 1 || (next = getchar()) < 0) {
        is_over = 1;
        return 0;
    }
    return when + wait;
}

/* A key that is down lets its column go low with its row, as its diode wants it. */
static void press_keys(void)
{
    for (int i = 0; i < key_count; i++) {
        int is_low = 0, is_first = 1;
        for (int j = 0; j < key_count; j++) {
            if (keys[j].column.port != keys[i].column.port || keys[j].column.pin != keys[i].column.pin) {
                continue;
            }
            is_first &= j >= i;
            avr_ioport_state_t row;
            avr_ioctl(avr, (uint32_t)AVR_IOCTL_IOPORT_GETSTATE(keys[j].row.port), &row);
            is_low |= keys[j].is_down && (row.ddr >> keys[j].row.pin & 1) && !(row.port >> keys[j].row.pin & 1);
        }
        if (is_first) {
            set_switch(&keys[i].column, !is_low);
        }
    }
}

static avr_cycle_count_t on_driven(avr_t *of, avr_cycle_count_t when, void *unused)
{
    (void)of;
    (void)when;
    (void)unused;
    press_keys();
    return 0;
}

/* A port is being written: its registers change after this. */
static void on_drive(avr_irq_t *irq, uint32_t value, void *unused)
{
    (void)irq;
    (void)value;
    (void)unused;
    avr_cycle_timer_register(avr, 1, on_driven, NULL);
}

static void take_event(const char *row)
{
    char what[8] = "", port, other;
    int pin, second, value;
    sscanf(row, "%*s %7s", what);
    if (strcmp(what, "pin") == 0 && sscanf(row, "%*s %*s %c %d %d", &port, &pin, &value) == 3) {
        set_switch(&(struct wire){port, pin}, value);
    } else if (strcmp(what, "adc") == 0 && sscanf(row, "%*s %*s %d %d", &pin, &value) == 2) {
        avr_raise_irq(avr_io_getirq(avr, AVR_IOCTL_ADC_GETIRQ, ADC_IRQ_ADC0 + pin), (uint32_t)value);
    } else if (strcmp(what, "key") == 0
        && sscanf(row, "%*s %*s %c %d %c %d %d", &port, &pin, &other, &second, &value) == 5) {
        int i = 0;
        while (i < key_count && (keys[i].row.port != port || keys[i].row.pin != pin
                   || keys[i].column.port != other || keys[i].column.pin != second)) {
            i++;
        }
        if (i == key_count) {
            keys[key_count++] = (struct key){{port, pin}, {other, second}, value};
            const uint32_t of = (uint32_t)AVR_IOCTL_IOPORT_GETIRQ(port);
            avr_irq_register_notify(avr_io_getirq(avr, of, IOPORT_IRQ_DIRECTION_ALL), on_drive, NULL);
            avr_irq_register_notify(avr_io_getirq(avr, of, IOPORT_IRQ_REG_PORT), on_drive, NULL);
        }
        keys[i].is_down = value;
        press_keys();
    } else if (strcmp(what, "end") == 0) {
        is_over = 1;
    } else {
        fprintf(stderr, "emulate_board: no event: %s\n", row);
        exit(2);
    }
}

static avr_cycle_count_t on_time(avr_t *of, avr_cycle_count_t when, void *unused)
{
    static char row[128];
    (void)of;
    (void)unused;
    for (;;) {
        if (row[0] == 0 && fgets(row, sizeof row, stdin) == NULL) {
            is_over = 1;
            return 0;
        }
        const unsigned long long at = strtoull(row, NULL, 10);
        if (at > when) {
            return at;
        }
        take_event(row);
        row[0] = 0;
    }
}

static void on_answer(avr_irq_t *irq, uint32_t byte, void *unused)
{
    (void)irq;
    (void)unused;
    fprintf(stderr, "back %02x\n", (unsigned)byte);
}

int main(int count, char **words)
{
    elf_firmware_t firmware;
    memset(&firmware, 0, sizeof firmware);
    out = fdopen(dup(1), "wb");
    dup2(2, 1); /* what simavr has to say */
    if (count < 3 || elf_read_firmware(words[1], &firmware) != 0) {
        fprintf(stderr, "emulate_board: wrong arguments, or no firmware\n");
        return 2;
    }
    const char *mcu = "atmega328p";
    for (int i = 2; i < count; i++) {
        mcu = strncmp(words[i], "mcu=", 4) == 0 ? words[i] + 4 : mcu;
        uart = strncmp(words[i], "uart=", 5) == 0 ? words[i][5] : uart;
    }
    avr = avr_make_mcu_by_name(mcu);
    avr_init(avr);
    avr->log = LOG_ERROR;
    avr_load_firmware(avr, &firmware);
    avr->frequency = 16000000;
    avr->vcc = avr->avcc = avr->aref = 5000;
    for (int i = 2; i < count; i++) {
        char port;
        int pin, size;
        if (sscanf(words[i], "out=%c%d:%d", &port, &pin, &size) == 3) {
            struct line *const line = &lines[line_count++];
            line->port = port;
            line->pin = pin;
            line->size = size;
            avr_irq_register_notify(
                avr_io_getirq(avr, (uint32_t)AVR_IOCTL_IOPORT_GETIRQ(port), pin), on_edge, line);
        } else if (sscanf(words[i], "in=%c%d", &port, &pin) == 2) {
            switches[switch_count++] = (struct wire){port, pin};
        } else if (sscanf(words[i], "adc=%d", &pin) == 1) {
            voltages[voltage_count++] = avr_io_getirq(avr, AVR_IOCTL_ADC_GETIRQ, ADC_IRQ_ADC0 + pin);
        } else if (strcmp(words[i], "timed") == 0) {
            is_timed = 1;
            avr_cycle_timer_register(avr, 1, on_time, NULL);
        } else if (strcmp(words[i], "serial") == 0) {
            uint32_t flags = 0; /* its bytes are no text for the terminal */
            has_serial = 1;
            avr_ioctl(avr, (uint32_t)AVR_IOCTL_UART_SET_FLAGS(uart), &flags);
            avr_irq_register_notify(
                avr_io_getirq(avr, (uint32_t)AVR_IOCTL_UART_GETIRQ(uart), UART_IRQ_OUTPUT), on_answer, NULL);
            avr_cycle_timer_register(avr, 16000, on_serial, NULL);
        }
    }
    for (int i = 2; i < count; i++) {
        if (strncmp(words[i], "eeprom=", 7) == 0) {
            kept_path = words[i] + 7;
            static uint8_t kept[1024];
            FILE *const from = fopen(kept_path, "rb");
            if (from != NULL && fread(kept, sizeof kept, 1, from) == 1) {
                avr_eeprom_desc_t all = {.ee = kept, .offset = 0, .size = sizeof kept};
                avr_ioctl(avr, AVR_IOCTL_EEPROM_SET, &all);
            }
        }
    }
    while (!is_over) {
        const int state = avr_run(avr);
        if (state == cpu_Done || state == cpu_Crashed || avr->cycle > 4000000000u) {
            fprintf(stderr, "emulate_board: it crashed, or sends nothing (state %d, cycle %llu)\n", state, (unsigned long long)avr->cycle);
            return 1;
        }
    }
    fclose(out);
    if (kept_path != NULL) {
        avr_eeprom_desc_t all = {.ee = NULL, .offset = 0, .size = 1024};
        avr_ioctl(avr, AVR_IOCTL_EEPROM_GET, &all);
        FILE *const to = fopen(kept_path, "wb");
        fwrite(all.ee, 1, 1024, to);
        fclose(to);
    }
    fprintf(stderr, "pulses %d %d %d %d %d\n", (int)shortest[0], (int)longest[0], (int)shortest[1],
        (int)longest[1], (int)gap);
    return 0;
}
