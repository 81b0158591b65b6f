/** The colours of every scheme are told apart by whoever reads them; axe looks at one scheme of each view. */
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

const css = readFileSync('src/ui/styles.css', 'utf8');

/** Colour tokens of the rule with this selector. */
function tokens(selector: string): Record<string, string> {
  const start = css.indexOf(`\n${selector} {`);
  const body = css.slice(start, css.indexOf('}', start));
  return Object.fromEntries([...body.matchAll(/--(\w+): (#[0-9a-f]{6});/g)].map((m) => [m[1]!, m[2]!])); // prettier-ignore
}

/** Relative luminance [published: WCAG 2.2, sRGB]. */
function luminance(hex: string): number {
  const [r, g, b] = [1, 3, 5].map((i) => {
    const c = parseInt(hex.slice(i, i + 2), 16) / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}
/** Contrast ratio [published: WCAG 2.2]. */
function contrast(a: string, b: string): number {
  const [low, high] = [luminance(a), luminance(b)].sort((x, y) => x - y) as [number, number];
  return (high + 0.05) / (low + 0.05);
}

describe.each([':root', "[data-scheme='dark']", "[data-scheme='sun']"])('scheme %s', (selector) => {
  const own = tokens(selector);
  const words = ['ink', 'soft', 'live', 'earth', 'warn', 'good'];

  it.each(['sheet', 'panel', 'chosen'])('every word is read on %s: at least 4.5 to 1', (ground) => {
    for (const word of words)
      expect(contrast(own[word]!, own[ground]!), `${word} on ${ground}`).toBeGreaterThanOrEqual(
        4.5,
      );
  });

  it('what is reversed is read too, and the frame of the focus is seen: at least 3 to 1', () => {
    expect(contrast(own['sheet']!, own['ink']!)).toBeGreaterThanOrEqual(7);
    for (const ground of ['sheet', 'panel'])
      expect(contrast(own['earth']!, own[ground]!)).toBeGreaterThanOrEqual(3);
  });
});

it('the contrast of black on white is 21 to 1 [published: WCAG 2.2]', () => {
  expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 6);
  expect(contrast('#777777', '#ffffff')).toBeCloseTo(4.48, 2);
});
