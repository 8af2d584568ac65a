/* Replays a tape through an emitted design: reads frames from standard input, writes bytes.

   Compiled with -DPROGRAM=name -DPROGRAM_H='"name.h"' -DLEDS=NAME_LEDS -DSIGNALS=count. A frame
   is now_ms as uint32_t, then for each signal a float and a byte that says whether it is new. */
#include <stdio.h>
#include <string.h>

#include PROGRAM_H

#define JOIN_(a, b) a##b
#define JOIN(a, b) JOIN_(a, b)

struct one {
    float value;
    bool is_new;
};

int main(void)
{
    struct PROGRAM state;
    struct JOIN(PROGRAM, _signals) signals;
    struct one *const each = (struct one *)&signals;
    uint8_t rgb[LEDS][3];
    uint32_t now_ms;
    memset(&signals, 0, sizeof signals);
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
        JOIN(PROGRAM, _frame)(&state, &signals, now_ms, rgb);
        fwrite(rgb, sizeof rgb, 1, stdout);
    }
    return 0;
}
