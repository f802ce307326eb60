import { Color, type MeshPhysicalMaterial } from 'three'
import type { Physical } from '../api/client'

type Curve = NonNullable<Physical['curve']>

interface CurveUniforms {
  curveFacing: { value: Color }
  curveEdge: { value: number }
  curveExponent: { value: number }
}

const DECLARED = `
uniform vec3 curveFacing;
uniform float curveEdge;
uniform float curveExponent;
`
const ENDS = `
  material.specularColor = min( curveFacing * specularColorFactor, vec3( 1.0 ) ) * specularIntensityFactor;
  material.specularColorBlended = mix( material.specularColor, diffuseColor.rgb, metalnessFactor );
  material.specularF90 = mix( curveEdge * specularIntensityFactor, 1.0, metalnessFactor );
`
/** The share of the edge's reflectance is (1 − cos)^5 in the table that the renderer reads; here it has its own exponent. */
const BEND = `
  float curveWhole = material.dfg.x + material.dfg.y;
  float curveLate = curveWhole * pow( clamp( material.dfg.y / max( curveWhole, 1e-4 ), 0.0, 1.0 ), curveExponent / 5.0 );
  material.dfg = vec2( curveWhole - curveLate, curveLate );
`

/** Has a material reflect by angle as drawn; or, for none, as its index of refraction does. */
export function drawCurve(m: MeshPhysicalMaterial, curve: Curve | null): void {
  if (!curve) {
    if (!m.userData['curve']) return
    delete m.userData['curve']
    m.onBeforeCompile = () => undefined
    m.customProgramCacheKey = () => ''
    return
  }
  const uniforms: CurveUniforms = (m.userData['curve'] as CurveUniforms | undefined) ?? {
    curveFacing: { value: new Color() },
    curveEdge: { value: 1 },
    curveExponent: { value: 5 },
  }
  const [r = 0, g = 0, b = 0] = curve.facing
  const [er = 0, eg = 0, eb = 0] = curve.edge
  uniforms.curveFacing.value.setRGB(r, g, b)
  uniforms.curveEdge.value = 0.2126 * er + 0.7152 * eg + 0.0722 * eb
  uniforms.curveExponent.value = curve.exponent
  if (m.userData['curve']) return
  m.userData['curve'] = uniforms
  m.onBeforeCompile = (shader) => {
    Object.assign(shader.uniforms, uniforms)
    shader.fragmentShader =
      DECLARED +
      shader.fragmentShader
        .replace('#include <lights_physical_fragment>', `#include <lights_physical_fragment>${ENDS}`)
        .replace('#include <lights_fragment_begin>', `#include <lights_fragment_begin>${BEND}`)
  }
  m.customProgramCacheKey = () => 'own curve'
}
