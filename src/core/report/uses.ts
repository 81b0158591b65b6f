/** What is used in several ways, and for what: words that the list of supplies breaks a row down by. */
export const USES = {
  alongRuns: 'along the runs',
  ties: 'ties at the ends',
  pieces: 'pieces between post and insulator',
  braceWires: 'brace wires',
  jumpers: 'jumpers',
  rodLeads: 'rod leads',
  repairs: 'coils left for repairs',
  halfDriven: 'half-driven',
  driven: 'driven, over wire and insulators',
  coilsJoined: 'coils joined',
} as const;

/** Whose the tools are, and all else that belongs to no line and no unit. */
export const PROPERTY = 'property';
