/** A marked stick at its true size: a strip with the strands of a design, cut into parts that join. */
import type { Strand } from '../plan/schema.js';

/** One part of the strip, from one height to another over the ground, mm. */
export interface StickPart {
  readonly from_mm: number;
  readonly to_mm: number;
  readonly marks: readonly {
    readonly height_mm: number;
    readonly strand: Strand;
    readonly number: number;
  }[];
}

/** Sheet of A4 with what is drawn on it, all in mm [published: ISO 216]. */
export const SHEET = {
  width: 210,
  height: 297,
  margin: 12,
  part: 240,
  strip: 46,
  apart: 58,
} as const;
/** Parts beside one another on a sheet. */
export const PARTS_PER_SHEET = 2;
/** Length of the ruler that shows whether the printer kept the scale, mm. */
export const RULER_MM = 100;

/** The strip in parts, from the ground up; the last ends above the top strand. */
export function stickParts(strands: readonly Strand[]): StickPart[] {
  const top = Math.round((strands.at(-1)?.height_m ?? 0) * 1000);
  const parts: StickPart[] = [];
  for (let from = 0; from === 0 || from < top + 20; from += SHEET.part) {
    const to = from + SHEET.part;
    const marks = strands.flatMap((strand, i) => {
      const height_mm = strand.height_m * 1000;
      // A mark on the joint itself is drawn on the part above alone.
      return height_mm >= from - 1e-6 && height_mm < to - 1e-6
        ? [{ height_mm, strand, number: i + 1 }]
        : [];
    });
    parts.push({ from_mm: from, to_mm: to, marks });
  }
  return parts;
}

/** Where a height of a part lies on its sheet, from the sheet's top, mm. */
export const onSheet = (part: StickPart, height_mm: number): number =>
  SHEET.height - SHEET.margin - 15 - (height_mm - part.from_mm);
