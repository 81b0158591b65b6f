/** Sentences, names and figures in feet, inches and pounds. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inUnits } from '../../src/core/base/prose.js';
import { figureText, fromField, say, toField } from '../../src/core/base/units.js';
import { moneyText } from '../../src/core/base/locale.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import { ownCatalogue } from '../../src/core/plan/ownCatalogue.js';

const METRIC =
  /(?<![\w.])\d[\d.]*[ \u00a0](?:mm|cm|m|km|ha|kg|N|kN|kPa|°C|ohm m|kN\/m3)(?![\w²³/])/;

describe('quantities in words', () => {
  it.each([
    ['Steel, 1.8 m', 'Steel, 6 ft'],
    ['2.5 mm high-tensile wire, 1500 m coil', '0.098 in high-tensile wire, 4920 ft coil'],
    ['two at 550 and 900 mm hold', 'two at 21.5 and 35.5 in hold'],
    ['Four strands, 350 to 1100 mm', 'Four strands, 14 to 43.5 in'],
    ['200 x 100 mm', '8 x 4 in'],
    ['loam 30 to 100 ohm m', 'loam 100 to 330 ohm ft'],
    ['0.9 to 1.1 kN', '200 to 250 lbf'],
    ['at -10 °C', 'at 14 °F'],
    // What is the same in both, and what only looks like a quantity, stays.
    [
      '5 kV into 500 ohm, 3 J, 40 µs, 2 m² and 4 ms',
      '5 kV into 500 ohm, 3 J, 40 µs, 2 m² and 4 ms',
    ],
    ['Gate 12 may stay', 'Gate 12 may stay'],
    ['the 3 main lines', 'the 3 main lines'],
  ])('%s', (metric, imperial) => {
    expect(inUnits(metric, 'metric')).toBe(metric);
    expect(inUnits(metric, 'imperial')).toBe(imperial);
  });

  it('no name, reason or note of the catalogue keeps a metric quantity; its figures are the same', () => {
    const feet = ownCatalogue(catalogue, { overrides: {}, units: 'imperial' });
    const walk = (a: unknown, b: unknown, at: string): void => {
      if (typeof a === 'string') expect(b, at).not.toMatch(METRIC);
      else if (typeof a === 'object' && a !== null)
        for (const [k, v] of Object.entries(a)) walk(v, (b as Record<string, unknown>)[k], `${at}.${k}`); // prettier-ignore
      else expect(b, at).toBe(a);
    };
    walk(catalogue, feet, '');
    expect(ownCatalogue(catalogue, { overrides: {}, units: 'imperial' })).toBe(feet);
    expect(ownCatalogue(catalogue, { overrides: {} })).not.toBe(feet);
  });
});

describe('figures in feet', () => {
  it('the tape is read in feet and inches to the half, heights to the half inch', () => {
    expect(say(3.84, 'tape', 'imperial')).toBe('12′\u202f7″');
    expect(say(3.8481, 'tape', 'imperial')).toBe('12′\u202f7½″');
    // No twelve inches: they are a foot.
    expect(say(0.3047, 'tape', 'imperial')).toBe('1′\u202f0″');
    expect(say(-0.1, 'tape', 'imperial')).toBe('-0′\u202f4″');
    expect(say(0.13, 'height', 'imperial')).toBe('5.0\u00a0in');
    expect(say(0.365, 'height', 'imperial')).toBe('14.5\u00a0in');
  });

  it('what is shown may be typed, and what a field shows comes back', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 2000, noNaN: true }), (m) => {
        const read = fromField(figureText(m, 'tape', 'imperial').replace('\u202f', ' '), 'tape', 'imperial'); // prettier-ignore
        if (m < 300) expect(Math.abs(read - m)).toBeLessThanOrEqual(0.3048 / 48 + 1e-9);
        expect(Math.abs(fromField(toField(m, 'tape', 'imperial'), 'tape', 'imperial') - m)).toBeLessThan(0.001); // prettier-ignore
      }),
    );
    expect(fromField('12 ft 6 in', 'tape', 'imperial')).toBeCloseTo(3.81, 6);
    expect(fromField('12\' 6"', 'tape', 'imperial')).toBeCloseTo(3.81, 6);
    expect(fromField('12 ft 6 in', 'tape', 'metric')).toBeNaN();
  });

  it('numbers do not break, and money is written as they are, its sign where it stands at home', () => {
    expect(figureText(1234567, 'count', 'metric')).toBe('1\u202f234\u202f567');
    expect(moneyText(1234.5, 'GBP')).toBe('£1\u202f234.50');
    expect(moneyText(-1234.5, 'ZAR').replaceAll('\u00a0', ' ')).toBe('-R 1\u202f234.50');
    expect(moneyText(1234.5, 'USD', true)).toBe('$1\u202f235');
  });
});
