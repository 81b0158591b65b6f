import { useSession } from '../../session/session.js';

/** Whether nothing lies on the property yet, so that it may still get its place on the globe. */
export function isBare(): boolean {
  const { plan } = useSession.getState();
  const laid = [plan.lines, plan.energisers, plan.things ?? {}];
  return plan.ground.kind === 'flat' && laid.every((t) => Object.keys(t).length === 0);
}
