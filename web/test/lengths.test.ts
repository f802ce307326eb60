import { describe, expect, it } from 'vitest'
import { areaText, lengthText, parseLength, weight } from '../src/panels/shared/lengths'

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

describe('areaText', () => {
  it.each([
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
