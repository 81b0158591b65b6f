/** The circuit that the network solver takes: the contract of kind `fence_resistive`. */
import type { LoadLinePlate } from './loadLine.js';

export interface StrandType {
  readonly role: 'hot' | 'earth';
  readonly r_ohm_per_km: number;
  readonly g_s_per_km: number;
}
export interface Section {
  readonly id: string;
  readonly from: string;
  readonly to: string;
  readonly length_m: number;
  readonly strands: Readonly<Record<string, string>>;
}
export interface Jumper {
  readonly location: string;
  readonly strand_a: string;
  readonly strand_b: string;
  readonly r_ohm: number;
}
export interface Shunt {
  readonly section?: string;
  readonly x_m?: number;
  readonly location?: string;
  readonly strand: string;
  readonly to: string;
  readonly r_ohm: number;
}
export interface InSection {
  readonly section: string;
  readonly x_m: number;
  readonly strand: string;
}
/** The circuit alone: all that the input resistance depends on. */
export interface Circuit {
  readonly strand_types: Readonly<Record<string, StrandType>>;
  readonly energiser: {
    readonly location: string;
    readonly hot_strands: readonly string[];
    readonly earth_strands: readonly string[];
    readonly lead_ohm: number;
  };
  readonly r_earth_ohm: number;
  readonly sections: readonly Section[];
  readonly jumpers: readonly Jumper[];
  readonly shunts: readonly Shunt[];
  readonly breaks: readonly InSection[];
  readonly probes: readonly InSection[];
}
export type FenceResistiveInputs = Circuit & {
  readonly energiser: Circuit['energiser'] & { readonly load_line: LoadLinePlate };
};
