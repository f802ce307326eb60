import { DoubleSide, ShaderMaterial } from 'three'

/** Shading by a surface's slope towards the eye, for views that show no looks. */
export const VERTEX = /* glsl */ `
  varying vec3 place;
  void main() {
    vec4 seen = modelViewMatrix * vec4(position, 1.0);
    place = seen.xyz;
    gl_Position = projectionMatrix * seen;
  }`
export const SHADE = /* glsl */ `
  varying vec3 place;
  float shade() {
    vec3 slope = normalize(cross(dFdx(place), dFdy(place)));
    return 0.55 + 0.45 * abs(dot(slope, normalize(place)));
  }`

/** What everything else turns into while a few things are pointed out. */
export function haze(): ShaderMaterial {
  return new ShaderMaterial({
    side: DoubleSide,
    transparent: true,
    depthWrite: false,
    vertexShader: VERTEX,
    fragmentShader: /* glsl */ `
      ${SHADE}
      void main() {
        gl_FragColor = vec4(vec3(0.62 * shade()), 0.14);
        #include <colorspace_fragment>
      }`,
  })
}
