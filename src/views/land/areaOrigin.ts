/** Where the area of a paddock comes from. */
export const AREA = {
  kind: 'measured',
  title: 'Area in plan',
  formula: '½ Σ (eᵢ nᵢ₊₁ − eᵢ₊₁ nᵢ) over the corners',
  source: 'Faces of the line network; ground that slopes has more surface than its plan',
} as const;
