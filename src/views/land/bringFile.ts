/** A file brought into the open property: lines wait to be reviewed, heights become its ground. */
import { changeGround, useSession } from '../../session/session.js';
import {
  importGround,
  importWalked,
  kindOfFile,
  type Guess,
  type Said,
} from '../../ui/parts/imports.js';
import { isBare } from './bare.js';
import { wait } from './waiting.js';

/** Reads lines and places; they wait to be reviewed. */
export async function bringWalk(file: File): Promise<void> {
  const { plan } = useSession.getState();
  // An empty property has no place yet: it lies where its first walk does.
  const begins = isBare();
  const { lines, places, origin } = await importWalked(file, begins ? null : plan.origin);
  wait({ from: file.name, lines, places, ...(begins ? { origin } : {}) });
}

/** Reads heights and puts them under the property; says what was read, and as what. */
export async function bringGround(file: File, said: Said): Promise<{ words: string; as: Guess }> {
  const ground = await importGround(file, said, useSession.getState().plan.origin);
  await changeGround({ kind: 'grid', id: ground.id }, `ground from ${file.name}`.slice(0, 180));
  return {
    words: `${ground.cols} × ${ground.rows} heights, taken as ${ground.as.words}.`,
    as: ground.as,
  };
}

/** Files that were dropped on the map, one after another; what came of the last, or why not. */
export async function bringDropped(files: readonly File[]): Promise<string> {
  let said = '';
  for (const file of files) {
    try {
      const kind = await kindOfFile(file);
      if (kind === null) throw new Error('neither heights nor lines that are read here');
      if (kind === 'walk') await bringWalk(file);
      else said = (await bringGround(file, 'guess')).words;
    } catch (e) {
      throw new Error(`${file.name}: ${(e as Error).message}`, { cause: e });
    }
  }
  return said;
}
