/** The lower edge of a fence: its lowest strand, or the foot of a woven panel. */
import { figure, recordOf, type Catalogue } from '../plan/catalogue.js';
import type { Strand } from '../plan/schema.js';

/** A woven panel stands on the ground: its height is that of its top. */
export const isPanel = (strand: Pick<Strand, 'wire'>, cat: Catalogue): boolean =>
  recordOf(cat.wires, strand.wire).form === 'panel';

export const isBarbed = (strand: Pick<Strand, 'wire'>, cat: Catalogue): boolean =>
  recordOf(cat.wires, strand.wire).form === 'barbed';

/** The place of the highest woven panel among strands from the ground up; -1 without one. */
export const panelAt = (strands: readonly Strand[], cat: Catalogue): number =>
  strands.findLastIndex((s) => isPanel(s, cat));

/** Height of the lower edge over ground in metres, and the wire it is of; null without strands. */
export function bottomOf(
  strands: readonly Strand[],
  cat: Catalogue,
): { readonly height_m: number; readonly wire: string } | null {
  const panel = strands.find((s) => isPanel(s, cat));
  if (panel) return { height_m: figure(cat, 'strands.panelGround'), wire: panel.wire };
  return strands[0] ?? null;
}
