import { Lock, LockOpen } from 'lucide-react';
import { useState } from 'react';
import { nearest, planLength } from '../../core/plan/geometry.js';
import { offsetLine, removePart } from '../../core/edit/reshape.js';
import type { Line } from '../../core/plan/schema.js';
import { QuantityField } from '../../ui/parts/controls.js';
import { commit, refuse, useSession } from '../../session/session.js';
import { chooseLine } from '../../session/view.js';
import { joinWith, splitHere, turnRound } from './actions.js';
import { Levels } from './Levels.js';
import { MoveBy } from './ManyCard.js';
import { Button } from '../../ui/parts/Button.js';

/** What can be done to a whole line: locked, cut, joined, turned, set off, shortened, levelled. */
export function LineTools({ line }: { line: Line }) {
  const [open, setOpen] = useState(false);
  return (
    <details
      className="border-rule mt-2 border-t pt-2"
      open={open}
      onToggle={(e) => setOpen(e.currentTarget.open)}
    >
      <summary className="cursor-pointer font-semibold">Change the line</summary>
      {open && <Tools line={line} />}
    </details>
  );
}

function Tools({ line }: { line: Line }) {
  return (
    <div className="mt-2 flex flex-col gap-2">
      <div className="flex flex-wrap gap-1">
        <Button
          aria-pressed={line.locked ?? false}
          onClick={() =>
            commit(`${line.locked ? 'unlocked' : 'locked'} ${line.name}`, (d) => {
              if (line.locked) delete d.lines[line.id]!.locked;
              else d.lines[line.id]!.locked = true;
            })
          }
        >
          {line.locked ? <LockOpen size={14} aria-hidden /> : <Lock size={14} aria-hidden />}
          {line.locked ? 'Unlock' : 'Lock'}
        </Button>
        <Button title="Cut here (C)" onClick={splitHere}>
          Cut here
        </Button>
        <Button onClick={turnRound}>Turn round</Button>
      </div>
      <Join line={line} />
      <MoveBy ids={[line.id]} />
      <SetOff line={line} />
      <Part line={line} />
      <Levels line={line} />
    </div>
  );
}

/** Lines whose ends are near one of this line's ends, nearest first. */
function Join({ line }: { line: Line }) {
  const lines = useSession((s) => s.plan.lines);
  const ends = [line.vertices[0]!, line.vertices.at(-1)!];
  const others = Object.values(lines)
    .filter((l) => l.id !== line.id)
    .map((l) => ({
      l,
      off: Math.min(
        ...[l.vertices[0]!, l.vertices.at(-1)!].flatMap((v) =>
          ends.map((e) => Math.hypot(e.e - v.e, e.n - v.n)),
        ),
      ),
    }))
    .sort((a, b) => a.off - b.off)
    .slice(0, 8);
  if (others.length === 0) return null;
  return (
    <label className="flex items-center gap-1.5">
      <span className="label">Join with</span>
      <select
        className="field min-w-0 flex-1"
        value=""
        onChange={(e) => e.target.value && joinWith(e.target.value)}
      >
        <option value="">choose …</option>
        {others.map(({ l }) => (
          <option key={l.id} value={l.id}>
            {l.name}
          </option>
        ))}
      </select>
    </label>
  );
}

function SetOff({ line }: { line: Line }) {
  const [by, setBy] = useState(6);
  const off = (left: number) => {
    let id = '';
    commit(`set a line off beside ${line.name}`, (d) => {
      id = offsetLine(d, line.id, left);
    });
    chooseLine(id);
  };
  return (
    <div className="flex flex-wrap items-end gap-1.5">
      <QuantityField
        label="A line beside it at"
        q="tape"
        min={0.3}
        max={500}
        value={by}
        onCommit={setBy}
        width="w-14"
      />
      <Button onClick={() => off(by)}>Left</Button>
      <Button onClick={() => off(-by)}>Right</Button>
    </div>
  );
}

/** A stretch of the line taken out. */
function Part({ line }: { line: Line }) {
  const total = planLength(line);
  const [from, setFrom] = useState(0);
  const [to, setTo] = useState(0);
  return (
    <div className="flex flex-wrap items-end gap-1.5">
      <QuantityField
        label="Remove from"
        q="tape"
        min={0}
        max={total}
        value={from}
        onCommit={setFrom}
        width="w-16"
      />
      <QuantityField
        label="to"
        q="tape"
        min={0}
        max={total}
        value={to}
        onCommit={setTo}
        width="w-16"
      />
      <Button
        disabled={Math.abs(to - from) < 0.05}
        onClick={() => {
          if (line.locked) return refuse(`${line.name} is locked: unlock it first.`);
          const middle = line.vertices[0]!;
          commit(`took a part out of ${line.name}`, (d) => removePart(d, line.id, from, to));
          const left = useSession.getState().plan.lines[line.id];
          chooseLine(left && nearest(left.vertices, middle).off < 1 ? line.id : null);
        }}
      >
        Remove
      </Button>
    </div>
  );
}
