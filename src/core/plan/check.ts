/** What a schema cannot say of a plan: names that must point at something, order, room. */
import type { Catalogue } from './catalogue.js';
import { figureAt } from './catalogue.js';
import { planLength } from './geometry.js';
import type { Line, Plan, Strand } from './schema.js';

export interface Fault {
  /** JSON Pointer to the place. */
  readonly place: string;
  readonly reason: string;
}

/**
 * Faults of a plan that fits its schema; empty when it is sound.
 * @param gridIds ids of the grids that are at hand
 */
export function checkPlan(plan: Plan, cat: Catalogue, gridIds: ReadonlySet<string>): Fault[] {
  const out: Fault[] = [];
  const say = (place: string, reason: string) => out.push({ place, reason });
  const named = (table: object, key: string, place: string, what: string) => {
    if (!Object.hasOwn(table, key)) say(place, `no ${what} is called "${key}"`);
  };
  if (plan.ground.kind === 'grid' && !gridIds.has(plan.ground.id)) {
    say('/ground/id', `the ground grid "${plan.ground.id}" is missing`);
  }
  named(cat.soils, plan.soil, '/soil', 'soil');
  const { cold_C, today_C, hot_C } = plan.climate;
  if (!(cold_C <= today_C && today_C <= hot_C)) {
    say('/climate', 'today must lie between the coldest night and the hottest day');
  }
  for (const [key, line] of Object.entries(plan.lines)) {
    checkLine(key, line, cat, say, named);
    if (line.design !== undefined)
      named(plan.designs ?? {}, line.design, `/lines/${key}/design`, 'design');
  }
  for (const [key, design] of Object.entries(plan.designs ?? {})) {
    if (design.id !== key) say(`/designs/${key}/id`, 'differs from its key');
    checkStrands(design.strands, `/designs/${key}`, cat, say, named);
  }
  for (const [key, gate] of Object.entries(plan.gates)) {
    if (gate.id !== key) say(`/gates/${key}/id`, 'differs from its key');
    const line = Object.hasOwn(plan.lines, gate.line) ? plan.lines[gate.line] : undefined;
    if (!line) say(`/gates/${key}/line`, `no line is called "${gate.line}"`);
    else if (gate.at_m > planLength(line) + 1)
      say(`/gates/${key}/at_m`, 'lies beyond the end of its line');
  }
  for (const [key, thing] of Object.entries(plan.things ?? {})) {
    if (thing.id !== key) say(`/things/${key}/id`, 'differs from its key');
    if (thing.kind === 'soil' && thing.soil === undefined)
      say(`/things/${key}/soil`, 'a patch of soil names its soil');
    if (thing.soil !== undefined) named(cat.soils, thing.soil, `/things/${key}/soil`, 'soil');
  }
  for (const [key, paddock] of Object.entries(plan.paddocks ?? {})) {
    if (paddock.id !== key) say(`/paddocks/${key}/id`, 'differs from its key');
    for (const id of Object.keys(paddock.stock))
      named(cat.profiles, id, `/paddocks/${key}/stock/${id}`, 'profile');
  }
  for (const [key, e] of Object.entries(plan.energisers)) {
    if (e.id !== key) say(`/energisers/${key}/id`, 'differs from its key');
    if (e.line !== null) named(plan.lines, e.line, `/energisers/${key}/line`, 'line');
    named(cat.energisers, e.model, `/energisers/${key}/model`, 'energiser');
    if (e.rodSpacing_m <= e.rodDiameter_m)
      say(`/energisers/${key}/rodSpacing_m`, 'rods stand in one place');
  }
  for (const list of ['left', 'right', 'keepOut'] as const) {
    plan.newLines[list].forEach((id, i) =>
      named(cat.profiles, id, `/newLines/${list}/${i}`, 'profile'),
    );
  }
  if (plan.newLines.model !== undefined) {
    named(cat.energisers, plan.newLines.model, '/newLines/model', 'energiser');
  }
  for (const [path, { value }] of Object.entries(plan.overrides)) {
    const place = `/overrides/${path.replaceAll('~', '~0').replaceAll('/', '~1')}`;
    const usual = figureAt(cat, path);
    if (usual === undefined) say(place, 'no figure of the catalogue has this path');
    else if (!(value >= 0) || (value === 0 && !path.startsWith('prices.'))) {
      say(place, 'must be a number above 0');
    }
  }
  return out;
}

type Say = (place: string, reason: string) => void;
type Named = (table: object, key: string, place: string, what: string) => void;

function checkStrands(
  strands: readonly Strand[],
  at: string,
  cat: Catalogue,
  say: Say,
  named: Named,
): void {
  strands.forEach((s, i) => {
    named(cat.wires, s.wire, `${at}/strands/${i}/wire`, 'wire');
    const below = strands[i - 1];
    if (below && s.height_m - below.height_m < 0.01 - 1e-9) {
      say(`${at}/strands/${i}/height_m`, 'strands run from the ground up, 10 mm apart or more');
    }
  });
}

function checkLine(key: string, line: Line, cat: Catalogue, say: Say, named: Named): void {
  const at = `/lines/${key}`;
  if (line.id !== key) say(`${at}/id`, 'differs from its key');
  named(cat.posts, line.post, `${at}/post`, 'post');
  named(cat.schools, line.school, `${at}/school`, 'school of tension');
  for (const list of ['left', 'right', 'keepOut'] as const) {
    line[list].forEach((id, i) => named(cat.profiles, id, `${at}/${list}/${i}`, 'profile'));
  }
  checkStrands(line.strands, at, cat, say, named);
  for (const list of ['pins', 'placed'] as const) {
    (line[list] ?? []).forEach((p, i) => {
      if (p.kind !== null) named(cat.posts, p.kind, `${at}/${list}/${i}/kind`, 'post');
    });
  }
  for (const list of ['pins', 'placed', 'levels'] as const) {
    (line[list] ?? []).forEach((p, i) => {
      const before = line[list]![i - 1];
      if (before && !(p.at_m > before.at_m))
        say(`${at}/${list}/${i}/at_m`, 'places along a line rise from its start');
    });
  }
  const seen = new Set<string>();
  line.vertices.forEach((v, i) => {
    if (seen.has(v.id)) say(`${at}/vertices/${i}/id`, 'two vertices share this id');
    seen.add(v.id);
    const before = line.vertices[i - 1];
    if (before && Math.hypot(v.e - before.e, v.n - before.n) < 0.01) {
      say(`${at}/vertices/${i}`, 'lies on the vertex before it');
    }
  });
}
