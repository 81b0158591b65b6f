/** Small drawings that stand in lists, on the map and on paper alike: paths with the names of their colours. */

export type Colour = 'own' | 'ink' | 'paper' | 'live' | 'earth' | 'warn';

export interface Stroke {
  readonly d: string;
  readonly width?: number;
  readonly fill?: Colour;
  readonly ink?: Colour;
  readonly dash?: string;
}

export interface Drawn {
  readonly w: number;
  readonly h: number;
  readonly strokes: readonly Stroke[];
}

/** As SVG within an SVG, about its own centre. @param colour the value of each name */
export function strokesSvg({ strokes }: Drawn, colour: (name: Colour) => string): string {
  return strokes
    .map(
      (p) =>
        `<path d="${p.d}" fill="${p.fill ? colour(p.fill) : 'none'}" stroke="${p.ink ? colour(p.ink) : 'none'}" stroke-width="${p.width ?? 0}"${p.dash ? ` stroke-dasharray="${p.dash}"` : ''} stroke-linecap="round" stroke-linejoin="round"/>`,
    )
    .join('');
}

/** As a picture of its own, `scale` times as large. */
export function drawnUrl(drawn: Drawn, colour: (name: Colour) => string, scale = 1): string {
  const { w, h } = drawn;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${w * scale}" height="${h * scale}" viewBox="0 0 ${w} ${h}">${strokesSvg(drawn, colour)}</svg>`;
  return `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
}
