import { Color, DoubleSide, ShaderMaterial } from 'three'

/** What fronts and backs are shown in; backs are hatched as well, so that colour alone does not tell. */
export const FRONT = '#a9bac6'
export const BACK = '#d98e4a'

/** Shows which side of each surface is its front, shaded by its slope towards the eye. */
export function sidesMaterial(): ShaderMaterial {
  return new ShaderMaterial({
    side: DoubleSide,
    uniforms: {
      front: { value: new Color(FRONT) },
      back: { value: new Color(BACK) },
      pixels: { value: 1 },
    },
    vertexShader: /* glsl */ `
      varying vec3 place;
      void main() {
        vec4 seen = modelViewMatrix * vec4(position, 1.0);
        place = seen.xyz;
        gl_Position = projectionMatrix * seen;
      }`,
    fragmentShader: /* glsl */ `
      uniform vec3 front;
      uniform vec3 back;
      uniform float pixels;
      varying vec3 place;
      void main() {
        vec3 slope = normalize(cross(dFdx(place), dFdy(place)));
        float shade = 0.55 + 0.45 * abs(dot(slope, normalize(place)));
        float line = fract((gl_FragCoord.x + gl_FragCoord.y) / (9.0 * pixels));
        vec3 colour = gl_FrontFacing ? front : back * (line < 0.3 ? 0.45 : 1.0);
        gl_FragColor = vec4(colour * shade, 1.0);
        #include <colorspace_fragment>
      }`,
  })
}
