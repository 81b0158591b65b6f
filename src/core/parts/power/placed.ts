/** Energisers feed a line at a place of it, and stay when it goes. */

export const placed = {
  places: { tables: { energisers: { goes: false } } },
};
