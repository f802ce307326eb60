import { ShaderChunk, ShaderLib, Vector3 } from 'three'
import type { Parted } from '../api/client'

const MOST_LAMPS = 12 // as core parts them

/*
 * What rough surfaces mirror. The renderer's prepared surroundings are those of a view along the normal: right for a soft
 * sky, but aslant a lobe is long and narrow, and a lamp shows that. So the rougher levels of prepared surroundings are
 * without their lamps (see surroundings.ts), and each lamp is added by the formula that the tracer's facets follow, in
 * five places of it (against the whole integral, over 160 views of narrow lobes: 0.5 to 1 L*; one place, made rougher by
 * the lamp's size: 1 to 3). The same lamps light matt bodies and fuzz.
 */

/**
 * Levels of prepared surroundings that have their lamps in them still: what is smooth shows their shapes. Of four, up to a
 * roughness of 0.13, and none at 0.29.
 */
export const SHARP_LEVELS = 2

const SHARED = {
  lampsAt: new Float32Array(4 * MOST_LAMPS),
  lampsGive: new Float32Array(3 * MOST_LAMPS),
  lampCount: new Float32Array(1),
}
for (const lib of [ShaderLib.physical, ShaderLib.standard])
  for (const [name, value] of Object.entries(SHARED)) Object.assign(lib.uniforms, { [name]: { value } }) // what is no plain array is shared, not copied

const UP = new Vector3(0, 1, 0)

/** The lamps that light all materials in the frames to come, with surroundings turned by an angle about the vertical. */
export function lightBy(lamps: Parted['lamps'], turn: number): void {
  const { lampsAt, lampsGive, lampCount } = SHARED
  lampCount[0] = lamps.length
  lamps.forEach(({ direction, light, spread }, i) => {
    const towards = new Vector3(...direction).applyAxisAngle(UP, turn)
    // the last number: as far as an even patch of that spread reaches
    lampsAt.set([...towards.toArray(), Math.sqrt(3 * spread) + 1e-4], 4 * i)
    lampsGive.set(light, 3 * i)
  })
}

ShaderChunk.common += `
// some direction across a normal
vec3 anyTangent( const in vec3 n ) {
  return normalize( abs( n.y ) < 0.9 ? cross( n, vec3( 0.0, 1.0, 0.0 ) ) : cross( n, vec3( 1.0, 0.0, 0.0 ) ) );
}
`

const LAMPS = `
uniform vec4 lampsAt[ ${MOST_LAMPS} ];
uniform vec3 lampsGive[ ${MOST_LAMPS} ];
uniform float lampCount[ 1 ];
#ifdef OWN_AROUND
  #define LAMP_STRENGTH aroundStrength
#else
  #define LAMP_STRENGTH envMapIntensity
#endif

// the cosine at which a patch shines on a surface, softly where it sinks below the horizon
float lampCosine( const in float cosine, const in float reach ) {
  return cosine > reach ? cosine : pow2( max( 0.0, cosine + reach ) ) / ( 4.0 * reach );
}

vec3 lampsOn( const in vec3 worldNormal ) {
  vec3 sum = vec3( 0.0 );
  for ( int i = 0; i < int( lampCount[ 0 ] ); i ++ ) {
    float cosine = lampCosine( dot( worldNormal, lampsAt[ i ].xyz ), lampsAt[ i ].w );
    #ifdef USE_SHEEN
      cosine *= fuzzLets( cosine ) / fuzzLetsInAll;
    #endif
    sum += cosine * lampsGive[ i ];
  }
  return sum;
}

// how many facets lie so, for light between two directions, as a share of what GGX has
float facetsLie( const in vec2 slope, const in vec2 alpha2, const in float doubled2, const in float up ) {
  return inversesqrt( alpha2.x * alpha2.y ) * RECIPROCAL_PI
    * pow2( doubled2 / ( slope.x * slope.x / alpha2.x + slope.y * slope.y / alpha2.y + up * up ) );
}

// As radiance that is the same from everywhere and would be mirrored as much: GGX, alpha along the tangent and across;
// f0 and f90 of the surface, and what shares of light from all around they mirror.
vec3 lampsMirrored( const in vec3 v, const in vec3 n, const in vec3 tangent, const in vec2 alpha, const in vec3 f0, const in vec3 f90, const in vec2 shares ) {
  vec3 across = cross( n, tangent );
  float nv = clamp( dot( n, v ), 0.02, 1.0 );
  vec2 tv = vec2( dot( tangent, v ), dot( across, v ) );
  float seen = length( vec3( alpha * tv, nv ) );
  vec2 alpha2 = alpha * alpha;
  vec3 facing = vec3( 0.0 );
  vec3 edge = vec3( 0.0 );
  for ( int i = 0; i < int( lampCount[ 0 ] ); i ++ ) {
    vec3 l = lampsAt[ i ].xyz;
    float reach = lampsAt[ i ].w;
    float nl = lampCosine( dot( n, l ), reach );
    if ( nl > 0.0 ) {
      vec2 tl = vec2( dot( tangent, l ), dot( across, l ) );
      float doubled = sqrt( max( 2.0 + 2.0 * dot( v, l ), 1e-4 ) ); // twice the cosine between either and the facet
      float doubled2 = doubled * doubled;
      vec2 slope = tv + tl;
      // five places of the patch as the surface sees it, with its mean and variance: shorter towards the surface
      vec2 beside = reach * vec2( -tl.y, tl.x ) / max( length( tl ), 1e-4 );
      vec2 beyond = nl * vec2( beside.y, -beside.x );
      float density = facetsLie( slope, alpha2, doubled2, nv + nl ) / 3.0
        + ( facetsLie( slope + beside, alpha2, doubled2, nv + nl ) + facetsLie( slope - beside, alpha2, doubled2, nv + nl )
          + facetsLie( slope + beyond, alpha2, doubled2, nv + nl ) + facetsLie( slope - beyond, alpha2, doubled2, nv + nl ) ) / 6.0;
      float lit = sqrt( dot( alpha2, tl * tl ) + nl * nl );
      float mirrored = density * nl * 0.5 / ( nl * seen + nv * lit );
      float rim = mirrored * lampRim( max( 1.0 - 0.5 * doubled, 0.0 ) );
      facing += ( mirrored - rim ) * lampsGive[ i ];
      edge += rim * lampsGive[ i ];
    }
  }
  return ( f0 * facing + f90 * edge ) / max( f0 * shares.x + f90 * shares.y, vec3( 1e-5 ) );
}

// how much of what is mirrored from lamps isn't in the prepared surroundings at some roughness
float lampShare( const in float roughness ) {
  return clamp( roughnessToMip( roughness ) - ${SHARP_LEVELS - 1}.0, 0.0, 1.0 );
}

// the roughness to look up what is brushed at: without lamps where its streaks are rough, since these come by formula
float lampless( const in float along, const in float streaks ) {
  #ifdef OWN_AROUND
    return along; // has its lamps in it at every roughness
  #else
    float level = roughnessToMip( along );
    level = max( level, mix( level, ${SHARP_LEVELS}.0, lampShare( streaks ) ) );
    return lampCount[ 0 ] > 0.0 ? 1.0 - sqrt( 1.0 - level / ENVMAP_MAX_LOD ) : along;
  #endif
}
`
/*
 * What is brushed mirrors a long stripe: two facets along it, each as rough as those across and a little for what lies
 * between them, and what is seen in them by how much of them is seen and lit (Smith). Against the whole integral the
 * error is a fifth of a single look's along a normal bent towards the viewer, which is the renderer's own.
 */
const BRUSHED_LOOKS = `
#ifdef USE_ANISOTROPY
float brushedRoughness( const in vec2 alpha ) {
  return lampless( sqrt( length( alpha * vec2( 0.15, 1.0 ) ) ), sqrt( alpha.x ) );
}
// 1 and Smith's Lambda
float brushedHidden( const in vec3 d, const in vec3 normal, const in vec3 tangent, const in vec3 bitangent, const in vec2 alpha ) {
  float up = max( dot( normal, d ), 0.02 );
  return 0.5 + 0.5 * length( vec3( alpha * vec2( dot( tangent, d ), dot( bitangent, d ) ), up ) ) / up;
}
vec3 brushedLooks( const in vec3 v, const in vec3 normal, const in vec3 tangent, const in vec3 bitangent, const in vec2 alpha ) {
  float roughness = brushedRoughness( alpha );
  float seen = brushedHidden( v, normal, tangent, bitangent, alpha );
  vec4 sum = vec4( 0.0 );
  for ( int side = -1; side <= 1; side += 2 ) {
    vec3 facet = normalize( normal + float( side ) * 0.577 * alpha.x * tangent ); // the middle of either half of them
    float turned = dot( facet, v );
    vec3 l = 2.0 * turned * facet - v;
    if ( turned > 0.0 && dot( l, normal ) > 0.0 ) {
      float weight = turned / dot( facet, normal ) * seen / ( seen + brushedHidden( l, normal, tangent, bitangent, alpha ) - 1.0 );
      sum += weight * vec4( getIBLRadiance( v, facet, roughness ), 1.0 );
    }
  }
  return sum.w > 0.0 ? sum.rgb / sum.w : getIBLRadiance( v, normal, roughness );
}
#endif
`

// what is around a direction, blurred; a parameter of that name so that it is followed where a surface mirrors its own
const AROUND = `
vec3 seenAround( const in vec3 worldNormal, const in float level ) {
  return textureLod( envMap, envMapRotation * worldNormal, level ).rgb;
}
`
const RIM = `
float lampRim( const in float away ) {
  #ifdef CURVED
    return pow( clamp( away, 1e-4, 1.0 ), curveExponent );
  #else
    return away * pow2( pow2( away ) );
  #endif
}
`

type Edited = 'envmap_physical_pars_fragment' | 'lights_fragment_maps' | 'lights_physical_pars_fragment'

function edit(name: Edited, from: string, to: string): void {
  if (!ShaderChunk[name].includes(from)) throw new Error(`The renderer's ${name} has changed: ${from}`)
  ShaderChunk[name] = ShaderChunk[name].replaceAll(from, to)
}

edit(
  'envmap_physical_pars_fragment',
  'PI * envMapColor.rgb * envMapIntensity',
  '( PI * envMapColor.rgb + lampsOn( worldNormal ) ) * LAMP_STRENGTH',
)
ShaderChunk.envmap_physical_pars_fragment = `
#ifdef USE_ENVMAP
${RIM + LAMPS}
#endif
${ShaderChunk.envmap_physical_pars_fragment}
#ifdef USE_ENVMAP
${AROUND + BRUSHED_LOOKS}
#endif`

edit(
  'lights_fragment_maps',
  'getIBLAnisotropyRadiance( geometryViewDir, geometryNormal, material.roughness, material.anisotropyB, material.anisotropy )',
  'brushedLooks( geometryViewDir, geometryNormal, material.anisotropyT, material.anisotropyB, vec2( material.alphaT, pow2( material.roughness ) ) )',
)
edit(
  'lights_fragment_maps',
  'radiance += iblRadiance;',
  `
    radiance += iblRadiance;
    vec3 lampView = transformDirectionByInverseViewMatrix( geometryViewDir, viewMatrix );
    #ifndef OWN_AROUND
    {
      vec3 n = transformNormalByInverseViewMatrix( geometryNormal, viewMatrix );
      vec2 alpha = vec2( pow2( material.roughness ) );
      float share = lampShare( material.roughness );
      #ifdef USE_ANISOTROPY
        vec3 tangent = transformDirectionByInverseViewMatrix( material.anisotropyT, viewMatrix );
        tangent = normalize( tangent - n * dot( n, tangent ) );
        alpha.x = material.alphaT;
        share = lampShare( brushedRoughness( alpha ) );
      #else
        vec3 tangent = anyTangent( n );
      #endif
      if ( share > 0.0 ) radiance += envMapIntensity * share * lampsMirrored( lampView, n, tangent, alpha, material.specularColorBlended, vec3( material.specularF90 ), material.dfg );
    }
    #endif
  `,
)
edit(
  'lights_fragment_maps',
  'clearcoatRadiance += getIBLRadiance( geometryViewDir, geometryClearcoatNormal, material.clearcoatRoughness );',
  `
    clearcoatRadiance += getIBLRadiance( geometryViewDir, geometryClearcoatNormal, material.clearcoatRoughness );
    #ifndef OWN_AROUND
    {
      float share = lampShare( material.clearcoatRoughness );
      if ( share > 0.0 ) {
        vec2 shares = texture2D( dfgLUT, vec2( material.clearcoatRoughness, saturate( dot( geometryClearcoatNormal, geometryViewDir ) ) ) ).rg;
        vec3 n = transformNormalByInverseViewMatrix( geometryClearcoatNormal, viewMatrix );
        clearcoatRadiance += envMapIntensity * share * lampsMirrored( lampView, n, anyTangent( n ), vec2( pow2( material.clearcoatRoughness ) ), material.clearcoatF0, vec3( material.clearcoatF90 ), shares );
      }
    }
    #endif
  `,
)

/*
 * Fuzz (declared by its change of the shader, see shading.ts) sends back most of what comes in aslant, above all from the
 * viewer's side. The renderer takes light as if it came alike from everywhere, and from a curve that is half of what fibres
 * send back. How much they do comes from core. Lamps are weighed by the formula itself; the rest by four blurred looks aslant, whose weights are fitted, over α of the fibres, to 200
 * views in all supplied surroundings: for α 0.5 they are 11 % from the whole integral, 40 % without.
 */
edit(
  'lights_physical_pars_fragment',
  'IBLSheenBRDF( geometryNormal, geometryViewDir, material.sheenRoughness )',
  'fuzzSends( dot( geometryNormal, geometryViewDir ) )',
)
edit(
  'lights_physical_pars_fragment',
  '1.0 - max3( material.sheenColor ) * sheenAlbedo;',
  'fuzzLetsBoth( geometryNormal, geometryViewDir );',
)
ShaderChunk.lights_fragment_end += `
#if defined( USE_SHEEN ) && defined( USE_ENVMAP ) && defined( RE_IndirectSpecular )
{
  vec3 n = transformNormalByInverseViewMatrix( geometryNormal, viewMatrix );
  vec3 v = transformDirectionByInverseViewMatrix( geometryViewDir, viewMatrix );
  float nv = dot( n, v );
  vec3 side = v - n * nv;
  float aslant = length( side );
  vec3 forth = aslant > 1e-4 ? side / aslant : anyTangent( n );
  vec3 across = cross( n, forth );
  float level = roughnessToMip( 0.5 );
  vec3 up = 0.5736 * n; // 55 degrees away
  vec3 near = seenAround( up + 0.8192 * forth, level );
  vec3 far = seenAround( up - 0.8192 * forth, level );
  vec3 ring = 0.25 * ( near + far + seenAround( up + 0.8192 * across, level ) + seenAround( up - 0.8192 * across, level ) );
  float narrow = 1.0 / max( pow2( material.sheenRoughness ), 0.15 );
  vec3 rest = ( 0.538 + 0.102 * narrow ) * ( ring - seenAround( n, ENVMAP_MAX_LOD ) )
    + aslant * ( 0.137 - 0.086 * narrow + nv * ( 0.081 * narrow - 0.58 ) ) * ( far - near );
  vec3 fuzz = fuzzSends( nv ) * material.sheenColor * ( rest - RECIPROCAL_PI * lampsOn( n ) );
  for ( int i = 0; i < int( lampCount[ 0 ] ); i ++ ) {
    float nl = dot( n, lampsAt[ i ].xyz );
    if ( nl > 0.0 ) fuzz += nl * lampsGive[ i ] * BRDF_Sheen( lampsAt[ i ].xyz, v, n, material.sheenColor, material.sheenRoughness );
  }
  sheenSpecularIndirect = max( sheenSpecularIndirect + fuzz * LAMP_STRENGTH, vec3( 0.0 ) );
}
#endif
`

/*
 * A rough matt body sends more back to where light comes from (Oren and Nayar; EON, Portsmouth, Kutz and Hill 2025). The
 * renderer reckons with its whole albedo, as if light came alike from everywhere. Lamps are weighed by the formula itself.
 * Of the rest, what comes from the viewer's side and what from the other is told by two blurred looks; where they are and
 * their weight are fitted to 150 views in all supplied surroundings: 7 % from the whole integral, 21 % without.
 */
ShaderChunk.lights_fragment_end += `
#if defined( USE_DIFFUSE_ROUGHNESS ) && defined( USE_ENVMAP ) && defined( RE_IndirectSpecular )
{
  vec3 n = transformNormalByInverseViewMatrix( geometryNormal, viewMatrix );
  vec3 v = transformDirectionByInverseViewMatrix( geometryViewDir, viewMatrix );
  float nv = saturate( dot( n, v ) );
  vec3 side = v - n * dot( n, v );
  vec3 lean = 0.4226 * side / max( length( side ), 1e-4 ); // 25 degrees
  float level = roughnessToMip( 0.75 );
  vec3 back = 0.606 * length( side ) * ( seenAround( 0.9063 * n + lean, level ) - seenAround( 0.9063 * n - lean, level ) );
  float even = FON_DirectionalAlbedo( nv, 1.0, 1.0 ) - 1.0; // what the whole albedo has of it already
  for ( int i = 0; i < int( lampCount[ 0 ] ); i ++ ) {
    vec3 l = lampsAt[ i ].xyz;
    float nl = lampCosine( dot( n, l ), lampsAt[ i ].w );
    float s = dot( l, v ) - nl * nv;
    back += nl * RECIPROCAL_PI * ( ( s > 0.0 ? s / max( max( nl, nv ), 1e-4 ) : s ) - even ) * lampsGive[ i ];
  }
  vec3 once = vec3( 0.0 );
  vec3 often = vec3( 0.0 );
  computeMultiscattering( material.dfg, material.specularColor, material.specularF90, once, often );
  back *= LAMP_STRENGTH * material.diffuseRoughness / ( 1.0 + ( 0.5 - 2.0 / ( 3.0 * PI ) ) * material.diffuseRoughness )
    * material.diffuseColor * ( 1.0 - material.metalness ) * ( 1.0 - once - often );
  #ifdef USE_SHEEN
    back *= fuzzLetsBoth( geometryNormal, geometryViewDir );
  #endif
  reflectedLight.indirectDiffuse = max( reflectedLight.indirectDiffuse + back, vec3( 0.0 ) );
}
#endif
`
