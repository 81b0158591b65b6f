/** The files of a start, read together: which of them gives the place on the globe, and what the others are. */
import type { Grid, Plan, Point } from '../../core/plan/schema.js';
import { extent } from '../../core/terrain/ground.js';
import type { Walked } from '../../formats/walked.js';
import {
  importGround,
  importWalked,
  type GroundAnswer,
  type Said,
} from '../../ui/parts/imports.js';

export interface Files {
  readonly ground: File | null;
  readonly walks: readonly File[];
  readonly groundAs: Said;
  readonly walkAs: Said;
}

/** What the files hold, in one set of local metres, or why not. */
export interface Read {
  readonly origin: Plan['origin'] | null;
  readonly ground: GroundAnswer | null;
  readonly grid: Grid | null;
  readonly walked: Pick<Walked, 'lines' | 'places' | 'as'> | null;
  readonly groundFault?: string;
  readonly walkFault?: string;
}

export const NOTHING: Read = { origin: null, ground: null, grid: null, walked: null };

const wordsOf = (file: File, e: unknown) => `${file.name}: ${(e as Error).message}`;

/** Reads all files. A walk that lies on the globe says where the property is; else the ground does. */
export async function readFiles(files: Files): Promise<Read> {
  let out: Read = NOTHING;
  const first = await readWalks(files, null);
  const leads = first.walked !== null && first.walked.as.reference !== 'local';
  out = { ...out, ...first, origin: leads ? first.origin : null };
  if (files.ground)
    out = { ...out, ...(await readGround(files.ground, files.groundAs, out.origin)) };
  if (!leads && first.walked && out.origin)
    out = { ...out, ...(await readWalks(files, out.origin)) };
  return { ...out, origin: out.origin ?? first.origin };
}

async function readGround(file: File, as: Said, origin: Plan['origin'] | null) {
  try {
    const ground = await importGround(file, as, origin);
    const answer = await fetch(`/api/grids/${ground.id}`);
    if (!answer.ok) throw new Error('the server does not give the ground back');
    return { ground, grid: (await answer.json()) as Grid, origin: origin ?? ground.origin };
  } catch (e) {
    return { groundFault: wordsOf(file, e) };
  }
}

async function readWalks(files: Files, origin: Plan['origin'] | null) {
  let home = origin;
  let walked = null as Read['walked'];
  let walkFault: string | undefined;
  for (const file of files.walks) {
    try {
      const read = await importWalked(file, home, files.walkAs);
      home ??= read.origin;
      walked = {
        as: walked?.as ?? read.as,
        lines: [...(walked?.lines ?? []), ...read.lines],
        places: [...(walked?.places ?? []), ...read.places],
      };
    } catch (e) {
      walkFault = wordsOf(file, e);
    }
  }
  return { walked, origin: home, ...(walkFault ? { walkFault } : {}) };
}

/** How far a walk lies off the ground, m; 0 where any of it lies on it. */
export function offGround(grid: Grid, lines: readonly { points: readonly Point[] }[]): number {
  const [west, south, east, north] = extent(grid);
  let least = Infinity;
  for (const { e, n } of lines.flatMap((l) => l.points))
    least = Math.min(
      least,
      Math.hypot(Math.max(west - e, 0, e - east), Math.max(south - n, 0, n - north)),
    );
  return least === Infinity ? 0 : least;
}
