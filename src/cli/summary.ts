/** A report in a few lines of plain text. */
import { say, type Units } from '../core/base/units.js';
import type { Catalogue } from '../core/plan/catalogue.js';
import type { Report } from '../core/report/schema.js';

/** The report for a terminal: totals, volts by season, findings. */
export function summary(report: Report, units: Units, cat: Catalogue): string {
  const out = [
    `${report.plan}${report.invented ? ' (invented)' : ''}`,
    `  ${Object.keys(report.lines).length} lines, ${say(report.totals.ground_m, 'far', units)} over ground, ${say(report.totals.wire_m, 'far', units)} of wire, ${report.totals.posts} posts, ${report.totals.cost.toFixed(0)} ${report.currency}`,
  ];
  for (const e of Object.values(report.energisers)) {
    out.push(
      '',
      `Energiser ${e.id}: ${e.lines.length} lines, smallest that meets the aim: ${e.smallest ? cat.energisers[e.smallest]!.name : 'none'}`,
    );
    for (const [season, s] of Object.entries(e.seasons)) {
      const worst = s.worst
        ? `worst ${say(s.worst.v_V, 'volt', units)} (aim ${say(s.worst.aim_V, 'volt', units)}) on ${report.lines[s.worst.line]!.name} at ${say(s.worst.at_m, 'length', units)}`
        : 'nothing live';
      out.push(`  ${season.padEnd(6)} ${worst}; earth ${say(s.r_earth_ohm, 'ohm', units)}`);
    }
    const rods = e.earth.rodsNeeded ?? 'no number of';
    out.push(
      `  ${e.earth.rods} rods; ${rods} rods meet the earth test, which would rise to ${say(e.earth.test.rise_V, 'smallVolt', units)}`,
    );
  }
  out.push('', ...report.findings.map((f) => `  ${f.kind.padEnd(7)} ${f.title}. ${f.why}`));
  return out.join('\n');
}
