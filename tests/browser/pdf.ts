/** What stands on a printed page: drawn paths with their places in millimetres, by a general PDF reader. */
import { getDocument, OPS } from 'pdfjs-dist/legacy/build/pdf.mjs';

export interface Stroke {
  readonly page: number;
  /** Millimetres from the left and from the top of the sheet. */
  readonly from: readonly [number, number];
  readonly to: readonly [number, number];
  readonly width: number;
}
export interface Printed {
  readonly sheets: readonly (readonly [number, number])[];
  readonly strokes: readonly Stroke[];
}

/** A point of PDF is 1/72 inch [published: ISO 32000]. */
const MM = 25.4 / 72;
type Transform = [number, number, number, number, number, number];
const times = (m: Transform, n: Transform): Transform => [
  m[0] * n[0] + m[2] * n[1],
  m[1] * n[0] + m[3] * n[1],
  m[0] * n[2] + m[2] * n[3],
  m[1] * n[2] + m[3] * n[3],
  m[0] * n[4] + m[2] * n[5] + m[4],
  m[1] * n[4] + m[3] * n[5] + m[5],
];

/** The words of each page, in the order in which they were drawn. */
export async function wordsOn(data: Uint8Array): Promise<string[]> {
  const pdf = await getDocument({ data, useSystemFonts: false, verbosity: 0 }).promise;
  const out: string[] = [];
  for (let number = 1; number <= pdf.numPages; number++) {
    const { items } = await (await pdf.getPage(number)).getTextContent();
    out.push(items.map((i) => ('str' in i ? i.str : '')).join(' '));
  }
  return out;
}

/** Every straight stroke of two points. */
export async function printed(data: Uint8Array): Promise<Printed> {
  const pdf = await getDocument({ data, useSystemFonts: false, verbosity: 0 }).promise;
  const sheets: [number, number][] = [];
  const strokes: Stroke[] = [];
  for (let number = 1; number <= pdf.numPages; number++) {
    const page = await pdf.getPage(number);
    const [x0, y0, x1, y1] = page.view as [number, number, number, number];
    sheets.push([(x1 - x0) * MM, (y1 - y0) * MM]);
    const { fnArray, argsArray } = await page.getOperatorList();
    let now: Transform = [1, 0, 0, 1, 0, 0];
    let width = 1;
    const stack: { now: Transform; width: number }[] = [];
    fnArray.forEach((fn, k) => {
      const args = argsArray[k] as unknown[];
      if (fn === OPS.save) stack.push({ now, width });
      else if (fn === OPS.restore) ({ now, width } = stack.pop() ?? { now, width });
      else if (fn === OPS.transform) now = times(now, args as Transform);
      else if (fn === OPS.setLineWidth) width = args[0] as number;
      else if (fn === OPS.setGState) {
        const lineWidth = (args[0] as [string, number][]).find(([key]) => key === 'LW');
        if (lineWidth) width = lineWidth[1];
      } else if (fn === OPS.constructPath) {
        const [ops, xy] = args as [number[], number[]];
        if (ops.length !== 2 || ops[0] !== OPS.moveTo || ops[1] !== OPS.lineTo) return;
        const place = (x: number, y: number): [number, number] => [
          (now[0] * x + now[2] * y + now[4] - x0) * MM,
          (y1 - (now[1] * x + now[3] * y + now[5])) * MM,
        ];
        strokes.push({
          page: number,
          from: place(xy[0]!, xy[1]!),
          to: place(xy[2]!, xy[3]!),
          width: width * Math.hypot(now[0], now[1]) * MM,
        });
      }
    });
  }
  return { sheets, strokes };
}
