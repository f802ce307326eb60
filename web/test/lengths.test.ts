import { describe, expect, it } from 'vitest'
import { areaText, lengthSaid, lengthText, parseLength, weight } from '../src/panels/shared/lengths'

describe('parseLength', () => {
  it.each([
    ['5', 0.001, 0.005],
    ['600mm', 1, 0.6],
    ['1,5 m', 0.001, 1.5],
    ['12 in', 1, 0.3048],
    ['1/2 in', 1, 0.0127],
    ['2\'6"', 0.001, 0.762],
    ['-2 cm', 1, -0.02],
    ['-2\'6"', 1, -0.762],
  ])('reads %s', (text, unit, metres) => {
    expect(parseLength(text, unit)).toBeCloseTo(metres, 9)
  })
  it.each(['', 'wide', '5 miles', '1/0 in', '5 mm wide'])('refuses “%s”', (text) => {
    expect(parseLength(text, 1)).toBeNull()
  })
  it('reads what lengthText writes', () => {
    for (const metres of [0.0125, 1.2, 33.333])
      expect(parseLength(lengthText(metres, 'mm', 0.001, 3), 1)).toBeCloseTo(metres, 6)
  })
})

/** The same cases as in core's LengthTextTest: one rule, in both languages. */
describe('lengthSaid', () => {
  it.each([
    [0.0254, 'in', '1.00 in'],
    [0.01, 'in', '0.394 in'],
    [3.048, 'ft', '10.0 ft'],
    [0.6, 'mm', '600 mm'],
    [0.004, 'mm', '4.0 mm'],
    [0.6, 'cm', '60.0 cm'],
    [0.6, 'm', '0.60 m'],
    [12, 'mm', '12.0 m'],
  ])('writes %d m for somebody who works in %s', (metres, unit, text) => {
    expect(lengthSaid(metres, unit)).toBe(text)
  })
})

describe('areaText', () => {
  it.each([
    [0.5, 'm', '0.50 m²'],
    [0.00001, 'm', '10 mm²'],
    [1234, 'm', '1,234 m²'],
    [0.0704, 'm', '704 cm²'],
    [9.996, 'm', '10.00 m²'],
    [73.84, 'mm', '73.8 m²'],
    [141.2, 'm', '141 m²'],
    [0.09290304, 'ft', '1.0 ft²'],
    [0.00064516, 'in', '1 in²'],
  ])('writes %d m² for somebody who works in %s', (area, unit, text) => {
    expect(areaText(area, unit)).toBe(text)
  })
})

it('writes weights by the power of two', () => {
  expect([1, 2048, 3 * 2 ** 20].map(weight)).toEqual(['1 kB', '2 kB', '3.0 MB'])
})
