/** Claims of speed as the bench reads them: each script says its own beside its words, and `bench.mjs` puts all into one table. */

const MARK = 'claim: ';

/**
 * Says a claim and what was measured.
 * @param claim [most: number, unit: string] the figure is at most this; a negative one: at least its size
 */
export function claimed(what, [most, unit], figure) {
  console.log(MARK + JSON.stringify({ what, most, unit, figure }));
}

/** The claims in what a script printed. */
export const claimsIn = (text) =>
  text
    .split('\n')
    .filter((line) => line.startsWith(MARK))
    .map((line) => JSON.parse(line.slice(MARK.length)));

const shown = (x, unit) => `${Math.abs(x) < 10 ? x.toFixed(2) : Math.round(x)} ${unit}`;

/** The one in the middle of some figures. */
export const middle = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];

/** The rest of what it printed. */
export const wordsIn = (text) =>
  text
    .split('\n')
    .filter((line) => line && !line.startsWith(MARK))
    .join('\n');

/** One table of all claims: what, claim, figure, and a word where it is not kept. */
export function table(claims) {
  const rows = claims.map(({ what, most, unit, figure }) => {
    const kept = most < 0 ? figure >= -most : figure <= most;
    const claim = `${most < 0 ? 'at least' : 'at most'} ${shown(Math.abs(most), unit)}`;
    return [what, claim, shown(figure, unit), kept ? 'kept' : 'NOT KEPT'];
  });
  const head = ['what', 'claim', 'measured', ''];
  const width = head.map((h, i) => Math.max(h.length, ...rows.map((r) => r[i].length)));
  const line = (cells) => `| ${cells.map((c, i) => c.padEnd(width[i])).join(' | ')} |`;
  return [line(head), line(width.map((w) => '-'.repeat(w))), ...rows.map(line)].join('\n');
}
