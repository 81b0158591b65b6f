/** Where no placement exists: what each limit would have to become. */
import type { PlacementInputs } from './limits.js';
import { place } from './placement.js';

/** A limit that stands in the way, and the value at which a placement exists. */
export interface Loosening {
  readonly limit: 'hollow' | 'hump' | 'hold' | 'bay';
  readonly now: number;
  readonly needed: number;
}

/** For each limit, the least loosening that alone lets a placement through. */
export function loosenings(p: PlacementInputs): Loosening[] {
  const most = Math.max(...p.post_kinds.map((k) => k.pullout_capacity_N));
  const ways: {
    limit: Loosening['limit'];
    now: number;
    far: number;
    put(x: number): PlacementInputs;
  }[] = [
    {
      limit: 'hollow',
      now: p.clearance_max_m,
      far: p.clearance_max_m + 1.5,
      put: (x) => ({ ...p, clearance_max_m: x }),
    },
    {
      limit: 'hump',
      now: p.clearance_min_m,
      far: p.clearance_min_m - 1.5,
      put: (x) => ({ ...p, clearance_min_m: x }),
    },
    {
      limit: 'hold',
      now: most,
      far: most * 20,
      put: (x) => ({
        ...p,
        post_kinds: [...p.post_kinds, { name: 'stronger', price: 1e6, pullout_capacity_N: x }],
        musts: (p.musts ?? []).map((m) =>
          m.kind
            ? {
                ...m,
                kind: {
                  name: m.kind.name,
                  price: 0,
                  pullout_capacity_N: Math.max(x, m.kind.pullout_capacity_N),
                },
              }
            : m,
        ),
      }),
    },
    {
      limit: 'bay',
      now: p.max_spacing_m,
      far: p.max_spacing_m * 3,
      put: (x) => ({
        ...p,
        max_spacing_m: x,
        longest_m: (p.longest_m ?? []).map((l) => Math.max(l, x)),
      }),
    },
  ];
  return ways.flatMap(({ limit, now, far, put }) => {
    if (!place(put(far)).feasible) return [];
    let [no, yes] = [now, far];
    for (let k = 0; k < 8; k++) {
      const mid = (no + yes) / 2;
      if (place(put(mid)).feasible) yes = mid;
      else no = mid;
    }
    return [{ limit, now, needed: yes }];
  });
}
