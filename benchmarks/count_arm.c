/* Counts the instructions of each frame: under `qemu -icount shift=0` an instruction takes a nanosecond,
   and SysTick ticks every 40 of them. Built and fed like tests/firmware/replay.c. */
#include <stdio.h>
#include <string.h>

#include PROGRAM_C

#define JOIN_(a, b) a##b
#define JOIN(a, b) JOIN_(a, b)
#define SYSTICK ((volatile uint32_t *)0xE000E010u)

struct one {
    float value;
    bool is_new;
};

static struct PROGRAM state;
static struct JOIN(PROGRAM, _signals) signals;
static uint8_t bytes[BYTES];

int main(void)
{
    struct one *const each = (struct one *)&signals;
    uint32_t now_ms;
    SYSTICK[1] = 0xFFFFFFu;
    SYSTICK[2] = 0u;
    SYSTICK[0] = 5u;
    JOIN(PROGRAM, _init)(&state);
    while (fread(&now_ms, sizeof now_ms, 1, stdin) == 1) {
        for (int i = 0; i < SIGNALS; i++) {
            uint8_t is_new = 0;
            if (fread(&each[i].value, sizeof(float), 1, stdin) != 1
                || fread(&is_new, 1, 1, stdin) != 1) {
                return 1;
            }
            each[i].is_new = is_new != 0;
        }
        const uint32_t before = SYSTICK[2];
        JOIN(PROGRAM, _step)(&state, &signals, now_ms, bytes);
        const uint32_t instructions = ((before - SYSTICK[2]) & 0xFFFFFFu) * 40u;
        fwrite(&instructions, sizeof instructions, 1, stdout);
    }
    return 0;
}
