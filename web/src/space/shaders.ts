/** How LEDs look in the dark: as `fendra.draw.glow` draws them on stills. */

/** What is drawn inside the square of an LED. */
const inside = (body: string): string => /* glsl */ `
precision highp float;
in vec2 offset;
in float core;
in vec3 light;
uniform float dim;
out vec4 shown;
void main() {${body}}`;

/** A square round each LED that looks at the camera; `reach` is its size in core radii. */
const square = (reach: string): string => /* glsl */ `
precision highp float;
in vec2 corner;
in vec3 place;
in vec3 facing;
in vec3 colour;
uniform mat4 viewMatrix, projectionMatrix;
uniform vec3 eye;
uniform vec2 size;
uniform float radius, scale, least, most;
out vec2 offset;
out float core;
out vec3 light;
void main() {
  vec4 seen = viewMatrix * vec4(place, 1.0);
  gl_Position = projectionMatrix * seen;
  core = clamp(radius * scale / max(-seen.z, 0.1), least, most);
  float reach = ${reach};
  offset = corner * reach;
  gl_Position.xy += 2.0 * offset / size * gl_Position.w;
  float turned = dot(facing, facing) > 0.0 ? dot(facing, normalize(eye - place)) : 1.0;
  light = colour * mix(0.3, 1.0, smoothstep(-0.7, 0.0, turned));
}`;

export const CORE_VERTEX = square("core * 2.2 + 1.0");
export const CORE_FRAGMENT = inside(/* glsl */ `
  float distance = length(offset);
  float disc = clamp(core + 0.5 - distance, 0.0, 1.0);
  float shine = disc + 0.12 * exp(-pow(distance / (1.3 * core), 2.0));
  float level = max(light.r, max(light.g, light.b));
  shown = vec4((4.0 * light + 0.07 * level * level) * shine * dim, 1.0);
`);

export const HALO_VERTEX = square("core * 24.0 + 1.0");
export const HALO_FRAGMENT = inside(/* glsl */ `
  float wide = 7.0 * core;
  shown = vec4(light * dim * 0.0408 * exp(-0.5 * pow(length(offset) / wide, 2.0)), 1.0);
`);

export const OFF_VERTEX = square("core * 0.75 + 1.0");
export const OFF_FRAGMENT = inside(/* glsl */ `
  float disc = clamp(core * 0.75 + 0.5 - length(offset), 0.0, 1.0);
  if (disc <= 0.0) discard;
  shown = vec4(vec3(0.0212, 0.0252, 0.0343), disc);
`);

export const SCREEN_VERTEX = /* glsl */ `
precision highp float;
in vec3 position;
out vec2 at;
void main() {
  at = position.xy * 0.5 + 0.5;
  gl_Position = vec4(position.xy, 0.0, 1.0);
}`;

/** Above 0.6 light bends softly, so that what is bright stays coloured. */
export const SCREEN_FRAGMENT = /* glsl */ `
precision highp float;
in vec2 at;
uniform sampler2D sharp, soft;
out vec4 shown;
void main() {
  vec3 light = texture(sharp, at).rgb + texture(soft, at).rgb;
  if (max(light.r, max(light.g, light.b)) < 0.0001) {
    shown = vec4(0.047, 0.0549, 0.0745, 1.0); // the night, where nothing is
    return;
  }
  light += vec3(0.0037, 0.0044, 0.0065);
  vec3 over = max(light - 0.6, 0.0);
  light = min(light, 0.6) + 0.4 * over / (over + 0.4);
  vec3 low = light * 12.92, high = 1.055 * pow(max(light, 0.0), vec3(1.0 / 2.4)) - 0.055;
  shown = vec4(mix(high, low, lessThanEqual(light, vec3(0.0031308))), 1.0);
}`;
