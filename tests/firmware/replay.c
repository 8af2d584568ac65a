/* Runs frames through an emitted design and tells what came of them: on a computer, and on a
   Cortex-M under emulation by semihosting. Built with -DPROGRAM=name -DPROGRAM_C='"name.c"'
   -DLEDS=NAME_LEDS -DBYTES=NAME_BYTES -DSIGNALS=count.

   In, a frame: now_ms as uint32_t, then for each signal a float and a byte that says whether it is
   new. Out, a frame: the bytes of all lines; then, where LIGHT is defined, the master level and the
   light before it is quantised, red, green and blue of each LED, as floats. Where COUNT is defined, the
   instructions of the frame instead, as uint32_t: under `qemu -icount shift=0` each takes a nanosecond,
   and SysTick ticks every 40 of them. */
#include <stdio.h>
#include <string.h>

#include PROGRAM_C

#define JOIN_(a, b) a##b
#define JOIN(a, b) JOIN_(a, b)

struct one {
    float value;
    bool is_new;
};

static struct PROGRAM state, twin;
static struct JOIN(PROGRAM, _signals) signals;
static uint8_t bytes[BYTES];

static void show_light(uint32_t now_ms)
{
    struct light light;
    advance(&twin, &signals, now_ms);
    fwrite(&twin.now.master, sizeof(float), 1, stdout);
    for (int first = 0; first < LEDS; first += AT_ONCE) {
        const int end = LEDS < first + AT_ONCE ? LEDS : first + AT_ONCE;
        paint(&twin.now, first, end, &light);
        for (int at = 0; at < end - first; at++) {
            const float rgb[3] = {light.red[at], light.green[at], light.blue[at]};
            fwrite(rgb, sizeof rgb, 1, stdout);
        }
    }
}

int main(void)
{
    struct one *const each = (struct one *)&signals;
    uint32_t now_ms;
    memset(&signals, 0, sizeof signals);
    JOIN(PROGRAM, _init)(&state);
    JOIN(PROGRAM, _init)(&twin);
    while (fread(&now_ms, sizeof now_ms, 1, stdin) == 1) {
        for (int i = 0; i < SIGNALS; i++) {
            uint8_t is_new = 0;
            if (fread(&each[i].value, sizeof(float), 1, stdin) != 1
                || fread(&is_new, 1, 1, stdin) != 1) {
                return 1;
            }
            each[i].is_new = is_new != 0;
        }
#ifdef COUNT
        volatile uint32_t *const systick = (volatile uint32_t *)0xE000E010u;
        systick[1] = systick[2] = 0xFFFFFFu;
        systick[0] = 5u;
        const uint32_t before = systick[2];
#endif
        JOIN(PROGRAM, _step)(&state, &signals, now_ms, bytes);
#ifdef COUNT
        const uint32_t instructions = ((before - systick[2]) & 0xFFFFFFu) * 40u;
        fwrite(&instructions, sizeof instructions, 1, stdout);
#else
        fwrite(bytes, sizeof bytes, 1, stdout);
#endif
#ifdef LIGHT
        show_light(now_ms);
#else
        (void)show_light;
#endif
    }
    return 0;
}
