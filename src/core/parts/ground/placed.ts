/** Heights levelled by hand lie along their line. */

export const placed = {
  places: { spots: ['levels'] },
};
