import {
  Color,
  Matrix4,
  type Matrix3,
  ShaderChunk,
  type IUniform,
  type MeshPhysicalMaterial,
  type Texture,
  Vector2,
  Vector4,
} from 'three'
import type { FineRelief, Physical } from '../api/client'
import './lampLight' // changes chunks that are changed further here

/**
 * What the renderer has no material property for, as changes of its shader. Every number comes from core. A change names
 * itself, since materials with the same changes share a program; its uniforms belong to the material.
 */
interface Patch {
  vertex?: (shader: string) => string
  fragment: (shader: string) => string
}
type Uniforms = Record<string, IUniform>
type Applied = Map<PatchName, Uniforms>
type PatchName = keyof typeof PATCHES

function after(chunk: string, text: string): (shader: string) => string {
  return (shader) => shader.replace(`#include <${chunk}>`, `#include <${chunk}>\n${text}`)
}
function before(shader: string, text: string): string {
  return text + shader
}
function chunk(name: keyof typeof ShaderChunk, ...edits: [string, string][]): string {
  return edits.reduce((text, [from, to]) => text.replaceAll(from, to), ShaderChunk[name])
}

/** Reflectance at the edge has a colour, and grows towards it with an exponent of its own. */
const CURVE_FUNCTIONS = chunk(
  'lights_physical_pars_fragment',
  ['float specularF90', 'vec3 specularF90'],
  ['float f90 = material.specularF90', 'vec3 f90 = material.specularF90'],
  // the coat's environment keeps a plain edge
  [
    'const in vec3 specularColor, const in vec3 specularF90, const in float roughness',
    'const in vec3 specularColor, const in float specularF90, const in float roughness',
  ],
)
const CURVE_DECLARED = `
#define CURVED
uniform vec3 curveFacing;
uniform vec3 curveEdge;
uniform float curveExponent;
`
const CURVE_SCHLICK = `
vec3 F_Schlick( const in vec3 f0, const in vec3 f90, const in float dotVH ) {
  return mix( f0, f90, pow( clamp( 1.0 - dotVH, 1e-4, 1.0 ), curveExponent ) );
}
`
const CURVE_ENDS = chunk(
  'lights_physical_fragment',
  [
    'material.specularF90 = mix( specularIntensityFactor, 1.0, metalnessFactor );',
    'material.specularF90 = vec3( 1.0 );',
  ],
  ['material.specularF90 = 1.0;', 'material.specularF90 = vec3( 1.0 );'],
).concat(`
  material.specularColor = min( curveFacing * specularColorFactor, vec3( 1.0 ) ) * specularIntensityFactor;
  material.specularColorBlended = mix( material.specularColor, diffuseColor.rgb, metalnessFactor );
  material.specularF90 = mix( curveEdge * specularIntensityFactor, vec3( 1.0 ), metalnessFactor );
`)
/** The share of the edge's reflectance is (1 − cos)^5 in the table that the renderer reads; here it has its own exponent. */
const CURVE_BEND = `
  float curveWhole = material.dfg.x + material.dfg.y;
  float curveLate = curveWhole * pow( clamp( material.dfg.y / max( curveWhole, 1e-4 ), 0.0, 1.0 ), curveExponent / 5.0 );
  material.dfg = vec2( curveWhole - curveLate, curveLate );
`

/** As core's tracer lays them: cells about scattered points, each a mirror that lies askew; blurred where they are small. */
const FLAKES_DECLARED = `
uniform float flakeWeight;
uniform float flakeSize;
varying vec3 vFlakeAt;
float flakeRest( float whole, float part ) {
  return pow( max( 0.0, pow( whole, 1.4 ) - pow( part, 1.4 ) ), 1.0 / 1.4 );
}
uvec3 flakeHash( uvec3 v ) {
  v = v * 1664525u + 1013904223u;
  v.x += v.y * v.z; v.y += v.z * v.x; v.z += v.x * v.y;
  v ^= v >> 16u;
  v.x += v.y * v.z; v.y += v.z * v.x; v.z += v.x * v.y;
  return v;
}
vec3 flakeUnits( ivec3 cell, uint which ) {
  return vec3( flakeHash( uvec3( cell ) + which * 7919u ) >> 8u ) / 16777216.0;
}
`
const FLAKES_LAID = `
  vec3 evenNormal = normal;
  {
    vec3 at = vFlakeAt / flakeSize;
    float seen = max( length( dFdx( vFlakeAt ) ), length( dFdy( vFlakeAt ) ) ) / flakeSize;
    float alone = 1.0 - smoothstep( 0.0, 1.0, ( seen - 0.5 ) / 1.5 );
    float alpha = roughnessFactor * roughnessFactor;
    float own = max( 0.3 * alpha, 0.0016 );
    if ( alone > 0.0 && own < alpha ) {
      ivec3 home = ivec3( floor( at ) );
      float least = 1e9;
      ivec3 flake = home;
      for ( int z = -1; z <= 1; z ++ ) for ( int y = -1; y <= 1; y ++ ) for ( int x = -1; x <= 1; x ++ ) {
        ivec3 cell = home + ivec3( x, y, z );
        vec3 away = vec3( cell ) + flakeUnits( cell, 0u ) - at;
        float d = dot( away, away );
        if ( d < least ) { least = d; flake = cell; }
      }
      vec3 drawn = flakeUnits( flake, 1u );
      if ( drawn.x < flakeWeight ) {
        float spread = alone * flakeRest( alpha, own );
        float steepness = min( 0.9, drawn.y );
        float slope = spread * sqrt( steepness / ( 1.0 - steepness ) );
        vec3 across = anyTangent( normal );
        float around = 6.2831853 * drawn.z;
        normal = normalize( normal + slope * ( cos( around ) * across + sin( around ) * cross( normal, across ) ) );
        roughnessFactor = sqrt( flakeRest( alpha, spread ) );
      }
    }
  }
`

/** The body's light has the colour within, and what a thin wall lets through is light from its other side. */
const BELOW_DECLARED = `
uniform float belowWeight;
uniform vec3 belowColour;
uniform float belowThrough;
`
const BELOW_COLOURS = `
  float belowShows = belowWeight;
  float belowPasses = belowThrough;
  #ifdef AGED
    belowShows *= 1.0 - ageCovered;
    belowPasses *= 1.0 - ageCovered;
  #endif
  material.diffuseContribution = ( 1.0 - belowPasses ) * mix( material.diffuseContribution, belowColour * ( 1.0 - material.metalness ), belowShows );
  material.diffuseColor = mix( ( 1.0 - belowPasses ) * mix( material.diffuseColor, belowColour, belowShows ), material.diffuseColor, material.metalness );
`
const BELOW_LETS_THROUGH = `
  #ifdef USE_ENVMAP
    vec3 belowKept = 1.0 - EnvironmentBRDF( geometryNormal, geometryViewDir, material.specularColor, 1.0, material.roughness );
    reflectedLight.indirectDiffuse += belowPasses * belowColour * belowKept * ( 1.0 - material.metalness ) * RECIPROCAL_PI * getIBLIrradiance( - geometryNormal );
  #endif
`

/** Whatever the body gives off, some of it is mirrored back to it by the coat. */
const COAT_DECLARED = `
uniform float coatIor;
uniform vec3 coatColor;
uniform float coatDarkening;
uniform float coatReturns;
uniform float coatBlurs;
uniform float coatedFacing;
uniform float coatedEdge;
`

const AROUND_DECLARED = `
#define OWN_AROUND
uniform samplerCube aroundMap;
uniform mat3 aroundTurn;
uniform float aroundStrength;
uniform vec3 reflectedColour;
`

/** Layers over what the surface was: weathering, growth, wear and dust, where their cover is. */
const AGE_DECLARED = `
#define AGED
uniform sampler2D ageFields;
uniform float ageNever;
uniform float ageMiddle;
uniform float ageAmount[4];
uniform float ageSoftness[4];
uniform float ageSelf[4];
uniform float ageGrey[4];
uniform vec3 ageColour[4];
uniform float ageMottled[4];
uniform float ageRoughness[4];
uniform float ageMetalness[4];
varying vec2 vAgeUv;
`
const AGE_LAID = `
  float ageCovered = 0.0;
  {
    vec4 resistance = ageNever * texture2D( ageFields, vAgeUv );
    vec3 fresh = diffuseColor.rgb;
    float grey = dot( fresh, vec3( 0.2126, 0.7152, 0.0722 ) );
    #pragma unroll_loop_start
    for ( int i = 0; i < 4; i ++ ) {
      {
        float cover = ageAmount[ i ] > 0.0 ? clamp( ( ageAmount[ i ] * ( 1.0 + ageSoftness[ i ] ) - resistance[ i ] ) / ageSoftness[ i ], 0.0, 1.0 ) : 0.0;
        diffuseColor.rgb = mix( diffuseColor.rgb, ageSelf[ i ] * fresh + ageGrey[ i ] * grey + max( 0.0, 1.0 + ageMottled[ i ] * ( resistance[ i ] - ageMiddle ) ) * ageColour[ i ], cover );
        roughnessFactor = mix( roughnessFactor, ageRoughness[ i ], cover );
        metalnessFactor = mix( metalnessFactor, ageMetalness[ i ], cover );
        ageCovered = 1.0 - ( 1.0 - ageCovered ) * ( 1.0 - cover );
      }
    }
    #pragma unroll_loop_end
  }
`
const AGE_COVERS_COAT = `
  #ifdef USE_CLEARCOAT
    material.clearcoat *= 1.0 - ageCovered;
  #endif
`

/** Relief that is finer than a pixel roughens what is mirrored, as much as the tracer's surfaces (SurfaceValues, roughen). */
const RELIEF_LEVELS = 13
const RELIEF_DECLARED = `
#define RELIEF
float onRelief( const in float alpha2, const in float slopes ) {
  return alpha2 + slopes * ( 1.0 + 0.75 * alpha2 / max( alpha2 + slopes, 1e-9 ) );
}
uniform float reliefSpreads[${RELIEF_LEVELS}];
uniform vec2 reliefPixels;
uniform float reliefAlong;
`
const RELIEF_ROUGHENS = `
  float reliefAdded = 0.0; // to alpha²
  float reliefSlopes = 0.0;
  #ifdef USE_NORMALMAP
  {
    vec2 seenX = dFdx( vNormalMapUv ) * reliefPixels;
    vec2 seenY = dFdy( vNormalMapUv ) * reliefPixels;
    float level = clamp( 0.25 * log2( max( dot( seenX, seenX ) * dot( seenY, seenY ), 1e-12 ) ), 0.0, ${RELIEF_LEVELS - 1}.0 - 0.001 );
    int lower = int( level );
    float spread = abs( normalScale.x ) * mix( reliefSpreads[ lower ], reliefSpreads[ lower + 1 ], level - float( lower ) );
    float alpha2 = pow2( pow2( roughnessFactor ) );
    reliefSlopes = 2.0 * spread * spread;
    reliefAdded = onRelief( alpha2, reliefSlopes ) - alpha2;
    roughnessFactor = sqrt( sqrt( min( 1.0, alpha2 + reliefAdded ) ) );
  }
  #endif
`

/** Facets that lie askew further one way than the other: α along the tangent and across it, by what core says. */
const BRUSHED_WIDTHS = `
  {
    float even2 = pow2( pow2( material.roughness ) ); // alpha², as a mean
    vec2 wide2 = brushedWidths * brushedWidths;
    #ifdef RELIEF
      wide2 *= max( even2 - reliefAdded, 0.0 ); // streaks are steep to their sides
      wide2.x = onRelief( wide2.x, 2.0 * reliefAlong * reliefSlopes );
      wide2.y = onRelief( wide2.y, 2.0 * ( 1.0 - reliefAlong ) * reliefSlopes );
      if ( wide2.y > wide2.x ) {
        wide2 = wide2.yx;
        vec3 along = material.anisotropyB;
        material.anisotropyB = - material.anisotropyT;
        material.anisotropyT = along;
      }
    #else
      wide2 *= even2;
    #endif
    material.alphaT = min( 1.0, sqrt( wide2.x ) );
    material.roughness = max( sqrt( sqrt( wide2.y ) ), 0.03 );
  }
`

/**
 * How much of a pixel is there where a picture cuts holes: sharp from near; from afar, where holes are finer than pixels,
 * their share, in the steps of the samples that a pixel has and scattered between these.
 */
const HOLES_COVER = `
#ifdef USE_ALPHATEST
{
  #ifdef USE_ALPHAMAP
    vec2 holesAt = vAlphaMapUv * vec2( textureSize( alphaMap, 0 ) );
  #else
    vec2 holesAt = vMapUv * vec2( textureSize( map, 0 ) );
  #endif
  vec2 holesX = dFdx( holesAt );
  vec2 holesY = dFdy( holesAt );
  float afar = saturate( 0.5 * log2( max( max( dot( holesX, holesX ), dot( holesY, holesY ) ), 1e-12 ) ) );
  float edge = saturate( ( diffuseColor.a - alphaTest ) / max( fwidth( diffuseColor.a ), 1e-4 ) + 0.5 );
  float scattered = fract( 52.9829189 * fract( dot( gl_FragCoord.xy, vec2( 0.06711056, 0.00583715 ) ) ) ) - 0.5; // Jimenez 2014
  float covers = mix( edge, diffuseColor.a, afar );
  diffuseColor.a = covers > 0.0 && covers < 1.0 ? covers + 0.25 * scattered : covers;
  if ( diffuseColor.a <= 0.0 ) discard;
}
#endif
`

/** At as many cosines core tells what fuzz reflects. */
const FUZZ_COSINES = 17
const FUZZ_DECLARED = `
uniform float fuzzWeight;
uniform float fuzzReflects[${FUZZ_COSINES}];
uniform float fuzzLetsInAll;
float fuzzSends( const in float cosine ) {
  float at = clamp( cosine, 0.0, 1.0 ) * ${FUZZ_COSINES - 1}.0;
  int lower = min( int( at ), ${FUZZ_COSINES - 2} );
  return mix( fuzzReflects[ lower ], fuzzReflects[ lower + 1 ], at - float( lower ) );
}
float fuzzLets( const in float cosine ) {
  return 1.0 - fuzzWeight * fuzzSends( cosine );
}
// of light from all around, to what is below the fibres and back
float fuzzLetsBoth( const in vec3 n, const in vec3 v ) {
  return fuzzLets( dot( n, v ) ) * fuzzLetsInAll;
}
`

const PATCHES = {
  fuzz: { fragment: (f) => before(f, FUZZ_DECLARED) },
  brushed: {
    // what is reflected in all is that of the mean roughness
    fragment: (f) =>
      after('lights_fragment_begin', BRUSHED_WIDTHS)(before(f, 'uniform vec2 brushedWidths;\n')),
  },
  curve: {
    fragment: (f) =>
      before(f, CURVE_DECLARED)
        .replace('#include <lights_physical_pars_fragment>', CURVE_SCHLICK + CURVE_FUNCTIONS)
        .replace('#include <lights_physical_fragment>', CURVE_ENDS)
        .replace('#include <lights_fragment_begin>', `#include <lights_fragment_begin>${CURVE_BEND}`),
  },
  flakes: {
    vertex: (v) =>
      before(v, 'varying vec3 vFlakeAt;\n').replace(
        '#include <project_vertex>',
        '#include <project_vertex>\nvFlakeAt = ( modelMatrix * vec4( transformed, 1.0 ) ).xyz;',
      ),
    fragment: (f) =>
      after(
        'normal_fragment_maps',
        FLAKES_LAID,
      )(before(f, FLAKES_DECLARED)).replace(
        '#include <lights_fragment_maps>',
        // the body below the flakes lies even
        chunk('lights_fragment_maps', [
          'getIBLIrradiance( geometryNormal )',
          'getIBLIrradiance( evenNormal )',
        ]),
      ),
  },
  coat: {
    fragment: (f) =>
      after(
        'lights_physical_fragment',
        `
        #ifdef USE_CLEARCOAT
          material.clearcoatF0 = vec3( pow2( ( coatIor - 1.0 ) / ( coatIor + 1.0 ) ) );
          // what light crosses twice blurs what is below it (core, SurfaceValues, roughnessUnderCoat)
          material.roughness = mix( material.roughness, min( 1.0, sqrt( sqrt( pow2( pow2( material.roughness ) ) + coatBlurs ) ) ), material.clearcoat );
          // below the coat there is but the step from its index to the body's
          #ifndef CURVED
            material.specularColor *= coatedFacing;
            material.specularColorBlended = mix( material.specularColor, diffuseColor.rgb, metalnessFactor );
            material.specularF90 = mix( specularIntensityFactor * coatedEdge, 1.0, metalnessFactor );
          #endif
        #endif
        `,
      )(before(f, COAT_DECLARED)).replace(
        'outgoingLight = outgoingLight * ( 1.0 - material.clearcoat * Fcc )',
        `
        vec3 coatLets = pow( max( coatColor, vec3( 1e-6 ) ), vec3( 1.0 / sqrt( 1.0 - ( 1.0 - dotNVcc * dotNVcc ) / ( coatIor * coatIor ) ) ) );
        #ifdef USE_TRANSMISSION
          float coatClear = ( 1.0 - metalnessFactor ) * transmission;
        #else
          float coatClear = 0.0;
        #endif
        vec3 coatBody = diffuseColor.rgb * ( 1.0 - coatClear ) + coatClear * material.specularColor;
        vec3 coatDark = mix( vec3( 1.0 ), ( 1.0 - coatReturns ) / ( 1.0 - coatReturns * min( coatBody, vec3( 1.0 ) ) ), material.clearcoat * coatDarkening );
        outgoingLight -= material.clearcoat * Fcc * totalSpecular; // matt light comes through on its way in, in the mean, as often as back
        outgoingLight = coatDark * ( outgoingLight - totalEmissiveRadiance ) + totalEmissiveRadiance;
        outgoingLight = mix( vec3( 1.0 ), coatLets, material.clearcoat ) * outgoingLight * ( 1.0 - material.clearcoat * Fcc )`,
      ),
  },
  age: {
    vertex: (v) =>
      before(v, 'attribute vec2 ageUv;\nvarying vec2 vAgeUv;\n').replace(
        '#include <project_vertex>',
        '#include <project_vertex>\nvAgeUv = ageUv;',
      ),
    fragment: (f) =>
      after(
        'lights_physical_fragment',
        AGE_COVERS_COAT,
      )(after('metalnessmap_fragment', AGE_LAID)(before(f, AGE_DECLARED))).replace(
        '#include <transmission_fragment>',
        chunk('transmission_fragment', [
          'material.transmission = transmission;',
          'material.transmission = transmission * ( 1.0 - ageCovered );',
        ]),
      ),
  },
  below: {
    fragment: (f) =>
      after(
        'lights_fragment_end',
        BELOW_LETS_THROUGH,
      )(after('lights_physical_fragment', BELOW_COLOURS)(before(f, BELOW_DECLARED))),
  },
  around: {
    fragment: (f) =>
      before(f, AROUND_DECLARED).replace(
        '#include <envmap_physical_pars_fragment>',
        chunk(
          'envmap_physical_pars_fragment',
          // what is around lights the body; the coat and the boundary mirror their own
          [
            'textureLod( envMap, envMapRotation * worldNormal',
            'textureLod( aroundMap, aroundTurn * worldNormal',
          ],
          ['return envMapColor.rgb * envMapIntensity', 'return envMapColor.rgb * reflectedColour'],
        ),
      ),
  },
  cutOut: {
    fragment: (f) =>
      before(f, 'uniform vec4 cutOutShares;\n').replace(
        '#include <alphamap_fragment>',
        chunk('alphamap_fragment', [
          'texture2D( alphaMap, vAlphaMapUv ).g',
          'dot( texture2D( alphaMap, vAlphaMapUv ), cutOutShares )',
        ]),
      ),
  },
  // a picture of its own for each, read by the channel of its choice
  rough: {
    fragment: (f) =>
      before(f, 'uniform vec4 roughShares;\n').replace(
        '#include <roughnessmap_fragment>',
        chunk('roughnessmap_fragment', ['texelRoughness.g;', 'dot( texelRoughness, roughShares );']),
      ),
  },
  metal: {
    fragment: (f) =>
      before(f, 'uniform vec4 metalShares;\n').replace(
        '#include <metalnessmap_fragment>',
        chunk('metalnessmap_fragment', ['texelMetalness.b;', 'dot( texelMetalness, metalShares );']),
      ),
  },
  holes: {
    fragment: (f) =>
      f.replace(
        '#include <alphatest_fragment>',
        `
#if defined( USE_MAP ) || defined( USE_ALPHAMAP )
${HOLES_COVER}
#else
#include <alphatest_fragment>
#endif`,
      ),
  },
  relief: {
    fragment: (f) => after('normal_fragment_maps', RELIEF_ROUGHENS)(before(f, RELIEF_DECLARED)),
  },
  map: {
    fragment: (f) =>
      toned(f, 'mapTone', 'map_fragment', 'diffuseColor *= sampledDiffuseColor', 'sampledDiffuseColor'),
  },
  emissiveMap: {
    fragment: (f) =>
      toned(
        f,
        'emissiveMapTone',
        'emissivemap_fragment',
        'totalEmissiveRadiance *= emissiveColor.rgb',
        'emissiveColor',
      ),
  },
} satisfies Record<string, Patch>

/** Changes a picture's colours where it is read. */
function toned(
  f: string,
  tone: string,
  where: keyof typeof ShaderChunk,
  use: string,
  colour: string,
): string {
  const laid = `${colour}.rgb = saturate( ( ${tone} * vec4( ${colour}.rgb, 1.0 ) ).rgb );\n${use}`
  return before(f, `uniform mat4 ${tone};\n`).replace(`#include <${where}>`, chunk(where, [use, laid]))
}

/** Puts a change on a material with its numbers, or takes it off where there are none. */
function set(m: MeshPhysicalMaterial, name: PatchName, values: Record<string, unknown> | null): void {
  const applied = (m.userData['patches'] as Applied | undefined) ?? new Map<PatchName, Uniforms>()
  m.userData['patches'] = applied
  const known = applied.get(name)
  if (!values) {
    if (!applied.delete(name)) return
  } else if (known) {
    for (const [key, value] of Object.entries(values)) (known[key] as IUniform).value = value
    return
  } else {
    applied.set(name, Object.fromEntries(Object.entries(values).map(([k, value]) => [k, { value }])))
  }
  const names = [...applied.keys()].sort()
  m.customProgramCacheKey = () => names.join(' ')
  m.onBeforeCompile = (shader) => {
    for (const n of names) {
      const patch: Patch = PATCHES[n]
      Object.assign(shader.uniforms, applied.get(n))
      if (patch.vertex) shader.vertexShader = patch.vertex(shader.vertexShader)
      shader.fragmentShader = patch.fragment(shader.fragmentShader)
    }
  }
}

/** True for no picture, and for one that is read by one channel alone, as the renderer reads it by itself. */
function isChannel(n: Physical['beyond']['roughness'], channel: number): boolean {
  return !n || n.shares.every((share, i) => share === (i === channel ? 1 : 0))
}
function shares(n: Physical['beyond']['roughness']): Vector4 {
  const [r = 0, g = 0, b = 0, a = 0] = n?.shares ?? []
  return new Vector4(r, g, b, a)
}

/** Sets what glTF has no words for. */
export function setBeyond(m: MeshPhysicalMaterial, p: Physical): void {
  const b = p.beyond
  const curve = b.curve && {
    curveFacing: colour(b.curve.facing),
    curveEdge: colour(b.curve.edge),
    curveExponent: b.curve.exponent,
  }
  set(m, 'curve', curve ?? null)
  set(m, 'brushed', b.brushed && { brushedWidths: new Vector2(b.brushed.along, b.brushed.across) })
  set(m, 'holes', p.alphaMode === 'MASK' ? {} : null)
  if (b.fuzz && b.fuzz.reflects.length !== FUZZ_COSINES)
    throw new Error(`Fuzz is told at ${b.fuzz.reflects.length} cosines, not at ${FUZZ_COSINES}.`)
  set(
    m,
    'fuzz',
    b.fuzz && {
      fuzzWeight: b.fuzz.weight,
      fuzzReflects: b.fuzz.reflects,
      fuzzLetsInAll: b.fuzz.letsInAll,
    },
  )
  set(m, 'flakes', b.flakeWeight > 0 ? { flakeWeight: b.flakeWeight, flakeSize: b.flakeSize } : null)
  set(
    m,
    'below',
    b.below && {
      belowWeight: b.below.weight,
      belowColour: colour(b.below.colour),
      belowThrough: b.below.through,
    },
  )
  set(m, 'cutOut', b.cutOut ? { cutOutShares: shares(b.cutOut) } : null)
  set(m, 'rough', isChannel(b.roughness, 1) ? null : { roughShares: shares(b.roughness) })
  set(m, 'metal', isChannel(b.metalness, 2) ? null : { metalShares: shares(b.metalness) })
  const { coatIor, coatDarkening, coatReturns, coatBlurs, coatedFacing, coatedEdge } = b
  set(
    m,
    'coat',
    p.clearcoat > 0
      ? {
          coatIor,
          coatColor: colour(b.coatColor),
          coatDarkening,
          coatReturns,
          coatBlurs,
          coatedFacing,
          coatedEdge,
        }
      : null,
  )
}

/** Surroundings that it mirrors in the place of what is around, which is given beside them. */
export function setOwnReflection(
  m: MeshPhysicalMaterial,
  values: {
    aroundMap: Texture | null
    aroundTurn: Matrix3
    aroundStrength: number
    reflectedColour: number[]
  } | null,
): void {
  set(m, 'around', values && { ...values, reflectedColour: colour(values.reflectedColour) })
}

/** What years have made of it, over a part's resistances; new without them. */
export function setAge(m: MeshPhysicalMaterial, p: Physical, fields: Texture | null): void {
  const { ageing } = p.beyond
  const layers = ageing?.layers
  set(
    m,
    'age',
    ageing && layers && fields
      ? {
          ageFields: fields,
          ageNever: ageing.never,
          ageMiddle: ageing.middle,
          ageAmount: layers.map((l) => l.amount),
          ageSoftness: layers.map((l) => l.softness),
          ageSelf: layers.map((l) => l.self),
          ageGrey: layers.map((l) => l.grey),
          ageColour: layers.map((l) => colour(l.colour)),
          ageMottled: layers.map((l) => l.mottled),
          ageRoughness: layers.map((l) => l.roughness),
          ageMetalness: layers.map((l) => l.metalness),
        }
      : null,
  )
}

/** What of its relief is too fine to be seen; null without a picture of normals. */
export function setRelief(m: MeshPhysicalMaterial, relief: FineRelief | null): void {
  const coarsest = relief?.spreads.at(-1) ?? 0
  set(
    m,
    'relief',
    relief && {
      reliefSpreads: Array.from({ length: RELIEF_LEVELS }, (_, level) => relief.spreads[level] ?? coarsest),
      reliefPixels: new Vector2(relief.width, relief.height),
      reliefAlong: relief.along,
    },
  )
}

/** How the colours of a picture are changed: three rows of four. */
export function setTone(m: MeshPhysicalMaterial, slot: 'map' | 'emissiveMap', tone: number[] | null): void {
  const matrix = tone && new Matrix4().fromArray([...tone, 0, 0, 0, 1]).transpose()
  set(m, slot, matrix && { [`${slot}Tone`]: matrix })
}

function colour(rgb: number[]): Color {
  return new Color(rgb[0] ?? 0, rgb[1] ?? 0, rgb[2] ?? 0)
}
