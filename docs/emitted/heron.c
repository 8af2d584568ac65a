/* Heron. Electric cargo trike. Light for 158 LEDs. Made by Fendra from heron.toml. */
/* C99. It gives the same bytes as the preview, bit for bit, if float is IEEE 754 single
   precision and the compiler neither contracts nor reorders: -ffp-contract=off, and never
   -ffast-math. */
#include <math.h>
#include <stdbool.h>
#include <stdint.h>
#include <string.h>

#include "heron.h"

#ifdef __FAST_MATH__
#error "compile without -ffast-math"
#endif
#if defined(__clang__) || !defined(__GNUC__)
#pragma STDC FP_CONTRACT OFF
#endif

/* 8-bit parts have flash as a separate memory: tables stay there and are read number by
   number. On 8-bit parts, several functions need fewer instructions than one large one. */
#ifdef __AVR__
#include <avr/pgmspace.h>
#define IN_FLASH PROGMEM
#define READ_U8(x) pgm_read_byte(&(x))
#define READ_U32(x) pgm_read_dword(&(x))
#define READ_F32(x) pgm_read_float(&(x))
#define READ_INT(x) (int)pgm_read_word(&(x))
#define ON_ITS_OWN __attribute__((noinline))
#else
#define IN_FLASH
#define READ_U8(x) (x)
#define READ_U32(x) (x)
#define READ_F32(x) (x)
#define READ_INT(x) (x)
#define ON_ITS_OWN
#endif

/* Without a floating point unit it is faster to skip LEDs that a layer does not change. With
   one it is faster to paint them. */
#if defined(__AVR__) || defined(__SOFTFP__) || defined(__riscv_float_abi_soft)
#define SKIP_WHERE(is_bare) \
    if (is_bare) { \
        continue; \
    }
#else
#define SKIP_WHERE(is_bare) (void)(is_bare)
#endif

static const float hubs_place_0[32] IN_FLASH = {
    0.0f, 0.06666667f, 0.13333334f, 0.2f, 0.26666668f, 0.33333334f, 0.4f, 0.46666667f,
    0.53333336f, 0.6f, 0.6666667f, 0.73333335f, 0.8f, 0.8666667f, 0.93333334f, 1.0f, 0.0f,
    0.06666667f, 0.13333334f, 0.2f, 0.26666668f, 0.33333334f, 0.4f, 0.46666667f, 0.53333336f,
    0.6f, 0.6666667f, 0.73333335f, 0.8f, 0.8666667f, 0.93333334f, 1.0f
};

static const uint8_t deck_rank[72] IN_FLASH = {
    35, 34, 33, 32, 31, 30, 29, 28, 27, 26, 25, 24, 23, 22, 21, 20, 19, 18, 17, 16, 15, 14, 13,
    12, 11, 10, 9, 8, 7, 6, 5, 4, 3, 2, 1, 0, 0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14,
    15, 16, 17, 18, 19, 20, 21, 22, 23, 24, 25, 26, 27, 28, 29, 30, 31, 32, 33, 34, 35
};

static const float rpm_shown_red[72] IN_FLASH = {
    1.0f, 1.0f, 1.0f, 1.0f, 1.0f, 1.0f, 1.0f, 1.0f, 1.0f, 1.0f, 1.0f, 1.0f, 1.0f, 1.0f, 1.0f,
    1.0f, 1.0f, 1.0f, 0.9714286f, 0.9142857f, 0.85714287f, 0.8f, 0.74285716f, 0.6857143f,
    0.62857145f, 0.5714286f, 0.51428574f, 0.45714286f, 0.4f, 0.34285715f, 0.2857143f,
    0.22857143f, 0.17142858f, 0.114285715f, 0.057142857f, 0.0f, 0.0f, 0.057142857f,
    0.114285715f, 0.17142858f, 0.22857143f, 0.2857143f, 0.34285715f, 0.4f, 0.45714286f,
    0.51428574f, 0.5714286f, 0.62857145f, 0.6857143f, 0.74285716f, 0.8f, 0.85714287f,
    0.9142857f, 0.9714286f, 1.0f, 1.0f, 1.0f, 1.0f, 1.0f, 1.0f, 1.0f, 1.0f, 1.0f, 1.0f, 1.0f,
    1.0f, 1.0f, 1.0f, 1.0f, 1.0f, 1.0f, 1.0f
};

static const float rpm_shown_green[72] IN_FLASH = {
    0.014443815f, 0.045161963f, 0.07588011f, 0.10659826f, 0.1373164f, 0.16803455f, 0.1987527f,
    0.22947085f, 0.260189f, 0.29090714f, 0.3216253f, 0.35234344f, 0.3830616f, 0.41377974f,
    0.44449788f, 0.47521603f, 0.5059342f, 0.5366523f, 0.5513001f, 0.54987746f, 0.5484548f,
    0.5470322f, 0.54560953f, 0.5441869f, 0.54276425f, 0.5413416f, 0.53991896f, 0.53849626f,
    0.5370736f, 0.53565097f, 0.5342283f, 0.5328057f, 0.53138304f, 0.5299604f, 0.52853775f,
    0.5271151f, 0.5271151f, 0.52853775f, 0.5299604f, 0.53138304f, 0.5328057f, 0.5342283f,
    0.53565097f, 0.5370736f, 0.53849626f, 0.53991896f, 0.5413416f, 0.54276425f, 0.5441869f,
    0.54560953f, 0.5470322f, 0.5484548f, 0.54987746f, 0.5513001f, 0.5366523f, 0.5059342f,
    0.47521603f, 0.44449788f, 0.41377974f, 0.3830616f, 0.35234344f, 0.3216253f, 0.29090714f,
    0.260189f, 0.22947085f, 0.1987527f, 0.16803455f, 0.1373164f, 0.10659826f, 0.07588011f,
    0.045161963f, 0.014443815f
};

static const float rpm_shown_blue[72] IN_FLASH = {
    0.0f, 0.0f, 0.0f, 0.0f, 0.0f, 0.0f, 0.0f, 0.0f, 0.0f, 0.0f, 0.0f, 0.0f, 0.0f, 0.0f, 0.0f,
    0.0f, 0.0f, 0.0f, 0.0033420175f, 0.01002606f, 0.016710095f, 0.02339413f, 0.030078173f,
    0.036762208f, 0.043446243f, 0.050130285f, 0.05681432f, 0.06349836f, 0.0701824f, 0.07686643f,
    0.083550476f, 0.09023452f, 0.09691855f, 0.10360259f, 0.11028663f, 0.116970666f,
    0.116970666f, 0.11028663f, 0.10360259f, 0.09691855f, 0.09023452f, 0.083550476f, 0.07686643f,
    0.0701824f, 0.06349836f, 0.05681432f, 0.050130285f, 0.043446243f, 0.036762208f,
    0.030078173f, 0.02339413f, 0.016710095f, 0.01002606f, 0.0033420175f, 0.0f, 0.0f, 0.0f, 0.0f,
    0.0f, 0.0f, 0.0f, 0.0f, 0.0f, 0.0f, 0.0f, 0.0f, 0.0f, 0.0f, 0.0f, 0.0f, 0.0f, 0.0f
};

static const float parked_2_table[72] IN_FLASH = {
    1.1153846f, 1.034066f, 0.9527472f, 0.87142855f, 0.7901099f, 0.70879126f, 0.6274725f,
    0.54615384f, 0.46483517f, 0.3835165f, 0.30219778f, 0.22087911f, 0.13956043f, 0.05824176f,
    -0.023076924f, -0.104395606f, -0.18571427f, -0.26703298f, -0.34835163f, -0.42967033f,
    -0.510989f, -0.5923077f, -0.67362636f, -0.7549451f, -0.8362637f, -0.9175824f, -0.9989011f,
    -1.0802197f, -1.1615385f, -1.2428571f, -1.3241758f, -1.4054945f, -1.4868132f, -1.5681319f,
    -1.6494505f, -1.7307693f, -1.7307693f, -1.6494505f, -1.5681319f, -1.4868132f, -1.4054945f,
    -1.3241758f, -1.2428571f, -1.1615385f, -1.0802197f, -0.9989011f, -0.9175824f, -0.8362637f,
    -0.7549451f, -0.67362636f, -0.5923077f, -0.510989f, -0.42967033f, -0.34835163f,
    -0.26703298f, -0.18571427f, -0.104395606f, -0.023076924f, 0.05824176f, 0.13956043f,
    0.22087911f, 0.30219778f, 0.3835165f, 0.46483517f, 0.54615384f, 0.6274725f, 0.70879126f,
    0.7901099f, 0.87142855f, 0.9527472f, 1.034066f, 1.1153846f
};

static const float parked_2_table_2[72] IN_FLASH = {
    0.15625f, 0.15625f, 0.15625f, 0.15625f, 0.15625f, 0.15625f, 0.15625f, 0.15625f, 0.15625f,
    0.15625f, 0.15625f, 0.15625f, 0.15625f, 0.15625f, 0.15625f, 0.15625f, 0.15625f, 0.15625f,
    0.15625f, 0.15625f, 0.15625f, 0.15625f, 0.15625f, 0.15625f, 0.15625f, 0.15625f, 0.15625f,
    0.15625f, 0.15625f, 0.15625f, 0.15625f, 0.15625f, 0.15625f, 0.15625f, 0.15625f, 0.15625f,
    0.84375f, 0.84375f, 0.84375f, 0.84375f, 0.84375f, 0.84375f, 0.84375f, 0.84375f, 0.84375f,
    0.84375f, 0.84375f, 0.84375f, 0.84375f, 0.84375f, 0.84375f, 0.84375f, 0.84375f, 0.84375f,
    0.84375f, 0.84375f, 0.84375f, 0.84375f, 0.84375f, 0.84375f, 0.84375f, 0.84375f, 0.84375f,
    0.84375f, 0.84375f, 0.84375f, 0.84375f, 0.84375f, 0.84375f, 0.84375f, 0.84375f, 0.84375f
};

static const uint8_t parked_2_table_3[72] IN_FLASH = {
    3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3,
    3, 3, 3, 3, 3, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0,
    0, 0, 0, 0, 0, 0, 0, 0, 0, 0
};

static const float nose_bar_along[24] IN_FLASH = {
    0.0f, 0.04347826f, 0.08695652f, 0.13043478f, 0.17391305f, 0.2173913f, 0.26086956f,
    0.3043478f, 0.3478261f, 0.39130434f, 0.4347826f, 0.47826087f, 0.5217391f, 0.5652174f,
    0.6086956f, 0.65217394f, 0.6956522f, 0.73913044f, 0.7826087f, 0.82608694f, 0.8695652f,
    0.9130435f, 0.95652175f, 1.0f
};

/* LEDs in a row, from first to end - 1. place: the first one's place in its group. */
struct run {
    int first, end, place;
};

static inline struct run run_of(const struct run *runs, int r)
{
    const struct run run = {READ_INT(runs[r].first), READ_INT(runs[r].end),
        READ_INT(runs[r].place)};
    return run;
}

static const struct run hubs_runs[2] IN_FLASH = {
    {0, 16, 0},
    {40, 56, 16},
};

/* How many LEDs are painted at a time: each takes 12 bytes of stack. */
#ifndef AT_ONCE
#ifdef __AVR__
#define AT_ONCE 16
#else
#define AT_ONCE 64
#endif
#endif

/* Linear light, 0 to 1, of the LEDs being painted. */
struct light {
    float red[AT_ONCE];
    float green[AT_ONCE];
    float blue[AT_ONCE];
};

static inline float smaller(float a, float b)
{
    return a < b ? a : b;
}

static inline float larger(float a, float b)
{
    return a > b ? a : b;
}

static inline int earlier(int a, int b)
{
    return a < b ? a : b;
}

static inline int later(int a, int b)
{
    return a > b ? a : b;
}

static inline float clamp(float x, float low, float high)
{
    const float a = x > low ? x : low;
    return a < high ? a : high;
}

/* A value that arrived, limited to -1e9 to 1e9; NaN becomes 0. */
static ON_ITS_OWN float taken(float value)
{
    const float most = 1000000000.0f;
    if (value > most) {
        return most;
    }
    return value >= -most ? value : value < 0.0f ? -most : 0.0f;
}

/* Whether a value arrived and is a finite number. */
static ON_ITS_OWN bool is_news(bool is_new, float value)
{
    return is_new && fabsf(value) <= 3.4e38f;
}

static inline uint32_t high_word(uint32_t a, uint32_t b)
{
    return (uint32_t)(((uint64_t)a * b) >> 32);
}

/* a / b. avr-libc rounds twice below the smallest normal float. */
#ifdef __AVR__
static ON_ITS_OWN float quotient(float a, float b)
{
    union {
        float value;
        uint32_t bits;
    } x = {a}, y = {b}, found = {a / b};
    const int16_t exponent_a = (int16_t)((x.bits >> 23) & 255u);
    const int16_t exponent_b = (int16_t)((y.bits >> 23) & 255u);
    if ((found.bits << 1) >= (uint32_t)1u << 24 || a == 0.0f || exponent_b == 255) {
        return found.value;
    }
    /* Long division in units of 2**-149, the step between floats this small. */
    uint32_t rest = (x.bits & 0x7fffffu) | (exponent_a > 0 ? 0x800000u : 0u);
    uint32_t divisor = (y.bits & 0x7fffffu) | 0x800000u;
    int16_t shift = (int16_t)((exponent_a > 0 ? exponent_a : 1) - exponent_b + 149);
    found.bits = 0u;
    for (; shift < 0 && divisor < (uint32_t)1u << 28; shift++) {
        divisor <<= 1;
    }
    if (rest >= divisor) {
        rest -= divisor;
        found.bits = 1u;
    }
    for (; shift > 0; shift--) {
        rest <<= 1;
        found.bits <<= 1;
        if (rest >= divisor) {
            rest -= divisor;
            found.bits |= 1u;
        }
    }
    rest <<= 1;
    if (rest > divisor || (rest == divisor && (found.bits & 1u) != 0u)) {
        found.bits++;
    }
    found.bits |= (x.bits ^ y.bits) & 0x80000000u;
    return found.value;
}
#else
static inline float quotient(float a, float b)
{
    return a / b;
}
#endif

/* Light times 255 as a byte, rounded. Here all light is between 0 and 600.3. */
static inline uint8_t to_byte(float light)
{
    const int byte = (int)(light + 0.5f);
    return (uint8_t)(byte < 255 ? byte : 255);
}

/* The current of the light, in microamperes times 255, and how much rounding may add. */
struct draw {
    uint64_t sum, slack;
};

/* Adds the current of LEDs first to end - 1. ua: microamperes of a full channel. */
static void add_draw(struct draw *draw, uint8_t rgb[][3], int first, int end,
    const uint32_t ua[3])
{
    for (int c = 0; c < 3; c++) {
        uint32_t sum = 0u, lit = 0u;
        for (int i = first; i < end; i++) {
            sum += rgb[i][c];
            lit += rgb[i][c] > 0u;
        }
        draw->sum += (uint64_t)READ_U32(ua[c]) * sum;
        draw->slack += (uint64_t)READ_U32(ua[c]) * lit;
    }
}

/* The gain falls at once to the highest that the budget allows, waits, and rises again. */
static void follow(struct heron_limit *limit, const struct draw *draw, uint64_t most,
    uint32_t dt_ms)
{
    uint32_t highest = 65536u;
    if (draw->sum > most) {
        const uint64_t room = 2u * most > draw->slack ? 2u * most - draw->slack : 0u;
        highest = (uint32_t)(room * 65536u / (2u * draw->sum));
    }
    if (highest <= limit->gain) {
        limit->gain = highest;
        limit->rest_ms = 1000u;
    } else if (dt_ms < limit->rest_ms) {
        limit->rest_ms -= dt_ms;
    } else {
        const uint32_t freely_ms = dt_ms - limit->rest_ms;
        const uint32_t grown = freely_ms < 2048u ? 32u * freely_ms : 65536u;
        limit->gain = limit->gain + grown < highest ? limit->gain + grown : highest;
        limit->rest_ms = 0u;
    }
}

/* Scales all channels alike, to keep the hues. */
static void scale(uint8_t rgb[][3], int first, int end, uint32_t gain)
{
    for (int i = first; i < end; i++) {
        for (int c = 0; c < 3; c++) {
            rgb[i][c] = (uint8_t)((rgb[i][c] * gain + 32768u) >> 16);
        }
    }
}

/* Writes the colours of count LEDs in the order of the wire. */
static uint8_t *put_grb(uint8_t *to, const uint8_t *rgb, int count)
{
    for (; count > 0; count--) {
        const uint8_t red = rgb[0], green = rgb[1], blue = rgb[2];
        to[0] = green;
        to[1] = red;
        to[2] = blue;
        to += 3;
        rgb += 3;
    }
    return to;
}

/* Computes the numbers of a frame that are the same for all LEDs. */
static ON_ITS_OWN void advance(struct heron *state, const struct heron_signals *signals,
    uint32_t now_ms)
{
    struct heron_now *const now = &state->now;
    const bool first = !state->has_begun;
    const uint32_t dt_ms = first ? 0u : now_ms - state->last_ms;

    /* Time */
    const float dt_s = (float)dt_ms * 0.001f;

    /* Signal speed (heron.toml:150) */
    const uint32_t passed_ms = dt_ms < 2147483647u ? dt_ms : 2147483647u;
    const uint32_t age = state->speed_since + passed_ms;
    const uint32_t speed_since = is_news(signals->speed.is_new, signals->speed.value) ? 0u
        : (age < 2147483647u ? age : 2147483647u);
    const bool speed_heard = speed_since < 500u;
    const bool speed_lost = !speed_heard;
    const float speed_raw = speed_heard ? clamp(taken(signals->speed.value), 0.0f, 45.0f)
        : 0.0f;
    const float v = dt_s / 0.1f;
    const float v_2 = quotient(1.0f, 1.0f + v * (1.0f + v * (0.5f + v * 0.16666667f)));
    const float share = 1.0f - v_2;
    const float speed = first ? speed_raw : state->speed_lag + (speed_raw - state->speed_lag)
        * share;

    /* Signal rpm (heron.toml:156) */
    const uint32_t age_2 = state->rpm_since + passed_ms;
    const uint32_t rpm_since = is_news(signals->rpm.is_new, signals->rpm.value) ? 0u
        : (age_2 < 2147483647u ? age_2 : 2147483647u);
    const bool rpm_heard = rpm_since < 500u;
    const float rpm_raw = rpm_heard ? clamp(taken(signals->rpm.value), 0.0f, 6000.0f) : 0.0f;
    const float v_3 = dt_s / 0.08f;
    const float v_4 = quotient(1.0f, 1.0f + v_3 * (1.0f + v_3 * (0.5f + v_3 * 0.16666667f)));
    const float share_2 = 1.0f - v_4;
    const float rpm = first ? rpm_raw : state->rpm_lag + (rpm_raw - state->rpm_lag) * share_2;

    /* Signal throttle (heron.toml:163) */
    const uint32_t age_3 = state->throttle_since + passed_ms;
    const uint32_t throttle_since = is_news(signals->throttle.is_new, signals->throttle.value)
        ? 0u : (age_3 < 2147483647u ? age_3 : 2147483647u);
    const bool throttle_heard = throttle_since < 500u;
    const float throttle = throttle_heard ? clamp(taken(signals->throttle.value), 0.0f, 1.0f)
        : 0.0f;

    /* Signal brake (heron.toml:167) */
    const uint32_t age_4 = state->brake_since + passed_ms;
    const uint32_t brake_since = is_news(signals->brake.is_new, signals->brake.value) ? 0u
        : (age_4 < 2147483647u ? age_4 : 2147483647u);
    const bool brake_heard = brake_since < 500u;
    const float brake_raw = brake_heard ? clamp(taken(signals->brake.value), 0.0f, 1.0f) : 0.0f;
    const float v_5 = dt_s / 0.05f;
    const float v_6 = quotient(1.0f, 1.0f + v_5 * (1.0f + v_5 * (0.5f + v_5 * 0.16666667f)));
    const float share_3 = 1.0f - v_6;
    const float brake = first ? brake_raw : state->brake_lag + (brake_raw - state->brake_lag)
        * share_3;

    /* Signal left (heron.toml:172) */
    const uint32_t age_5 = state->left_since + passed_ms;
    const uint32_t left_since = is_news(signals->left.is_new, signals->left.value) ? 0u
        : (age_5 < 2147483647u ? age_5 : 2147483647u);
    const bool left_heard = left_since < 500u;
    now->left = left_heard && 0.5f < taken(signals->left.value);

    /* Signal right (heron.toml:177) */
    const uint32_t age_6 = state->right_since + passed_ms;
    const uint32_t right_since = is_news(signals->right.is_new, signals->right.value) ? 0u
        : (age_6 < 2147483647u ? age_6 : 2147483647u);
    const bool right_heard = right_since < 500u;
    now->right = right_heard && 0.5f < taken(signals->right.value);

    /* Signal battery (heron.toml:182) */
    const bool battery_ever = is_news(signals->battery.is_new, signals->battery.value)
        || state->battery_ever;
    const float battery_raw = battery_ever ? clamp(taken(signals->battery.value), 36.0f, 55.0f)
        : 48.0f;
    const float v_7 = dt_s / 2.5f;
    const float v_8 = quotient(1.0f, 1.0f + v_7 * (1.0f + v_7 * (0.5f + v_7 * 0.16666667f)));
    const float share_4 = 1.0f - v_8;
    const float v_9 = state->battery_lag + (battery_raw - state->battery_lag) * share_4;
    const float battery = first ? battery_raw : v_9;

    /* Signal lean (heron.toml:188) */
    const uint32_t age_7 = state->lean_since + passed_ms;
    const uint32_t lean_since = is_news(signals->lean.is_new, signals->lean.value) ? 0u
        : (age_7 < 2147483647u ? age_7 : 2147483647u);
    const bool lean_heard = lean_since < 500u;
    const float lean_raw = lean_heard ? clamp(taken(signals->lean.value), -30.0f, 30.0f) : 0.0f;
    const float v_10 = dt_s / 0.15f;
    const float v_11 =
        quotient(1.0f, 1.0f + v_10 * (1.0f + v_10 * (0.5f + v_10 * 0.16666667f)));
    const float share_5 = 1.0f - v_11;
    const float lean = first ? lean_raw : state->lean_lag + (lean_raw - state->lean_lag)
        * share_5;

    /* Signal lights (heron.toml:195) */
    const uint32_t age_8 = state->lights_since + passed_ms;
    const uint32_t lights_since = is_news(signals->lights.is_new, signals->lights.value) ? 0u
        : (age_8 < 2147483647u ? age_8 : 2147483647u);
    const bool lights_heard = lights_since < 500u;
    const bool lights_lost = !lights_heard;
    const bool lights = lights_lost || (lights_heard && 0.5f < taken(signals->lights.value));

    /* Signal parked (heron.toml:200) */
    const bool parked = speed < 0.8f && throttle < 0.05f && brake < 0.05f && speed_heard;

    /* Signal battery_low (heron.toml:204) */
    const bool v_12 = battery < 43.9f;
    const uint32_t age_9 = state->battery_low_since + passed_ms;
    const uint32_t battery_low_since = v_12 ? 0u : (age_9 < 2147483647u ? age_9 : 2147483647u);
    now->battery_low = v_12 || battery_low_since < 2000u;

    /* Scene "parked" (heron.toml:216) */
    const bool v_13 = speed_lost || parked;
    const float v_14 = parked ? state->v_there_2
        : (speed_heard ? state->v_there_4 : state->v_there);
    const float v_15 = v_13 ? v_14 : state->v_there_3;
    const float v_16 =
        larger(v_15 + quotient(dt_s, v_13 ? (parked ? 1.2f : 0.3f) : 0.5f), 0.0f);
    const float v_17 = first ? 1.0f : smaller(v_16, 1.0f);
    const float v_18 = 1.0f - v_15;
    const bool v_19 = v_18 == 0.0f;
    const float v_20 = v_17 < 1.0f ? (v_19 ? 0.0f : quotient(1.0f - v_17, v_19 ? 1.0f : v_18))
        : 0.0f;

    /* Scene "no news" (heron.toml:211) */
    now->no_news_there = speed_heard ? state->v_there * v_20 : v_17;
    now->parked_there = parked ? v_17 : state->v_there_2 * v_20;

    /* Scene "riding" (heron.toml:221) */
    now->riding_there = v_13 ? state->v_there_3 * v_20 : v_17;

    /* Layer 1, "running light, front" (heron.toml:237) */
    const float v_21 = dt_s / 0.6f;
    const float running_light_front_grown =
        clamp(state->running_light_front_presence + v_21, 0.0f, 1.0f);
    const float running_light_front_shrunk =
        clamp(state->running_light_front_presence - v_21, 0.0f, 1.0f);
    now->running_light_front_presence = lights ? running_light_front_grown
        : running_light_front_shrunk;
    now->running_light_front_on = lights || 0.0f < now->running_light_front_presence;
    if (now->running_light_front_on) {
        now->running_light_front_strength = now->running_light_front_presence * 0.14541714f;
        now->running_light_front_paint_green = 0.8713671f * now->running_light_front_strength;
        now->running_light_front_paint_blue = 0.6866853f * now->running_light_front_strength;
    }

    /* Layer 2, "running light, rear" (heron.toml:247) */
    const float running_light_rear_grown =
        clamp(state->running_light_rear_presence + v_21, 0.0f, 1.0f);
    const float running_light_rear_shrunk =
        clamp(state->running_light_rear_presence - v_21, 0.0f, 1.0f);
    now->running_light_rear_presence = lights ? running_light_rear_grown
        : running_light_rear_shrunk;
    now->running_light_rear_on = lights || 0.0f < now->running_light_rear_presence;
    if (now->running_light_rear_on) {
        now->running_light_rear_strength = now->running_light_rear_presence * 0.08498389f;
    }

    /* Layer 3, "hubs roll with the road" (heron.toml:257) */
    now->rpm_on = 0.0f < now->riding_there;
    const bool v_22 = 0.8f < speed && now->rpm_on;
    const float hubs_roll_with_the_road_rate = clamp(quotient(speed, 24.0f), 0.0f, 50.0f);
    const float v_23 = hubs_roll_with_the_road_rate * 2.0f * 4294967.5f;
    const uint32_t v_24 = (uint32_t)v_23;
    const uint32_t hubs_roll_with_the_road_step = v_24
        + (0.5f <= v_23 - (float)v_24 ? (uint32_t)1u : 0u);
    const uint32_t hubs_roll_with_the_road_phase = state->hubs_roll_with_the_road_phase
        + hubs_roll_with_the_road_step * dt_ms;
    const float v_25 = larger(state->hubs_roll_with_the_road_presence + dt_s / 0.4f, 0.0f);
    const float hubs_roll_with_the_road_grown = smaller(v_25, 1.0f);
    const float v_26 = larger(state->hubs_roll_with_the_road_presence - dt_s / 0.8f, 0.0f);
    const float hubs_roll_with_the_road_shrunk = smaller(v_26, 1.0f);
    now->hubs_roll_with_the_road_presence = v_22 ? hubs_roll_with_the_road_grown
        : hubs_roll_with_the_road_shrunk;
    now->hubs_roll_with_the_road_on = (v_22 || 0.0f < now->hubs_roll_with_the_road_presence)
        && now->rpm_on;
    if (now->hubs_roll_with_the_road_on) {
        const float v_27 = clamp(quotient(speed - 3.0f, 27.0f), 0.0f, 1.0f);
        now->hubs_roll_with_the_road_colour_green = 0.051269457f + v_27 * 0.6941347f;
        now->hubs_roll_with_the_road_colour_blue = 1.0f + v_27 * -0.5658463f;
        const float v_28 = (float)(hubs_roll_with_the_road_phase >> 8u) * 5.9604645e-08f;
        now->hubs_roll_with_the_road_v = 1.0f - v_28;
    }

    /* Layer 4, "cornering light, left" (heron.toml:273) */
    const uint32_t cornering_light_left_age = state->cornering_light_left_since + passed_ms;
    const uint32_t v_27 = cornering_light_left_age < 2147483647u ? cornering_light_left_age
        : 2147483647u;
    const uint32_t cornering_light_left_since = now->left ? 0u : v_27;
    const bool v_28 = lights && lean < -1.5f
        && !(now->left || cornering_light_left_since < 450u);
    const float v_29 = dt_s / 0.3f;
    const float cornering_light_left_shrunk =
        clamp(state->cornering_light_left_presence - v_29, 0.0f, 1.0f);
    now->cornering_light_left_presence = v_28 ? 1.0f : cornering_light_left_shrunk;
    now->cornering_light_left_on = v_28 || 0.0f < now->cornering_light_left_presence;
    if (now->cornering_light_left_on) {
        const float level = clamp(quotient(-lean - 1.5f, 3.5f), 0.0f, 1.0f);
        const float v_30 = quotient(level * 100.0f + 16.0f, 116.0f);
        now->cornering_light_left_strength = now->cornering_light_left_presence
            * (0.08f < level ? v_30 * v_30 * v_30 : level * 0.110705644f);
        now->cornering_light_left_paint_green = 0.8713671f * now->cornering_light_left_strength;
        now->cornering_light_left_paint_blue = 0.6866853f * now->cornering_light_left_strength;
    }

    /* Layer 5, "cornering light, right" (heron.toml:283) */
    const uint32_t cornering_light_right_age = state->cornering_light_right_since + passed_ms;
    const uint32_t v_30 = cornering_light_right_age < 2147483647u ? cornering_light_right_age
        : 2147483647u;
    const uint32_t cornering_light_right_since = now->right ? 0u : v_30;
    const bool v_31 = lights && 1.5f < lean
        && !(now->right || cornering_light_right_since < 450u);
    const float cornering_light_right_shrunk =
        clamp(state->cornering_light_right_presence - v_29, 0.0f, 1.0f);
    now->cornering_light_right_presence = v_31 ? 1.0f : cornering_light_right_shrunk;
    now->cornering_light_right_on = v_31 || 0.0f < now->cornering_light_right_presence;
    if (now->cornering_light_right_on) {
        const float level = clamp(quotient(lean - 1.5f, 3.5f), 0.0f, 1.0f);
        const float v_32 = quotient(level * 100.0f + 16.0f, 116.0f);
        now->cornering_light_right_strength = now->cornering_light_right_presence
            * (0.08f < level ? v_32 * v_32 * v_32 : level * 0.110705644f);
        now->cornering_light_right_paint_green = 0.8713671f
            * now->cornering_light_right_strength;
        now->cornering_light_right_paint_blue = 0.6866853f
            * now->cornering_light_right_strength;
    }

    /* Layer 6, "rpm" (heron.toml:293) */
    const float rpm_value = clamp(rpm, -1000000.0f, 1000000.0f);
    const float v_32 = clamp(quotient(rpm_value, 5200.0f), 0.0f, 1.0f);
    const bool v_33 = state->rpm_peak <= v_32;
    const uint32_t rpm_age = state->rpm_since_2 + passed_ms;
    const uint32_t rpm_since_2 = v_33 ? 0u : (rpm_age < 2147483647u ? rpm_age : 2147483647u);
    const float v_34 = rpm_since_2 < 501u ? state->rpm_peak
        : larger(state->rpm_peak - dt_s * 0.25f, v_32);
    const float rpm_peak = v_33 || first ? v_32 : v_34;
    if (now->rpm_on) {
        now->rpm_reach = v_32 * 36.0f;
        now->rpm_is_dark = 4700.0f <= rpm_value && 0.5f <= (float)((now_ms * 17179870u) >> 8u)
            * 5.9604645e-08f;
        now->rpm_top = rpm_peak * 36.0f;
        now->rpm_v = now->rpm_top - 1.0f;
        now->rpm_v_2 = 0.0f < now->rpm_top;
    }

    /* Layer 7, "brake light" (heron.toml:307) */
    const bool v_35 = 0.04f < brake;
    const float brake_light_shrunk = clamp(state->brake_light_presence - v_10, 0.0f, 1.0f);
    now->brake_light_presence = v_35 ? 1.0f : brake_light_shrunk;
    now->brake_light_on = v_35 || 0.0f < now->brake_light_presence;
    if (now->brake_light_on) {
        const float level = clamp(0.35f + 0.65f * brake, 0.0f, 1.0f);
        const float v_36 = quotient(level * 100.0f + 16.0f, 116.0f);
        now->brake_light_strength = now->brake_light_presence
            * (0.08f < level ? v_36 * v_36 * v_36 : level * 0.110705644f);
        now->brake_light_rest = 1.0f - now->brake_light_presence;
    }

    /* Layer 8, "turn left, front" (heron.toml:316) */
    const uint32_t turn_left_front_ticks = now->left && !state->turn_left_front_was ? 0u
        : state->turn_left_front_ticks + dt_ms;

    /* Layer 9, "turn right, front" (heron.toml:323) */
    const uint32_t turn_right_front_ticks = now->right && !state->turn_right_front_was ? 0u
        : state->turn_right_front_ticks + dt_ms;

    /* Layer 10, "turn left, rear" (heron.toml:330) */
    const uint32_t turn_left_rear_ticks = now->left && !state->turn_left_rear_was ? 0u
        : state->turn_left_rear_ticks + dt_ms;

    /* Layer 11, "turn right, rear" (heron.toml:337) */
    const uint32_t turn_right_rear_ticks = now->right && !state->turn_right_rear_was ? 0u
        : state->turn_right_rear_ticks + dt_ms;

    /* Layer 12, "parked" (heron.toml:344) */
    now->parked_2_on = 0.0f < now->parked_there;
    if (now->parked_2_on) {
        now->parked_2_v = high_word(now_ms, 660765u);
        now->parked_2_v_2 = (float)((now_ms * 660765u) >> 8u) * 5.9604645e-08f;
        const uint32_t v_36 = high_word(now_ms, 644246u);
        const float v_37 = (float)((now_ms * 644246u) >> 8u) * 5.9604645e-08f;
        now->parked_2_v_3 = v_37 * v_37 * (3.0f - 2.0f * v_37);
        const uint32_t v_38 = (2654356959u ^ (v_36 + 0u)) * 2654435761u;
        now->parked_2_v_4 = v_38 ^ (v_38 >> 15u);
        const uint32_t v_39 = (2654356959u ^ (v_36 + 1u)) * 2654435761u;
        now->parked_2_v_5 = v_39 ^ (v_39 >> 15u);
    }

    /* Layer 13, "parked, looking round" (heron.toml:358) */
    now->parked_looking_round_on = !lights && now->parked_2_on;
    if (now->parked_looking_round_on) {
        const float v_36 = 2.0f * ((float)((now_ms * 1073742u) >> 8u) * 5.9604645e-08f) - 1.0f;
        now->parked_looking_round_middle = 1.0f - fabsf(v_36);
    }

    /* Layer 14, "no news from the bus" (heron.toml:369) */
    now->no_news_from_the_bus_on = 0.0f < now->no_news_there;
    if (now->no_news_from_the_bus_on) {
        const float v_36 = 2.0f * ((float)((now_ms * 3435974u) >> 8u) * 5.9604645e-08f) - 1.0f;
        now->no_news_from_the_bus_middle = 1.0f - fabsf(v_36);
    }
    if (now->left) {
        const float phase = (float)((turn_left_front_ticks * 2147484u) >> 8u) * 5.9604645e-08f;
        const float v_36 = floorf(phase / 0.5f / 0.016666668f + 0.001f) + 1.0f;
        now->turn_left_front_lit = v_36 < 12.0f ? v_36 : 12.0f;
    }
    if (now->right) {
        const float phase = (float)((turn_right_front_ticks * 2147484u) >> 8u) * 5.9604645e-08f;
        const float v_36 = floorf(phase / 0.5f / 0.016666668f + 0.001f) + 1.0f;
        now->turn_right_front_lit = v_36 < 12.0f ? v_36 : 12.0f;
    }
    if (now->left) {
        const float phase = (float)((turn_left_rear_ticks * 2147484u) >> 8u) * 5.9604645e-08f;
        const float v_36 = floorf(phase / 0.5f / 0.013333334f + 0.001f) + 1.0f;
        now->turn_left_rear_lit = v_36 < 15.0f ? v_36 : 15.0f;
    }
    if (now->right) {
        const float phase = (float)((turn_right_rear_ticks * 2147484u) >> 8u) * 5.9604645e-08f;
        const float v_36 = floorf(phase / 0.5f / 0.013333334f + 0.001f) + 1.0f;
        now->turn_right_rear_lit = v_36 < 15.0f ? v_36 : 15.0f;
    }

    /* Layer 15, "battery warning" (heron.toml:378) */
    const uint32_t battery_warning_ticks = now->battery_low && !state->battery_warning_was ? 0u
        : state->battery_warning_ticks + dt_ms;
    if (now->battery_low) {
        const float cycle = (float)((battery_warning_ticks * 6442451u) >> 8u) * 5.9604645e-08f;
        const bool v_36 = cycle < 0.4f;
        now->battery_warning_cover = v_36 ? 1.0f : 0.0f;
        now->battery_warning_rest = v_36 ? 0.0f : 1.0f;
        now->battery_warning_paint_blue = v_36 ? 0.116970666f : 0.0f;
    }

    now->master = 0.7630335f;

    /* Kept for the next frame */
    state->speed_since = speed_since;
    state->speed_lag = speed;
    state->rpm_since = rpm_since;
    state->rpm_lag = rpm;
    state->throttle_since = throttle_since;
    state->brake_since = brake_since;
    state->brake_lag = brake;
    state->left_since = left_since;
    state->right_since = right_since;
    state->battery_ever = battery_ever;
    state->battery_lag = battery;
    state->lean_since = lean_since;
    state->lean_lag = lean;
    state->lights_since = lights_since;
    state->battery_low_since = battery_low_since;
    state->v_there = now->no_news_there;
    state->v_there_2 = now->parked_there;
    state->v_there_3 = now->riding_there;
    state->v_there_4 = 0.0f;
    state->running_light_front_presence = now->running_light_front_presence;
    state->running_light_rear_presence = now->running_light_rear_presence;
    state->hubs_roll_with_the_road_phase = hubs_roll_with_the_road_phase;
    state->hubs_roll_with_the_road_presence = now->hubs_roll_with_the_road_presence;
    state->cornering_light_left_since = cornering_light_left_since;
    state->cornering_light_left_presence = now->cornering_light_left_presence;
    state->cornering_light_right_since = cornering_light_right_since;
    state->cornering_light_right_presence = now->cornering_light_right_presence;
    state->rpm_peak = rpm_peak;
    state->rpm_since_2 = rpm_since_2;
    state->brake_light_presence = now->brake_light_presence;
    state->turn_left_front_was = now->left;
    state->turn_left_front_ticks = turn_left_front_ticks;
    state->turn_right_front_was = now->right;
    state->turn_right_front_ticks = turn_right_front_ticks;
    state->turn_left_rear_was = now->left;
    state->turn_left_rear_ticks = turn_left_rear_ticks;
    state->turn_right_rear_was = now->right;
    state->turn_right_rear_ticks = turn_right_rear_ticks;
    state->battery_warning_was = now->battery_low;
    state->battery_warning_ticks = battery_warning_ticks;
    state->last_ms = now_ms;
    state->has_begun = true;
}

/* Layer 1, "running light, front" (heron.toml:237): solid on nose-bar, 24 LEDs. */
static ON_ITS_OWN void paint_running_light_front(const struct heron_now *now, int first,
    int end, struct light *light)
{
    const float presence = now->running_light_front_presence;
    const float strength = now->running_light_front_strength;
    const float paint_green = now->running_light_front_paint_green;
    const float paint_blue = now->running_light_front_paint_blue;
    if (presence == 0.0f) {
        return;
    }
    const int from = later(first, 16), to = earlier(end, 40);
    for (int i = from; i < to; i++) {
        const int at = i - first;
        light->red[at] = strength;
        light->green[at] = paint_green;
        light->blue[at] = paint_blue;
    }
}

/* Layer 2, "running light, rear" (heron.toml:247): solid on tail-bar, 30 LEDs. */
static ON_ITS_OWN void paint_running_light_rear(const struct heron_now *now, int first,
    int end, struct light *light)
{
    const float presence = now->running_light_rear_presence;
    const float strength = now->running_light_rear_strength;
    if (presence == 0.0f) {
        return;
    }
    const int from = later(first, 128), to = earlier(end, 158);
    for (int i = from; i < to; i++) {
        const int at = i - first;
        light->red[at] = strength;
    }
}

/* Layer 3, "hubs roll with the road" (heron.toml:257): spin on hubs, 32 LEDs. */
static ON_ITS_OWN void paint_hubs_roll_with_the_road(const struct heron_now *now, int first,
    int end, struct light *light)
{
    const float colour_green = now->hubs_roll_with_the_road_colour_green;
    const float colour_blue = now->hubs_roll_with_the_road_colour_blue;
    const float v = now->hubs_roll_with_the_road_v;
    const float presence = now->hubs_roll_with_the_road_presence;
    for (int r = 0; r < 2; r++) {
        const struct run run = run_of(hubs_runs, r);
        const int from = later(first, run.first);
        const int to = earlier(end, run.end);
        for (int i = from; i < to; i++) {
            const int k = i - run.first + run.place;
            const int at = i - first;
            const float v_2 = READ_F32(hubs_place_0[k]) * 2.0f + v + 0.0001f;
            const float place = v_2 - floorf(v_2);
            const float v_3 = 0.75f - place;
            const float v_4 = larger(quotient(0.75f - (v_3 - floorf(v_3)), 0.67499995f), 0.0f);
            const float cover = smaller(v_4, 1.0f);
            const float share = cover * presence;
            SKIP_WHERE(share == 0.0f);
            const float strength = share * 0.40749416f;
            const float paint_green = colour_green * strength;
            const float paint_blue = colour_blue * strength;
            light->green[at] = paint_green;
            light->blue[at] = paint_blue;
        }
    }
}

/* Layer 4, "cornering light, left" (heron.toml:273): solid on nose-left, 12 LEDs. */
static ON_ITS_OWN void paint_cornering_light_left(const struct heron_now *now, int first,
    int end, struct light *light)
{
    const float presence = now->cornering_light_left_presence;
    const float strength = now->cornering_light_left_strength;
    const float paint_green = now->cornering_light_left_paint_green;
    const float paint_blue = now->cornering_light_left_paint_blue;
    if (presence == 0.0f) {
        return;
    }
    const int from = later(first, 16), to = earlier(end, 28);
    for (int i = from; i < to; i++) {
        const int at = i - first;
        light->red[at] = larger(strength, light->red[at]);
        light->green[at] = larger(paint_green, light->green[at]);
        light->blue[at] = larger(paint_blue, light->blue[at]);
    }
}

/* Layer 5, "cornering light, right" (heron.toml:283): solid on nose-right, 12 LEDs. */
static ON_ITS_OWN void paint_cornering_light_right(const struct heron_now *now, int first,
    int end, struct light *light)
{
    const float presence = now->cornering_light_right_presence;
    const float strength = now->cornering_light_right_strength;
    const float paint_green = now->cornering_light_right_paint_green;
    const float paint_blue = now->cornering_light_right_paint_blue;
    if (presence == 0.0f) {
        return;
    }
    const int from = later(first, 28), to = earlier(end, 40);
    for (int i = from; i < to; i++) {
        const int at = i - first;
        light->red[at] = larger(strength, light->red[at]);
        light->green[at] = larger(paint_green, light->green[at]);
        light->blue[at] = larger(paint_blue, light->blue[at]);
    }
}

/* Layer 6, "rpm" (heron.toml:293): gauge on deck, 72 LEDs. */
static ON_ITS_OWN void paint_rpm(const struct heron_now *now, int first,
    int end, struct light *light)
{
    const float reach = now->rpm_reach;
    const bool is_dark = now->rpm_is_dark;
    const float top = now->rpm_top;
    const float v = now->rpm_v;
    const bool v_2 = now->rpm_v_2;
    const int from = later(first, 56), to = earlier(end, 128);
    for (int i = from; i < to; i++) {
        const int k = i - 56;
        const int at = i - first;
        const float rank = (float)READ_U8(deck_rank[k]);
        const float lit = reach - rank;
        const bool v_3 = rank < top && v <= rank && v_2;
        const float cover = v_3 ? 1.0f : (is_dark ? 0.0f : clamp(lit, 0.0f, 1.0f));
        SKIP_WHERE(cover == 0.0f);
        const float strength = cover * 0.48278108f;
        const float paint_red = (v_3 ? 1.0f : READ_F32(rpm_shown_red[k])) * strength;
        const float paint_green = (v_3 ? 1.0f : READ_F32(rpm_shown_green[k])) * strength;
        const float paint_blue = (v_3 ? 1.0f : READ_F32(rpm_shown_blue[k])) * strength;
        light->red[at] = paint_red;
        light->green[at] = paint_green;
        light->blue[at] = paint_blue;
    }
}

/* Layer 7, "brake light" (heron.toml:307): solid on tail-bar, 30 LEDs. */
static ON_ITS_OWN void paint_brake_light(const struct heron_now *now, int first,
    int end, struct light *light)
{
    const float presence = now->brake_light_presence;
    const float strength = now->brake_light_strength;
    const float rest = now->brake_light_rest;
    if (presence == 0.0f) {
        return;
    }
    const int from = later(first, 128), to = earlier(end, 158);
    for (int i = from; i < to; i++) {
        const int at = i - first;
        light->red[at] = light->red[at] * rest + strength;
    }
}

/* Layer 12, "parked" (heron.toml:344): cloud on deck, 72 LEDs. */
static ON_ITS_OWN void paint_parked_2(const struct heron_now *now, int first,
    int end, struct light *light)
{
    const uint32_t v = now->parked_2_v;
    const float v_2 = now->parked_2_v_2;
    const float v_3 = now->parked_2_v_3;
    const uint32_t v_4 = now->parked_2_v_4;
    const uint32_t v_5 = now->parked_2_v_5;
    const int from = later(first, 56), to = earlier(end, 128);
    for (int i = from; i < to; i++) {
        const int k = i - 56;
        const int at = i - first;
        const uint32_t v_6 = (uint32_t)1048574u + READ_U8(parked_2_table_3[k]);
        const uint32_t v_7 = (uint32_t)1048575u + READ_U8(parked_2_table_3[k]);
        const float v_8 = READ_F32(parked_2_table[k]) - v_2;
        const float v_9 = floorf(v_8);
        const uint32_t v_10 = (uint32_t)(v_9 + 1048576.0f) - v;
        const float v_11 = v_8 - v_9;
        const float v_12 = v_11 * v_11 * (3.0f - 2.0f * v_11);
        const uint32_t v_13 = v_10 + 0u;
        const uint32_t v_14 = (v_4 ^ v_6) * 2654435761u;
        const uint32_t v_15 = v_14 ^ (v_14 >> 15u);
        const uint32_t v_16 = (v_15 ^ v_13) * 2654435761u;
        const uint32_t v_17 = (v_16 ^ (v_16 >> 15u)) * 1779033703u;
        const uint32_t v_18 = (v_17 ^ (v_17 >> 13u)) * 3144134277u;
        const float v_19 = (float)((v_18 ^ (v_18 >> 16u)) >> 8u) * 5.9604645e-08f;
        const uint32_t v_20 = v_10 + 1u;
        const uint32_t v_21 = (v_15 ^ v_20) * 2654435761u;
        const uint32_t v_22 = (v_21 ^ (v_21 >> 15u)) * 1779033703u;
        const uint32_t v_23 = (v_22 ^ (v_22 >> 13u)) * 3144134277u;
        const float v_24 = (float)((v_23 ^ (v_23 >> 16u)) >> 8u) * 5.9604645e-08f - v_19;
        const float v_25 = v_19 + v_12 * v_24;
        const uint32_t v_26 = (v_4 ^ v_7) * 2654435761u;
        const uint32_t v_27 = v_26 ^ (v_26 >> 15u);
        const uint32_t v_28 = (v_27 ^ v_13) * 2654435761u;
        const uint32_t v_29 = (v_28 ^ (v_28 >> 15u)) * 1779033703u;
        const uint32_t v_30 = (v_29 ^ (v_29 >> 13u)) * 3144134277u;
        const float v_31 = (float)((v_30 ^ (v_30 >> 16u)) >> 8u) * 5.9604645e-08f;
        const uint32_t v_32 = (v_27 ^ v_20) * 2654435761u;
        const uint32_t v_33 = (v_32 ^ (v_32 >> 15u)) * 1779033703u;
        const uint32_t v_34 = (v_33 ^ (v_33 >> 13u)) * 3144134277u;
        const float v_35 = (float)((v_34 ^ (v_34 >> 16u)) >> 8u) * 5.9604645e-08f - v_31;
        const float v_36 = v_25 + READ_F32(parked_2_table_2[k]) * (v_31 + v_12 * v_35 - v_25);
        const uint32_t v_37 = (v_5 ^ v_6) * 2654435761u;
        const uint32_t v_38 = v_37 ^ (v_37 >> 15u);
        const uint32_t v_39 = (v_38 ^ v_13) * 2654435761u;
        const uint32_t v_40 = (v_39 ^ (v_39 >> 15u)) * 1779033703u;
        const uint32_t v_41 = (v_40 ^ (v_40 >> 13u)) * 3144134277u;
        const float v_42 = (float)((v_41 ^ (v_41 >> 16u)) >> 8u) * 5.9604645e-08f;
        const uint32_t v_43 = (v_38 ^ v_20) * 2654435761u;
        const uint32_t v_44 = (v_43 ^ (v_43 >> 15u)) * 1779033703u;
        const uint32_t v_45 = (v_44 ^ (v_44 >> 13u)) * 3144134277u;
        const float v_46 = (float)((v_45 ^ (v_45 >> 16u)) >> 8u) * 5.9604645e-08f - v_42;
        const float v_47 = v_42 + v_12 * v_46;
        const uint32_t v_48 = (v_5 ^ v_7) * 2654435761u;
        const uint32_t v_49 = v_48 ^ (v_48 >> 15u);
        const uint32_t v_50 = (v_49 ^ v_13) * 2654435761u;
        const uint32_t v_51 = (v_50 ^ (v_50 >> 15u)) * 1779033703u;
        const uint32_t v_52 = (v_51 ^ (v_51 >> 13u)) * 3144134277u;
        const float v_53 = (float)((v_52 ^ (v_52 >> 16u)) >> 8u) * 5.9604645e-08f;
        const uint32_t v_54 = (v_49 ^ v_20) * 2654435761u;
        const uint32_t v_55 = (v_54 ^ (v_54 >> 15u)) * 1779033703u;
        const uint32_t v_56 = (v_55 ^ (v_55 >> 13u)) * 3144134277u;
        const float v_57 = (float)((v_56 ^ (v_56 >> 16u)) >> 8u) * 5.9604645e-08f - v_53;
        const float v_58 = v_47 + READ_F32(parked_2_table_2[k]) * (v_53 + v_12 * v_57 - v_47);
        const float thickness = v_36 + v_3 * (v_58 - v_36);
        const float shown = clamp((thickness - 0.5f) * 2.0f + 0.5f, 0.0f, 1.0f);
        const float paint_red = shown * 0.014443844f * 0.28123334f;
        const float paint_green = (0.001214108f + shown * 0.11575656f) * 0.28123334f;
        const float paint_blue = (0.014443844f + shown * 0.9855562f) * 0.28123334f;
        light->red[at] = paint_red;
        light->green[at] = paint_green;
        light->blue[at] = paint_blue;
    }
}

/* Layer 13, "parked, looking round" (heron.toml:358): sweep on nose-bar, 24 LEDs. */
static ON_ITS_OWN void paint_parked_looking_round(const struct heron_now *now, int first,
    int end, struct light *light)
{
    const float middle = now->parked_looking_round_middle;
    const int from = later(first, 16), to = earlier(end, 40);
    for (int i = from; i < to; i++) {
        const int k = i - 16;
        const int at = i - first;
        const float distance = fabsf(READ_F32(nose_bar_along[k]) - middle) * 5.714286f;
        const float v = larger(1.0f - distance, 0.0f);
        const float cover = v * v * (3.0f - 2.0f * v);
        SKIP_WHERE(cover == 0.0f);
        const float strength = cover * 0.40749416f;
        const float rest = 1.0f - cover;
        const float paint_red = 0.051269457f * strength;
        const float paint_green = 0.3515326f * strength;
        light->red[at] = light->red[at] * rest + paint_red;
        light->green[at] = light->green[at] * rest + paint_green;
        light->blue[at] = light->blue[at] * rest + strength;
    }
}

/* Layer 14, "no news from the bus" (heron.toml:369): sweep on deck, 72 LEDs. */
static ON_ITS_OWN void paint_no_news_from_the_bus(const struct heron_now *now, int first,
    int end, struct light *light)
{
    const float middle = now->no_news_from_the_bus_middle;
    const int from = later(first, 56), to = earlier(end, 128);
    for (int i = from; i < to; i++) {
        const int k = i - 56;
        const int at = i - first;
        const float distance = fabsf((float)READ_U8(deck_rank[k]) * 0.028571429f - middle)
            * 10.0f;
        const float v = larger(1.0f - distance, 0.0f);
        const float cover = v * v * (3.0f - 2.0f * v);
        SKIP_WHERE(cover == 0.0f);
        const float strength = cover * 0.56681293f;
        const float rest = 1.0f - cover;
        const float paint_red = 0.3515326f * strength;
        const float paint_green = 0.051269457f * strength;
        light->red[at] = light->red[at] * rest + paint_red;
        light->green[at] = light->green[at] * rest + paint_green;
        light->blue[at] = light->blue[at] * rest + strength;
    }
}

/* Layer 8, "turn left, front" (heron.toml:316): turn on nose-left, 12 LEDs. */
static ON_ITS_OWN void paint_turn_left_front(const struct heron_now *now, int first,
    int end, struct light *light)
{
    const float lit = now->turn_left_front_lit;
    const int from = later(first, 16), to = earlier(end, 28);
    for (int i = from; i < to; i++) {
        const int k = i - 16;
        const int at = i - first;
        const float cover = clamp(lit - (float)(11 - k), 0.0f, 1.0f);
        SKIP_WHERE(cover == 0.0f);
        const float rest = 1.0f - cover;
        const float paint_green = 0.19461784f * cover;
        light->red[at] = light->red[at] * rest + cover;
        light->green[at] = light->green[at] * rest + paint_green;
        light->blue[at] = light->blue[at] * rest;
    }
}

/* Layer 9, "turn right, front" (heron.toml:323): turn on nose-right, 12 LEDs. */
static ON_ITS_OWN void paint_turn_right_front(const struct heron_now *now, int first,
    int end, struct light *light)
{
    const float lit = now->turn_right_front_lit;
    const int from = later(first, 28), to = earlier(end, 40);
    for (int i = from; i < to; i++) {
        const int k = i - 28;
        const int at = i - first;
        const float cover = clamp(lit - (float)k, 0.0f, 1.0f);
        SKIP_WHERE(cover == 0.0f);
        const float rest = 1.0f - cover;
        const float paint_green = 0.19461784f * cover;
        light->red[at] = light->red[at] * rest + cover;
        light->green[at] = light->green[at] * rest + paint_green;
        light->blue[at] = light->blue[at] * rest;
    }
}

/* Layer 10, "turn left, rear" (heron.toml:330): turn on tail-left, 15 LEDs. */
static ON_ITS_OWN void paint_turn_left_rear(const struct heron_now *now, int first,
    int end, struct light *light)
{
    const float lit = now->turn_left_rear_lit;
    const int from = later(first, 128), to = earlier(end, 143);
    for (int i = from; i < to; i++) {
        const int k = i - 128;
        const int at = i - first;
        const float cover = clamp(lit - (float)(14 - k), 0.0f, 1.0f);
        SKIP_WHERE(cover == 0.0f);
        const float rest = 1.0f - cover;
        const float paint_green = 0.19461784f * cover;
        light->red[at] = light->red[at] * rest + cover;
        light->green[at] = paint_green;
    }
}

/* Layer 11, "turn right, rear" (heron.toml:337): turn on tail-right, 15 LEDs. */
static ON_ITS_OWN void paint_turn_right_rear(const struct heron_now *now, int first,
    int end, struct light *light)
{
    const float lit = now->turn_right_rear_lit;
    const int from = later(first, 143), to = earlier(end, 158);
    for (int i = from; i < to; i++) {
        const int k = i - 143;
        const int at = i - first;
        const float cover = clamp(lit - (float)k, 0.0f, 1.0f);
        SKIP_WHERE(cover == 0.0f);
        const float rest = 1.0f - cover;
        const float paint_green = 0.19461784f * cover;
        light->red[at] = light->red[at] * rest + cover;
        light->green[at] = paint_green;
    }
}

/* Layer 15, "battery warning" (heron.toml:378): blink on all, 158 LEDs. */
static ON_ITS_OWN void paint_battery_warning(const struct heron_now *now, int first,
    int end, struct light *light)
{
    const float cover = now->battery_warning_cover;
    const float rest = now->battery_warning_rest;
    const float paint_blue = now->battery_warning_paint_blue;
    const int from = first, to = end;
    for (int i = from; i < to; i++) {
        const int at = i - first;
        light->red[at] = light->red[at] * rest + cover;
        light->green[at] = light->green[at] * rest;
        light->blue[at] = light->blue[at] * rest + paint_blue;
    }
}

/* The share of a scene, 0 to 1. */
static float scene_share(const struct heron_now *now, int scene)
{
    switch (scene) {
    case 0:
        return now->no_news_there;
    case 1:
        return now->parked_there;
    case 2:
        return now->riding_there;
    default:
        return 0.0f;
    }
}

/* The only active scene; -1 if several are active. */
static int scenes_there(const struct heron_now *now)
{
    int found = -1;
    for (int scene = 0; scene < 4; scene++) {
        if (scene_share(now, scene) > 0.0f) {
            if (found >= 0) {
                return -1;
            }
            found = scene;
        }
    }
    return found;
}

/* Paints the layers of a scene, and the layers of all scenes between them. */
static ON_ITS_OWN void paint_scene(const struct heron_now *now, int first, int end,
    struct light *light, int scene)
{
    if (now->hubs_roll_with_the_road_on && scene == 2) {
        paint_hubs_roll_with_the_road(now, first, end, light);
    }
    if (now->cornering_light_left_on) {
        paint_cornering_light_left(now, first, end, light);
    }
    if (now->cornering_light_right_on) {
        paint_cornering_light_right(now, first, end, light);
    }
    if (now->rpm_on && scene == 2) {
        paint_rpm(now, first, end, light);
    }
    if (now->brake_light_on) {
        paint_brake_light(now, first, end, light);
    }
    if (now->parked_2_on && scene == 1) {
        paint_parked_2(now, first, end, light);
    }
    if (now->parked_looking_round_on && scene == 1) {
        paint_parked_looking_round(now, first, end, light);
    }
    if (now->no_news_from_the_bus_on && scene == 0) {
        paint_no_news_from_the_bus(now, first, end, light);
    }
}

/* Paints each active scene separately, and adds them up by their shares. */
static ON_ITS_OWN void mix_scenes(const struct heron_now *now, int first, int end,
    struct light *light)
{
    const struct light beneath = *light;
    struct light sum;
    for (int at = 0; at < end - first; at++) {
        sum.red[at] = 0.0f;
        sum.green[at] = 0.0f;
        sum.blue[at] = 0.0f;
    }
    for (int scene = 0; scene < 4; scene++) {
        const float share = scene_share(now, scene);
        if (share > 0.0f) {
            *light = beneath;
            paint_scene(now, first, end, light, scene);
            for (int at = 0; at < end - first; at++) {
                sum.red[at] += light->red[at] * share;
                sum.green[at] += light->green[at] * share;
                sum.blue[at] += light->blue[at] * share;
            }
        }
    }
    *light = sum;
}

/* Paints the LEDs from first to end - 1, layer over layer. */
static ON_ITS_OWN void paint(const struct heron_now *now,
    int first, int end, struct light *light)
{
    for (int at = 0; at < end - first; at++) {
        light->red[at] = 0.0f;
        light->green[at] = 0.0f;
        light->blue[at] = 0.0f;
    }
    if (now->running_light_front_on) {
        paint_running_light_front(now, first, end, light);
    }
    if (now->running_light_rear_on) {
        paint_running_light_rear(now, first, end, light);
    }
    const int there = scenes_there(now);
    if (there >= 0) {
        paint_scene(now, first, end, light, there);
    } else {
        mix_scenes(now, first, end, light);
    }
    if (now->left) {
        paint_turn_left_front(now, first, end, light);
    }
    if (now->right) {
        paint_turn_right_front(now, first, end, light);
    }
    if (now->left) {
        paint_turn_left_rear(now, first, end, light);
    }
    if (now->right) {
        paint_turn_right_rear(now, first, end, light);
    }
    if (now->battery_low) {
        paint_battery_warning(now, first, end, light);
    }
}

/* Supply "deck" (heron.toml:31): the light may draw 4.642 A, on top of the dark LEDs. */
static ON_ITS_OWN void limit_deck(
    struct heron *state, uint32_t dt_ms, uint8_t rgb[HERON_LEDS][3])
{
    static const uint32_t ua_0[3] IN_FLASH = {20000u, 20000u, 20000u};
    struct draw draw = {0u, 0u};
    add_draw(&draw, rgb, 0, 158, ua_0);
    follow(&state->deck_limit, &draw, 1183710000u, dt_ms);
    if (state->deck_limit.gain < 65536u) {
        scale(rgb, 0, 158, state->deck_limit.gain);
    }
}

/* Makes the next frame: red, green and blue of every LED. */
static ON_ITS_OWN void frame(struct heron *state, const struct heron_signals *signals,
    uint32_t now_ms, uint8_t rgb[HERON_LEDS][3])
{
    struct light light;
    const uint32_t dt_ms = state->has_begun ? now_ms - state->last_ms : 0u;
    advance(state, signals, now_ms);
    const float full = state->now.master * 255.0f;
    for (int first = 0; first < HERON_LEDS; first += AT_ONCE) {
        const int end = earlier(HERON_LEDS, first + AT_ONCE);
        paint(&state->now, first, end, &light);
        for (int i = first; i < end; i++) {
            rgb[i][0] = to_byte(light.red[i - first] * full);
            rgb[i][1] = to_byte(light.green[i - first] * full);
            rgb[i][2] = to_byte(light.blue[i - first] * full);
        }
    }
    limit_deck(state, dt_ms, rgb);
}

/* Turns red, green and blue, at the end of bytes, into the bytes of the wires. It reads each
   byte before it writes over it. */
static ON_ITS_OWN void to_wire(uint8_t bytes[HERON_BYTES])
{
    const uint8_t *rgb = bytes + (HERON_BYTES - 3 * HERON_LEDS);
    uint8_t *to = bytes;
    /* Line "front", GRB (heron.toml:40) */
    to = put_grb(to, rgb, 56);
    rgb += 168;
    /* Line "deck", GRB (heron.toml:72) */
    to = put_grb(to, rgb, 72);
    rgb += 216;
    /* Line "tail", GRB (heron.toml:95) */
    (void)put_grb(to, rgb, 30);
}

void heron_init(struct heron *state)
{
    /* Everything not named here is 0 or false. */
    memset(state, 0, sizeof *state);
    state->speed_since = 2147483647u;
    state->rpm_since = 2147483647u;
    state->throttle_since = 2147483647u;
    state->brake_since = 2147483647u;
    state->left_since = 2147483647u;
    state->right_since = 2147483647u;
    state->lean_since = 2147483647u;
    state->lights_since = 2147483647u;
    state->battery_low_since = 2147483647u;
    state->cornering_light_left_since = 2147483647u;
    state->cornering_light_right_since = 2147483647u;
    state->deck_limit.gain = 65536u;
}

void heron_step(struct heron *state, const struct heron_signals *signals,
    uint32_t now_ms, uint8_t bytes[HERON_BYTES])
{
    frame(state, signals, now_ms, (uint8_t (*)[3])bytes);
    to_wire(bytes);
}
