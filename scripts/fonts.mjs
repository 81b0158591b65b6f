/**
 * Cuts the variable letters to what the program uses of them: the widths and weights of its styles, the characters that its
 * style sheet names. Run when those change; what it writes is kept in src/ui/fonts.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import subset from 'subset-font';

const styles = readFileSync('src/ui/styles.css', 'utf8');
const [, ranges] = /unicode-range:([^;]+);/.exec(styles);
const characters = ranges
  .split(',')
  .map((range) => range.trim().replace('U+', '').split('-').map((code) => parseInt(code, 16)))
  .flatMap(([from, to = from]) => Array.from({ length: to - from + 1 }, (_, k) => from + k))
  .map((code) => String.fromCodePoint(code))
  .join(''); // prettier-ignore
const whole = readFileSync('node_modules/@fontsource-variable/archivo/files/archivo-latin-wdth-normal.woff2'); // prettier-ignore
const cut = await subset(whole, characters, {
  targetFormat: 'woff2',
  variationAxes: { wdth: { min: 66, max: 100 }, wght: { min: 400, max: 700 } },
});
writeFileSync('src/ui/fonts/archivo.woff2', cut);
console.log(`${whole.length} bytes, cut to ${cut.length}`);
