/** How a post is set in its hole: which way is advised here, and what it takes. */
import { figure, type Catalogue, type PostKind, type Soil } from '../plan/catalogue.js';
import type { EndReport } from '../report/schema.js';
import { widthOf } from './materials.js';

export type SettingId = EndReport['setting'];

/** What decides how a post is set. */
export interface SetIn {
  readonly soil: Soil;
  /** Of steel, or of timber. */
  readonly steel: boolean;
  /** How deep the ground freezes, m. */
  readonly frost_m: number;
  readonly noDriver: boolean;
}

export type SetReason = 'drives' | 'stony' | 'shrinks' | 'drains' | 'steel';

/** The way that is advised, and why. */
export function settingFor({ soil, steel, noDriver }: Omit<SetIn, 'frost_m'>): {
  readonly setting: SettingId;
  readonly reason: SetReason;
} {
  if (soil.drives && !noDriver && !steel) return { setting: 'driven', reason: 'drives' };
  // A tube stands in concrete; where the ground would shrink away from that, it is driven, or set in gravel.
  if (steel && soil.shrinks)
    return noDriver
      ? { setting: 'gravel', reason: 'shrinks' }
      : { setting: 'driven', reason: 'drives' };
  if (steel) return { setting: 'concrete', reason: 'steel' };
  if (!soil.drives && !noDriver) return { setting: 'wet', reason: 'stony' };
  if (soil.shrinks) return { setting: 'gravel', reason: 'shrinks' };
  return { setting: 'tamped', reason: 'drains' };
}

/** What speaks against a way of setting here, each a reason of its own. */
export type Doubt = 'timber' | 'shrinks' | 'stones' | 'noDriver' | 'frost' | 'wanders';

export function doubtsOf(
  setting: SettingId,
  { soil, steel, frost_m, noDriver }: SetIn,
  depth_m: number,
): Doubt[] {
  const out: Doubt[] = [];
  if (setting === 'concrete' && !steel) out.push('timber');
  if (setting === 'concrete' && soil.shrinks) out.push('shrinks');
  if (setting === 'driven' && !soil.drives) out.push('stones');
  if ((setting === 'driven' || setting === 'wet') && noDriver) out.push('noDriver');
  if (setting === 'gravel' && soil.su_Pa === 0 && soil.drives) out.push('wanders');
  if (frost_m > depth_m) out.push('frost');
  return out;
}

/** What one hole takes. */
export interface Fill {
  /** Room round the post that is filled, litres. */
  readonly litres: number;
  /** Bags of mix, tonnes of gravel. */
  readonly bags: number;
  readonly gravel_t: number;
}

/**
 * What goes into the hole of one post. Concrete stops below the surface round timber; a wet mix fills the upper two
 * thirds, half of it spoil; tamped, all that came out goes back.
 */
export function fillOf(setting: SettingId, kind: PostKind, depth_m: number, cat: Catalogue): Fill {
  const { room_m } = cat.settings[setting]!;
  const [d, D] = [widthOf(kind), widthOf(kind) + 2 * room_m];
  const steel = kind.conducts;
  const topless = setting === 'concrete' && !steel ? figure(cat, 'ends.topBelow') : 0;
  const filled = setting === 'wet' ? (depth_m * 2) / 3 : Math.max(0, depth_m - topless);
  const litres = ((Math.PI * (D * D - d * d)) / 4) * filled * 1000;
  const mix = setting === 'concrete' ? litres : setting === 'wet' ? litres / 2 : 0;
  return {
    litres,
    bags: mix / figure(cat, 'ends.bag'),
    gravel_t: setting === 'gravel' ? (litres / 1000) * figure(cat, 'ends.gravelDensity') : 0,
  };
}
