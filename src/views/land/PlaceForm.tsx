/** A gate, an energiser or a spot put down by typing: "at … along LINE", the twin of pressing on the map. */
import { useRef, useState } from 'react';
import { addEnergiser, addGate } from '../../core/edit/edits.js';
import { addThing, THING_NAMES } from '../../core/edit/landEdits.js';
import { beside } from '../../core/plan/geometry.js';
import type { ThingKind } from '../../core/plan/schema.js';
import { commit, useSession } from '../../session/session.js';
import { look, useView, type Tool } from '../../session/view.js';
import { AlongField } from '../../ui/parts/AlongField.js';
import { Button } from '../../ui/parts/Button.js';
import { QuantityField, Select } from '../../ui/parts/controls.js';
import { LEAD_REACH } from './gestures.js';

/** Beside the line unless something else is typed, m. */
const USUAL_OFF = 4;
const GATE_WIDTH = 3.6;

export function PlaceForm({ tool }: { tool: Tool }) {
  const lines = useSession((s) => s.plan.lines);
  const reports = useSession((s) => s.report?.lines);
  const chosen = useView((v) => v.line);
  const cursor = useView((v) => v.cursor);
  const [picked, setPicked] = useState<string | null>(null);
  const id = [picked, chosen, Object.keys(lines)[0]].find((l) => l && l in lines);
  const [at, setAt] = useState<number | null>(null);
  const [off, setOff] = useState(USUAL_OFF);
  // Enter in a field takes what is typed and puts it down in one go, before anything is drawn anew.
  const typed = useRef<{ at: number | null; off: number }>({ at: null, off: USUAL_OFF });
  const [side, setSide] = useState<'left' | 'right'>('right');
  if (!id) return <p className="label">Draw a line first: it stands on one or beside one.</p>;
  const line = lines[id]!;
  const report = reports?.[id];
  if (!report) return null;
  const shownAt = Math.min(at ?? cursor ?? report.plan_m / 2, report.plan_m);
  const put = () => {
    const s = Math.min(typed.current.at ?? shownAt, report.plan_m);
    const { off } = typed.current;
    if (tool === 'gate') {
      let gate = '';
      commit(`put a gate on ${line.name}`, (d) => void (gate = addGate(d, id, s, GATE_WIDTH)));
      return look({ tool: 'select', line: id, vertex: null, thing: { kind: 'gate', id: gate } });
    }
    const p = beside(line.vertices, s, side === 'left' ? -off : off);
    let made = '';
    if (tool === 'energiser') {
      commit('put an energiser down', (d) => void (made = addEnergiser(d, p, LEAD_REACH)));
      return look({ tool: 'select', thing: { kind: 'energiser', id: made } });
    }
    const kind = tool as ThingKind;
    commit(`put ${THING_NAMES[kind].split(',')[0]!.toLowerCase()} down`, (d) => {
      made = addThing(d, kind, p);
    });
    look({ tool: 'select', thing: { kind: 'thing', id: made } });
  };
  return (
    <form
      className="border-rule mb-3 flex flex-wrap items-end gap-2 border-b pb-3"
      aria-label="Put it down by typing"
      onSubmit={(event) => {
        event.preventDefault();
        put();
      }}
    >
      <Select
        label="along"
        value={id}
        options={Object.values(lines).map((l) => [l.id, l.name] as const)}
        onChange={setPicked}
      />
      <AlongField
        label="at"
        line={line}
        report={report}
        value={shownAt}
        onCommit={(m) => setAt((typed.current.at = m))}
      />
      {tool !== 'gate' && (
        <>
          <QuantityField
            label="beside by"
            q="tape"
            min={0}
            max={100}
            value={off}
            width="w-16"
            onCommit={(m) => setOff((typed.current.off = m))}
          />
          <Select
            label="Side"
            hideLabel
            value={side}
            options={[
              ['left', 'to the left'],
              ['right', 'to the right'],
            ]}
            onChange={setSide}
          />
        </>
      )}
      <Button strong type="submit">
        Put it there
      </Button>
    </form>
  );
}
