import type { Units } from '../../core/base/units.js';
import { useSession } from '../../session/session.js';

/** The property's units, metric or imperial. */
export const useUnits = (): Units => useSession((s) => s.plan.units);
