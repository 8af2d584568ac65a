/* The scene of scene.py, written by hand by somebody who knows it and how to be quick: each
   third is one loop that does all its layers at once, with what never changes in tables. */
#include <math.h>
#include <stddef.h>
#include <stdint.h>

struct scene {
    int spots, third;
    const float *along;                      /* place on the whole strip, 0 to 1 */
    const float *ramp_red, *ramp_green;      /* the gauge's colours; it has no blue */
};

struct state {
    float brake, rpm, left, battery;
};

/* Linear light of the scene's colours. */
static const float BLUE[3] = {0.0f, 0.029556834f, 1.0f};
static const float TEAL[3] = {0.0f, 0.577580453f, 0.456411023f};
static const float VIOLET[3] = {0.351532599f, 0.051269458f, 1.0f};
static const float AMBER_GREEN = 0.194617830f;

static inline float clamp(float x)
{
    x = x > 0.0f ? x : 0.0f;
    return x < 1.0f ? x : 1.0f;
}

static inline float to_and_fro(float phase)
{
    return 1.0f - fabsf(2.0f * phase - 1.0f);
}

static inline float smooth(float x)
{
    return x * x * (3.0f - 2.0f * x);
}

static inline float light_of(float level)
{
    const float root = (level * 100.0f + 16.0f) / 116.0f;
    return level > 0.08f ? root * root * root : level * (100.0f / 903.2962963f);
}

/* No light of this scene is below 0. */
static inline uint8_t to_byte(float light)
{
    const int byte = (int)(light * 255.0f + 0.5f);
    return (uint8_t)(byte < 255 ? byte : 255);
}

struct pixel {
    float red, green, blue;
};

static inline struct pixel drift(float along, float phase)
{
    float share = along * 0.5f + phase;
    share = to_and_fro(share - floorf(share));
    const struct pixel pixel = {
        0.0f,
        BLUE[1] + share * (TEAL[1] - BLUE[1]),
        BLUE[2] + share * (TEAL[2] - BLUE[2]),
    };
    return pixel;
}

/* The soft dot, the warning (0 while it is off), and the bytes. */
static inline void finish(struct pixel pixel, float along, float middle, float dot, float warning,
    uint8_t *rgb)
{
    const float near = smooth(clamp(1.0f - fabsf(along - middle) * 10.0f)) * dot;
    pixel.red += VIOLET[0] * near;
    pixel.green += VIOLET[1] * near;
    pixel.blue += near;
    rgb[0] = to_byte(pixel.red > warning ? pixel.red : warning);
    rgb[1] = to_byte(pixel.green);
    rgb[2] = to_byte(pixel.blue);
}

void scene_frame(const struct scene *scene, double at_s, struct state now, uint8_t *restrict rgb)
{
    const int third = scene->third, spots = scene->spots;
    const float *restrict along = scene->along;
    const float *restrict ramp_red = scene->ramp_red, *restrict ramp_green = scene->ramp_green;
    const float phase = 1.0f - (float)fmod(0.1 * at_s, 1.0);
    const float middle = to_and_fro((float)fmod(0.5 * at_s, 1.0));
    const float dot = light_of(0.8f);
    const float swell = 0.1f + 0.9f * smooth(to_and_fro((float)fmod(at_s, 1.0)));
    const float warning = now.battery < 44.0f ? swell * light_of(0.5f) : 0.0f;

    if (now.brake > 0.04f) {
        const struct pixel red = {light_of(0.3f + 0.7f * now.brake), 0.0f, 0.0f};
        for (int i = 0; i < third; i++) {
            finish(red, along[i], middle, dot, warning, &rgb[3 * i]);
        }
    } else {
        for (int i = 0; i < third; i++) {
            finish(drift(along[i], phase), along[i], middle, dot, warning, &rgb[3 * i]);
        }
    }

    const float lit = now.rpm / 6000.0f * (float)third;
    for (int i = third; i < 2 * third; i++) {
        const int k = i - third;
        const float cover = clamp(lit - (float)k), rest = 1.0f - cover;
        struct pixel pixel = drift(along[i], phase);
        pixel.red = ramp_red[k] * cover;
        pixel.green = pixel.green * rest + ramp_green[k] * cover;
        pixel.blue = pixel.blue * rest;
        finish(pixel, along[i], middle, dot, warning, &rgb[3 * i]);
    }

    if (now.left > 0.5f) {
        const int count = spots - 2 * third;
        const int64_t run_ms = 10 * (int64_t)count;
        const int64_t elapsed_ms = (int64_t)floor(at_s * 1000.0 + 0.5) % (2 * run_ms + 1000);
        const float come = (float)(elapsed_ms / 10);
        const float gone = floorf((float)(elapsed_ms - run_ms - 500) / 10.0f);
        for (int i = 2 * third; i < spots; i++) {
            const float k = (float)(i - 2 * third);
            const float cover = clamp(come - k) - clamp(gone - k), rest = 1.0f - cover;
            struct pixel pixel = drift(along[i], phase);
            pixel.red = cover;
            pixel.green = pixel.green * rest + AMBER_GREEN * cover;
            pixel.blue = pixel.blue * rest;
            finish(pixel, along[i], middle, dot, warning, &rgb[3 * i]);
        }
    } else {
        for (int i = 2 * third; i < spots; i++) {
            finish(drift(along[i], phase), along[i], middle, dot, warning, &rgb[3 * i]);
        }
    }
}

void scene_film(const struct scene *scene, const double *at_s, const struct state *states,
    int frames, uint8_t *rgb)
{
    for (int i = 0; i < frames; i++) {
        scene_frame(scene, at_s[i], states[i], rgb + (size_t)i * 3 * (size_t)scene->spots);
    }
}
