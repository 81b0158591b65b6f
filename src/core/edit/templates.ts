/** Ready shapes to begin a property with: lines and gates at a wanted area, stretched as needed. */
import type { Walk, Waypoint } from './bring.js';
import type { Point } from '../plan/schema.js';

export interface Template {
  readonly name: string;
  /** What it is good for. */
  readonly words: string;
  /** Area within its outer fence to begin with, m². */
  readonly area_m2: number;
  /** The shape at an area, m², about 0, 0 at its south-west corner. */
  readonly make: (area_m2: number) => { readonly lines: Walk[]; readonly places: Waypoint[] };
}

/** Width of a lane that stock and a trailer use, m. */
const LANE = 6;
const at = (e: number, n: number): Point => ({ e, n });
const line = (name: string, ...points: Point[]): Walk => ({ name, points });
const ring = (name: string, width: number, height: number): Walk =>
  line(name, at(0, 0), at(width, 0), at(width, height), at(0, height), at(0, 0));
const gate = (name: string, e: number, n: number): Waypoint => ({
  name,
  kind: 'gate',
  points: [at(e, n)],
  attributes: { width_m: 3.6 },
});

/** Sides of a rectangle of this area whose width is `times` its height, m. */
function sides(area_m2: number, times: number): [width: number, height: number] {
  const height = Math.sqrt(area_m2 / times);
  return [height * times, height];
}

export const TEMPLATES: Readonly<Record<string, Template>> = {
  paddock: {
    name: 'A paddock',
    words: 'One fence all round with a gate.',
    area_m2: 20_000,
    make(area) {
      const [w, h] = sides(area, 1.25);
      return { lines: [ring('Paddock fence', w, h)], places: [gate('Paddock gate', w * 0.3, 0)] };
    },
  },
  laneway: {
    name: 'A laneway with paddocks',
    words:
      'A lane through the middle, three paddocks on either side, a gate from the lane into each.',
    area_m2: 90_000,
    make(area) {
      const [w, h] = sides(area, 1.2);
      const [left, right] = [(w - LANE) / 2, (w + LANE) / 2];
      const rows = [h / 3, (2 * h) / 3];
      return {
        lines: [
          ring('Outer fence', w, h),
          line('Lane west', at(left, 0), at(left, h)),
          line('Lane east', at(right, 0), at(right, h)),
          ...rows.flatMap((n, i) => [
            line(`Cross west ${i + 1}`, at(0, n), at(left, n)),
            line(`Cross east ${i + 1}`, at(right, n), at(w, n)),
          ]),
        ],
        places: [
          gate('Lane gate', w / 2, 0),
          ...[0, ...rows].flatMap((n, i) => [
            gate(`Gate west ${i + 1}`, left, n + h / 6),
            gate(`Gate east ${i + 1}`, right, n + h / 6),
          ]),
        ],
      };
    },
  },
  boundary: {
    name: 'A boundary with a lane',
    words: 'The fence of a whole property, with a lane inside one side that leads to two paddocks.',
    area_m2: 160_000,
    make(area) {
      const [w, h] = sides(area, 1.4);
      return {
        lines: [
          { ...ring('Boundary', w, h), boundary: true },
          line('Lane fence', at(0, LANE), at(w, LANE)),
          line('Middle fence', at(w / 2, LANE), at(w / 2, h)),
        ],
        places: [
          gate('Lane gate', 0, LANE / 2),
          gate('West gate', w * 0.3, LANE),
          gate('East gate', w * 0.7, LANE),
        ],
      };
    },
  },
};
