/* Heron: light for 158 LEDs. Made by Fendra from heron.toml. */
#ifndef HERON_H
#define HERON_H

#include <stdbool.h>
#include <stdint.h>

#ifdef __cplusplus
extern "C" {
#endif

/* Fendra's version, and a number for the light: same number, same light. */
#define HERON_FENDRA_VERSION "0.1.0"
#define HERON_DESIGN_HASH 0x811c30adu

#define HERON_LEDS 158
#define HERON_SIGNALS 9

/* Where the bytes of each line begin in a frame, and how many there are: pixel after pixel
   from data-in, in the order of the wire. */
#define HERON_FRONT_AT 0
#define HERON_FRONT_BYTES 168
#define HERON_DECK_AT 168
#define HERON_DECK_BYTES 216
#define HERON_TAIL_AT 384
#define HERON_TAIL_BYTES 90
#define HERON_BYTES 474

/* One signal: its newest value, and whether it arrived since the last frame. */
struct heron_signal {
    float value;
    bool is_new;
};

/* The signals. A value stays until a newer one arrives. Values are limited to -1e9 to 1e9;
   NaN and infinity are ignored. */
struct heron_signals {
    struct heron_signal speed;           /* km/h, 0 to 45 */
    struct heron_signal rpm;             /* 1/min, 0 to 6000 */
    struct heron_signal throttle;        /* 0 to 1 */
    struct heron_signal brake;           /* 0 to 1 */
    struct heron_signal left;            /* on above 0.5 */
    struct heron_signal right;           /* on above 0.5 */
    struct heron_signal battery;         /* V, 36 to 55 */
    struct heron_signal lean;            /* deg, -30 to 30 */
    struct heron_signal lights;          /* on above 0.5 */
};

/* Numbers of the current frame that the layers read. */
struct heron_now {
    float master;
    float no_news_there;
    float parked_there;
    float riding_there;
    float running_light_front_presence;
    float running_light_front_strength;
    float running_light_front_paint_green;
    float running_light_front_paint_blue;
    float running_light_rear_presence;
    float running_light_rear_strength;
    float hubs_roll_with_the_road_colour_green;
    float hubs_roll_with_the_road_colour_blue;
    float hubs_roll_with_the_road_v;
    float hubs_roll_with_the_road_presence;
    float cornering_light_left_presence;
    float cornering_light_left_strength;
    float cornering_light_left_paint_green;
    float cornering_light_left_paint_blue;
    float cornering_light_right_presence;
    float cornering_light_right_strength;
    float cornering_light_right_paint_green;
    float cornering_light_right_paint_blue;
    float rpm_reach;
    float rpm_top;
    float rpm_v;
    float brake_light_presence;
    float brake_light_strength;
    float brake_light_rest;
    float turn_left_front_lit;
    float turn_right_front_lit;
    float turn_left_rear_lit;
    float turn_right_rear_lit;
    uint32_t parked_2_v;
    float parked_2_v_2;
    float parked_2_v_3;
    uint32_t parked_2_v_4;
    uint32_t parked_2_v_5;
    float parked_looking_round_middle;
    float no_news_from_the_bus_middle;
    float battery_warning_cover;
    float battery_warning_rest;
    float battery_warning_paint_blue;
    bool left;
    bool right;
    bool battery_low;
    bool running_light_front_on;
    bool running_light_rear_on;
    bool rpm_on;
    bool hubs_roll_with_the_road_on;
    bool cornering_light_left_on;
    bool cornering_light_right_on;
    bool rpm_is_dark;
    bool rpm_v_2;
    bool brake_light_on;
    bool parked_2_on;
    bool parked_looking_round_on;
    bool no_news_from_the_bus_on;
};

/* A limiter: the share of light that it lets through, of 65536, and how long it stays there. */
struct heron_limit {
    uint32_t gain, rest_ms;
};

/* Everything that is kept from frame to frame. */
struct heron {
    uint32_t last_ms;
    uint32_t speed_since;
    float speed_lag;
    uint32_t rpm_since;
    float rpm_lag;
    uint32_t throttle_since;
    uint32_t brake_since;
    float brake_lag;
    uint32_t left_since;
    uint32_t right_since;
    float battery_lag;
    uint32_t lean_since;
    float lean_lag;
    uint32_t lights_since;
    uint32_t battery_low_since;
    float v_there;
    float v_there_2;
    float v_there_3;
    float v_there_4;
    float running_light_front_presence;
    float running_light_rear_presence;
    uint32_t hubs_roll_with_the_road_phase;
    float hubs_roll_with_the_road_presence;
    uint32_t cornering_light_left_since;
    float cornering_light_left_presence;
    uint32_t cornering_light_right_since;
    float cornering_light_right_presence;
    float rpm_peak;
    uint32_t rpm_since_2;
    float brake_light_presence;
    uint32_t turn_left_front_ticks;
    uint32_t turn_right_front_ticks;
    uint32_t turn_left_rear_ticks;
    uint32_t turn_right_rear_ticks;
    uint32_t battery_warning_ticks;
    struct heron_limit deck_limit;
    bool has_begun;
    bool battery_ever;
    bool turn_left_front_was;
    bool turn_right_front_was;
    bool turn_left_rear_was;
    bool turn_right_rear_was;
    bool battery_warning_was;
    struct heron_now now;
};

/* Sets the state as after power-up. Call it before the first frame. */
void heron_init(struct heron *state);

/* Makes the next frame: the bytes of all lines. now_ms counts milliseconds and may wrap; two
   frames must be less than 49 days apart. */
void heron_step(struct heron *state, const struct heron_signals *signals,
    uint32_t now_ms, uint8_t bytes[HERON_BYTES]);

#ifdef __cplusplus
}
#endif

#endif
