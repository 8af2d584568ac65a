/* The same as replay.c on an 8-bit part: `emulate_avr` puts a frame into its memory and takes out
   what came of it whenever GPIOR0 is written to. GPIOR1 is 1 while a frame is made. */
#include <avr/io.h>

#include PROGRAM_C

#define JOIN_(a, b) a##b
#define JOIN(a, b) JOIN_(a, b)

enum { NEXT = 1, BYTES_ARE_THERE, MASTER_IS_THERE, LIGHT_IS_THERE };

struct PROGRAM state;
struct JOIN(PROGRAM, _signals) signals;
uint8_t bytes[BYTES];
uint32_t now_ms;
#ifdef LIGHT
struct PROGRAM twin;
struct light light;
float master;
#endif

int main(void)
{
    JOIN(PROGRAM, _init)(&state);
#ifdef LIGHT
    JOIN(PROGRAM, _init)(&twin);
#endif
    for (;;) {
        GPIOR0 = NEXT;
        __asm__ volatile("" ::: "memory");
        GPIOR1 = 1;
        JOIN(PROGRAM, _step)(&state, &signals, now_ms, bytes);
        GPIOR1 = 0;
        __asm__ volatile("" ::: "memory");
        GPIOR0 = BYTES_ARE_THERE;
#ifdef LIGHT
        advance(&twin, &signals, now_ms);
        master = twin.now.master;
        __asm__ volatile("" ::: "memory");
        GPIOR0 = MASTER_IS_THERE;
        for (int first = 0; first < LEDS; first += AT_ONCE) {
            const int end = LEDS < first + AT_ONCE ? LEDS : first + AT_ONCE;
            paint(&twin.now, first, end, &light);
            __asm__ volatile("" ::: "memory");
            GPIOR2 = (uint8_t)(end - first);
            GPIOR0 = LIGHT_IS_THERE;
        }
#endif
    }
}
