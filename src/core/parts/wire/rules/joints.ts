/** Rules about joints, and about wire that creeps. */
import { figure, recordOf } from '../../../plan/catalogue.js';
import { eachLine, onLine, type Rule } from '../../../findings/rule.js';
import { dueOn } from '../../../wire/creep.js';
import { weakestJoint, wireOf } from '../../../wire/wires.js';
import { betterJoints } from './ways.js';

/** A joint that keeps too little of its wire. */
export const weakJoint: Rule = {
  id: 'weak-joint',
  cause: 'Weakest joint',
  step: 'strain',
  kind: 'mend',
  source: {
    mark: 'practice',
    text: 'A wrapped knot that is well made keeps 0.80 to 0.90 of the wire',
  },
  check: (scene) => {
    const { cat, say } = scene;
    const least = figure(cat, 'wire.jointLeast');
    return eachLine(scene).flatMap(([line, report]) => {
      const joint = weakestJoint(line, cat);
      const strained = report.strain[0];
      if (!strained || joint.efficiency >= least) return [];
      const { break_N } = wireOf(strained.wire, cat);
      return [
        {
          key: line.id,
          title: `The joints of ${line.name} are weak`,
          why: `${recordOf(cat.joints, joint.id).name}: ${Math.round(100 * joint.efficiency)} % of the wire, ${say.newtons(joint.efficiency * break_N)} of ${say.newtons(break_N)}; the weakest joint sets the limit of each strand.`,
          todo: 'Tie them better and break one again, or use another joint.',
          place: onLine(line),
          badness: 1 - joint.efficiency,
          mends: () =>
            betterJoints(scene, line).filter((m) =>
              m.patch.every(
                (p) => 'value' in p && recordOf(cat.joints, String(p.value)).efficiency >= least,
              ),
            ),
        },
      ];
    });
  },
};

/** Wire that creeps, strung and not yet taken up. */
export const notTakenUp: Rule = {
  id: 'not-taken-up',
  cause: 'Creeping wire not taken up',
  step: 'strain',
  kind: 'confirm',
  source: {
    mark: 'practice',
    text: 'Medium-tensile wire creeps: it is tensioned again after a year',
  },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      const { cat, say } = scene;
      if (!line.strung_on || line.takenUp_on) return [];
      const creeping = report.strain.find((s) => (recordOf(cat.wires, s.wire).creep ?? 0) > 0);
      if (!creeping) return [];
      const lost = recordOf(cat.wires, creeping.wire).creep!;
      return [
        {
          key: line.id,
          title: `${line.name} is to be taken up after a year`,
          why: `Strung on ${line.strung_on} with ${recordOf(cat.wires, creeping.wire).name}: in its first year it loses about ${say.newtons(lost * creeping.at15_N)} of ${say.newtons(creeping.at15_N)}.`,
          todo: `Tension it again from ${dueOn(line.strung_on)} on, and put the day down under Wires.`,
          place: onLine(line),
          badness: lost,
        },
      ];
    }),
};
