/** The unit behind an energiser: the plate that it goes by, and the circuit that has such a plate. */
import { figure, recordOf, type Catalogue, type EnergiserModel } from '../plan/catalogue.js';
import type { Energiser } from '../plan/schema.js';
import { energiserModel, into, MOST_CHI2, peakInto, type PlateFit } from '../pulse/plate.js';
import { loadLine, type LoadLine } from './loadLine.js';

/** A plate as the catalogue or the property gives it; what it does not say is left out. */
export type UnitPlate = Pick<
  EnergiserModel,
  'supply' | 'stored_J' | 'output_J' | 'open_V' | 'at500_V' | 'interval_s'
> &
  Partial<Pick<EnergiserModel, 'at200_V' | 'at100_V' | 'at50_V'>> & {
    /** When the peak comes into 500 ohm, microseconds. */
    readonly rise_us?: number;
  };

/** The plate of an energiser: its own where one was typed in, else that of its model. */
export const plateOfUnit = (e: Pick<Energiser, 'model' | 'plate'>, cat: Catalogue): UnitPlate =>
  e.plate ?? recordOf(cat.energisers, e.model);

/** Units that may be proposed, the weakest first: sold, within the limit of the standard, of a supply where one is named. */
export function offeredUnits(
  cat: Catalogue,
  supply?: UnitPlate['supply'],
): [model: string, plate: EnergiserModel][] {
  const limit = figure(cat, 'energiser.limit');
  return Object.entries(cat.energisers)
    .filter(([, m]) => m.offered && m.output_J <= limit && (!supply || m.supply === supply))
    .sort(([a, m], [b, n]) => m.output_J - n.output_J || a.localeCompare(b));
}

export interface Unit {
  readonly plate: UnitPlate;
  readonly source: PlateFit;
  /** False: no circuit of this kind has such a plate, and its owner is asked about it. */
  readonly fits: boolean;
  /** Joules on the plate for each that the circuit puts into 500 ohm: what switch and core keep. */
  readonly yield: number;
}

const known = new WeakMap<UnitPlate, Unit>();

/** The circuit of a plate, found once for each. */
export function unitOfPlate(plate: UnitPlate): Unit {
  let unit = known.get(plate);
  if (unit) return unit;
  const source = energiserModel({
    stored_j: plate.stored_J,
    v_open_v: plate.open_V,
    v_500_ohm_v: plate.at500_V,
    ...(plate.at200_V === undefined ? {} : { v_200_ohm_v: plate.at200_V }),
    ...(plate.at100_V === undefined ? {} : { v_100_ohm_v: plate.at100_V }),
    ...(plate.at50_V === undefined ? {} : { v_50_ohm_v: plate.at50_V }),
    ...(plate.rise_us === undefined ? {} : { rise_500_ohm_s: plate.rise_us * 1e-6 }),
  });
  unit = {
    plate,
    source,
    fits: source.chi2 <= MOST_CHI2,
    yield: Math.min(1, plate.output_J / into(source, 500).energy_J),
  };
  known.set(plate, unit);
  return unit;
}

export const unitOf = (e: Pick<Energiser, 'model' | 'plate'>, cat: Catalogue): Unit =>
  unitOfPlate(plateOfUnit(e, cat));

/** The load line of a plate; of the nearest circuit, where the plate's own figures do not fall as the load grows. */
export function loadLineOf(m: UnitPlate): LoadLine {
  try {
    return loadLine({
      v_open_v: m.open_V,
      v_500_ohm_v: m.at500_V,
      ...(m.at200_V === undefined ? {} : { v_200_ohm_v: m.at200_V }),
      ...(m.at100_V === undefined ? {} : { v_100_ohm_v: m.at100_V }),
      ...(m.at50_V === undefined ? {} : { v_50_ohm_v: m.at50_V }),
    });
  } catch {
    const { source } = unitOfPlate(m);
    return (r) => (r === Infinity ? m.open_V : peakInto(source, r).peak_V);
  }
}
