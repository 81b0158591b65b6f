import { figure } from '../../../plan/catalogue.js';
import { legIndexOf, segmentsApart } from '../../../plan/legIndex.js';
import { stations } from '../../../plan/geometry.js';
import { offThing, thingsOf } from '../../../land/things.js';
import { onLine, type Found, type Rule } from '../../../findings/rule.js';

const ANNEX = 'IEC 60335-2-76, annexes; figure from memory, confirm locally';

/** Fences of two energisers that can be touched together. */
export const networksClose: Rule = {
  id: 'networks-close',
  cause: 'Two networks close together',
  step: 'land',
  kind: 'stop',
  whole: true,
  source: { mark: 'published', text: ANNEX },
  check: (scene) => {
    const units = Object.values(scene.energisers);
    if (units.length < 2) return [];
    const least = figure(scene.cat, 'land.networksApart');
    const unitOf = new Map(units.flatMap((u) => u.lines.map((l) => [l, u.id] as const)));
    const index = legIndexOf(scene.plan.lines);
    const seen = new Set<string>();
    return Object.values(scene.plan.lines).flatMap((line): Found[] => {
      const own = unitOf.get(line.id);
      if (own === undefined) return [];
      const at = stations(line.vertices);
      for (let i = 0; i + 1 < line.vertices.length; i++) {
        const [a, b] = [line.vertices[i]!, line.vertices[i + 1]!];
        const [w, e] = [Math.min(a.e, b.e) - least, Math.max(a.e, b.e) + least];
        const [s, n] = [Math.min(a.n, b.n) - least, Math.max(a.n, b.n) + least];
        for (const [id, leg] of index.within(w, s, e, n)) {
          const other = unitOf.get(id);
          if (other === undefined || other === own) continue;
          const pair = [line.id, id].sort().join('-');
          if (seen.has(pair)) continue;
          const { name, vertices } = scene.plan.lines[id]!;
          const apart = segmentsApart(a, b, vertices[leg]!, vertices[leg + 1]!);
          if (apart >= least) continue;
          seen.add(pair);
          return [
            {
              key: pair,
              title: `${line.name} and ${name} too close`,
              why: `They hang on two energisers and come within ${scene.say.metres(apart)} of one another after ${scene.where(line.id, at[i]!)}: who touches both gets both pulses. At least ${scene.say.metres(least)} are wanted.`,
              todo: 'Move one of them, and close the space with something that does not conduct.',
              place: onLine(line, at[i]!, at[i + 1]!),
            },
          ];
        }
      }
      return [];
    });
  },
};

/** Rods near the earth of a supply, a telephone or another energiser. */
export const earthNear: Rule = {
  id: 'earth-near',
  cause: 'Earth near another earth',
  step: 'power',
  kind: 'stop',
  whole: true,
  source: { mark: 'published', text: ANNEX },
  check: (scene) => {
    const least = figure(scene.cat, 'land.earthsApart');
    const earths = thingsOf(scene.plan, 'building', 'mains').filter(
      (t) => t.kind === 'mains' || t.earthed,
    );
    const units = Object.values(scene.plan.energisers);
    return units.flatMap((e): Found[] => {
      const others = [
        ...earths.map((t) => ({ name: t.name, off: offThing(t, e) })),
        ...units
          .filter((o) => o.id !== e.id)
          .map((o) => ({ name: o.name, off: Math.hypot(o.e - e.e, o.n - e.n) })),
      ].filter((o) => o.off < least);
      if (others.length === 0) return [];
      const near = others.reduce((a, b) => (b.off < a.off ? b : a));
      return [
        {
          key: e.id,
          title: `Earth of ${e.name} near ${near.name}`,
          why: `They are ${scene.say.metres(near.off)} apart as drawn; the fence earth stands ${scene.say.metres(least)} or more from supply, telephone and other earths, or the pulse comes into them.`,
          todo: 'Lead the earth wire away in conduit and set the rods further off; draw the unit where its rods stand. Ask the electrician.',
          place: { e: e.e, n: e.n },
        },
      ];
    });
  },
};

/** A mains unit away from any supply point. */
export const mainsFar: Rule = {
  id: 'mains-far',
  cause: 'Unit far from the mains',
  step: 'power',
  kind: 'confirm',
  whole: true,
  source: { mark: 'assumed', text: 'A mains unit stands under cover near its supply point' },
  check: (scene) => {
    const points = thingsOf(scene.plan, 'mains');
    if (points.length === 0) return [];
    const reach = figure(scene.cat, 'land.mainsReach');
    return Object.values(scene.plan.energisers).flatMap((e): Found[] => {
      if (scene.cat.energisers[e.model]?.supply !== 'mains') return [];
      const off = Math.min(...points.map((t) => offThing(t, e)));
      if (off <= reach) return [];
      return [
        {
          key: e.id,
          title: `${e.name} is far from the mains`,
          why: `The nearest supply point is ${scene.say.metres(off)} away; over ${scene.say.metres(reach)} the cable and its work cost more than a lead-out.`,
          todo: 'Stand it near the supply and lead out, or take a battery or solar unit. Mains work is for a licensed electrician.',
          place: { e: e.e, n: e.n },
        },
      ];
    });
  },
};
