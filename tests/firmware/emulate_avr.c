/* An ATmega328P in simavr that runs replay_avr.c.

   emulate_avr ELF SIGNALS SIGNALS_SIZE NOW BYTES BYTES_SIZE MASTER LIGHT AT_ONCE END
   All but ELF are numbers: where things lie in its memory (0: not there), and how large they are;
   END is the end of all variables. In, a frame: now_ms, then the signals as they lie in memory.
   Out, a frame: its cycles as uint32_t, then as replay.c. At the end, to stderr: the stack used. */
#include <stdint.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <unistd.h>

#include <simavr/sim_avr.h>
#include <simavr/sim_elf.h>
#include <simavr/sim_io.h>

enum { NEXT = 1, BYTES_ARE_THERE, MASTER_IS_THERE, LIGHT_IS_THERE };
enum { GPIOR0 = 0x3E, GPIOR1 = 0x4A, GPIOR2 = 0x4B, UNTOUCHED = 0xA5 };

static long where[10];
static uint64_t started, cycles;
static int is_over;
static FILE *out;

static void on_word(avr_t *avr, avr_io_addr_t at, uint8_t word, void *unused)
{
    uint8_t *const memory = avr->data;
    (void)at;
    (void)unused;
    switch (word) {
    case NEXT:
        if (fread(memory + where[3], 4, 1, stdin) != 1
            || (where[2] && fread(memory + where[1], (size_t)where[2], 1, stdin) != 1)) {
            is_over = 1;
        }
        break;
    case BYTES_ARE_THERE: {
        const uint32_t taken = (uint32_t)cycles;
        fwrite(&taken, sizeof taken, 1, out);
        fwrite(memory + where[4], (size_t)where[5], 1, out);
        break;
    }
    case MASTER_IS_THERE:
        fwrite(memory + where[6], 4, 1, out);
        break;
    case LIGHT_IS_THERE:
        for (int i = 0; i < memory[GPIOR2]; i++) {
            for (int channel = 0; channel < 3; channel++) {
                fwrite(memory + where[7] + 4 * (channel * where[8] + i), 4, 1, out);
            }
        }
        break;
    }
}

static void on_work(avr_t *avr, avr_io_addr_t at, uint8_t is_working, void *unused)
{
    (void)at;
    (void)unused;
    if (is_working) {
        started = avr->cycle;
    } else {
        cycles = avr->cycle - started;
    }
}

int main(int count, char **words)
{
    elf_firmware_t firmware;
    out = fdopen(dup(1), "wb");
    dup2(2, 1); /* what simavr has to say */
    memset(&firmware, 0, sizeof firmware);
    if (count != 11 || elf_read_firmware(words[1], &firmware) != 0) {
        fprintf(stderr, "emulate_avr: wrong arguments, or no firmware\n");
        return 2;
    }
    for (int i = 1; i < 10; i++) {
        where[i] = strtol(words[i + 1], NULL, 0);
    }
    avr_t *const avr = avr_make_mcu_by_name("atmega328p");
    avr_init(avr);
    avr->log = LOG_ERROR;
    avr_load_firmware(avr, &firmware);
    avr->frequency = 16000000;
    const long end = where[9];
    for (long at = end; at <= avr->ramend; at++) {
        avr->data[at] = UNTOUCHED;
    }
    avr_register_io_write(avr, GPIOR0, on_word, NULL);
    avr_register_io_write(avr, GPIOR1, on_work, NULL);
    while (!is_over) {
        const int state = avr_run(avr);
        if (state == cpu_Done || state == cpu_Crashed) {
            fprintf(stderr, "emulate_avr: it crashed\n");
            return 1;
        }
    }
    fclose(out);
    long low = end;
    while (low <= avr->ramend && avr->data[low] == UNTOUCHED) {
        low++;
    }
    fprintf(stderr, "%ld\n", avr->ramend + 1 - low);
    return 0;
}
