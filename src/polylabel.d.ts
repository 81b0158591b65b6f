declare module 'polylabel' {
  /** Pole of inaccessibility of a polygon with holes: the place furthest from its rim. */
  export default function polylabel(
    polygon: [number, number][][],
    precision?: number,
  ): [number, number] & { distance: number };
}
