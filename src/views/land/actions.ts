/** What the keys and buttons of Land do to the chosen thing. */
import { moveEnergiser, moveVertex, removeLine, removeVertex } from '../../core/edit/edits.js';
import { stations } from '../../core/plan/geometry.js';
import { moveThing } from '../../core/edit/landEdits.js';
import { joinLines, moveLines, reverseLine, splitLine } from '../../core/edit/reshape.js';
import { commit, refuse, tell, useSession } from '../../session/session.js';
import { chooseLine, look, useView, type Chosen, type Tool } from '../../session/view.js';
import { LEAD_REACH } from './gestures.js';
import { endDrawing } from './sketch.js';

/** Chooses a tool; leaving the pen ends the drawing. */
export function takeTool(tool: Tool): void {
  endDrawing();
  look({ tool });
}

/** Takes away what is chosen: a vertex, a thing, else the line with those chosen beside it. */
export function removeChosen(): void {
  const { plan } = useSession.getState();
  const { line: chosen, also, vertex, thing } = useView.getState();
  if (thing) return removeThing(thing);
  // What was chosen may have gone by an undo, or in another tab.
  const line = chosen && plan.lines[chosen] ? chosen : null;
  if (!line) return;
  const own = plan.lines[line]!;
  const ids = [line, ...also].filter((id) => plan.lines[id]);
  const locked = ids.map((id) => plan.lines[id]!).find((l) => l.locked);
  if (locked) return refuse(`${locked.name} is locked: unlock it first.`);
  if (vertex !== null) {
    const gone = own.vertices.length <= 2;
    commit(`took a corner out of ${own.name}`, (d) => removeVertex(d, line, vertex));
    tell(gone ? `took ${own.name} away` : `took a corner out of ${own.name}`);
    return chooseLine(gone ? null : line);
  }
  const words = ids.length === 1 ? `took ${own.name} away` : `took ${ids.length} lines away`;
  commit(words, (d) => ids.forEach((id) => removeLine(d, id)));
  tell(words);
  chooseLine(null);
}

function removeThing(thing: Chosen): void {
  const { plan } = useSession.getState();
  const table = tableOf(thing.kind);
  const known = table && plan[table]?.[thing.id];
  look({ thing: null });
  if (!table || !known) return;
  commit(`took ${known.name} away`, (d) => {
    delete d[table]![thing.id];
  });
  tell(`took ${known.name} away`);
}

/** The table of the plan that a chosen thing lies in; a paddock is found by its place instead. */
export const tableOf = (kind: Chosen['kind']) =>
  (({ gate: 'gates', energiser: 'energisers', thing: 'things', paddock: null }) as const)[kind];

/** Steps of the arrow keys, east and north. */
const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** Moves what is chosen by 1 m, or 10 m; false when nothing is. */
export function nudge(key: string, far: boolean): boolean {
  const { plan } = useSession.getState();
  const { line: chosen, also, vertex, thing } = useView.getState();
  const [de, dn] = ARROWS[key]!.map((d) => d * (far ? 10 : 1)) as [number, number];
  const by = { e: de, n: dn };
  if (thing?.kind === 'energiser') {
    const e = plan.energisers[thing.id]!;
    commit(`moved ${e.name}`, (d) =>
      moveEnergiser(d, e.id, { e: e.e + de, n: e.n + dn }, LEAD_REACH),
    );
    return true;
  }
  if (thing?.kind === 'gate') {
    const gate = plan.gates[thing.id];
    if (!gate) return false;
    commit(`moved ${gate.name}`, (d) => {
      d.gates[gate.id]!.at_m = Math.max(0, gate.at_m + de + dn);
    });
    return true;
  }
  if (thing?.kind === 'thing') {
    const known = plan.things?.[thing.id];
    if (!known) return false;
    commit(`moved ${known.name}`, (d) => moveThing(d, known.id, by));
    return true;
  }
  const line = chosen ? plan.lines[chosen] : undefined;
  if (!line || thing) return false;
  if (line.locked) {
    refuse(`${line.name} is locked: unlock it first.`);
    return true;
  }
  if (vertex === null) {
    // A line is moved as a whole only together with others: alone, the arrows belong to the map.
    if (also.length === 0) return false;
    commit(`moved ${also.length + 1} lines`, (d) => moveLines(d, [line.id, ...also], by));
    return true;
  }
  const v = line.vertices[vertex];
  if (!v) return false;
  commit(`moved a corner of ${line.name}`, (d) =>
    moveVertex(d, line.id, vertex, { e: v.e + de, n: v.n + dn }),
  );
  return true;
}

/** Cuts the chosen line at the chosen vertex, else at the cursor. */
export function splitHere(): void {
  const { plan } = useSession.getState();
  const { line: id, vertex, cursor } = useView.getState();
  const line = id ? plan.lines[id] : undefined;
  if (!line) return;
  const s = vertex === null ? cursor : stations(line.vertices)[vertex]!;
  if (s === null)
    return refuse('Choose a corner, or point at the place in the section, to cut there.');
  if (line.locked) return refuse(`${line.name} is locked: unlock it first.`);
  let made: string | null = null;
  commit(`cut ${line.name} in two`, (d) => {
    made = splitLine(d, line.id, s);
  });
  if (made === null) refuse('A line is not cut at its end or through a gate.');
  else chooseLine(line.id);
}

/** Joins the chosen line with another. */
export function joinWith(other: string): void {
  const { plan } = useSession.getState();
  const { line: id } = useView.getState();
  if (!id || !plan.lines[id] || !plan.lines[other]) return;
  let done = false;
  commit(`joined ${plan.lines[id].name} and ${plan.lines[other].name}`, (d) => {
    done = joinLines(d, id, other);
  });
  if (done) chooseLine(id);
  else refuse('A locked line is not joined: unlock it first.');
}

/** Turns the chosen line round. */
export function turnRound(): void {
  const { plan } = useSession.getState();
  const { line: id } = useView.getState();
  const line = id ? plan.lines[id] : undefined;
  if (!line) return;
  if (line.locked) return refuse(`${line.name} is locked: unlock it first.`);
  commit(`turned ${line.name} round`, (d) => reverseLine(d, line.id));
  look({ vertex: null, cursor: null });
}
