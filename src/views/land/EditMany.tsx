import { useEffect, useRef, useState, type ReactNode } from 'react';
import { makeAlike, shared, type Common } from '../../core/edit/alike.js';
import type { Line } from '../../core/plan/schema.js';
import { commit } from '../../session/session.js';
import { useCatalogue } from '../../session/catalogue.js';
import { Button } from '../../ui/parts/Button.js';
import { Check, QuantityField, Select } from '../../ui/parts/controls.js';

const DIFFERS = '…';

/** Everything that lines have in common, changed on all of them at once. */
export function EditMany({ lines }: { lines: readonly Line[] }) {
  const cat = useCatalogue();
  const set = (words: string, change: (l: Line) => void) =>
    commit(`${words} of ${lines.length} lines`, (d) => {
      for (const { id } of lines) if (d.lines[id]) change(d.lines[id]);
    });
  const choice = (
    label: string,
    key: 'post' | 'school',
    options: readonly (readonly [string, string])[],
  ) => {
    const value = shared(lines, (l) => l[key]) ?? DIFFERS;
    return (
      <Select
        label={label}
        value={value}
        options={value === DIFFERS ? [[DIFFERS, 'they differ'], ...options] : options}
        onChange={(v) => v !== DIFFERS && set(label.toLowerCase(), (l) => void (l[key] = v))}
      />
    );
  };
  const flag = (
    key: 'boundary' | 'tensioner' | 'springs' | 'stepOver' | 'snow' | 'dim' | 'standing',
    label: string,
  ) => (
    <Flag
      label={label}
      value={shared(lines, (l) => l[key] ?? false)}
      onChange={(on) =>
        set(label, (l) => {
          if (on || key === 'boundary' || key === 'tensioner') l[key] = on;
          else delete l[key];
        })
      }
    />
  );
  const bay = shared(lines, (l) => l.maxBay_m);
  const profiles = Object.entries(cat.profiles).filter(([id]) => id !== 'cattle-boundary');
  const stock = (list: 'left' | 'right' | 'keepOut' | 'later', title: string) => (
    <details>
      <summary className="label cursor-pointer">{title}</summary>
      <div className="flex flex-wrap gap-x-3">
        {profiles
          .filter(([, p]) => list === 'later' || (p.role === 'predator') === (list === 'keepOut'))
          .map(([id, p]) => (
            <Flag
              key={id}
              label={p.name}
              value={shared(lines, (l) => l[list]?.includes(id) ?? false)}
              onChange={(on) =>
                set(title, (l) => {
                  const next = (l[list] ?? []).filter((x) => x !== id);
                  if (on) next.push(id);
                  if (list === 'later' && next.length === 0) delete l.later;
                  else l[list] = next;
                })
              }
            />
          ))}
      </div>
    </details>
  );
  return (
    <fieldset className="border-rule flex flex-col items-start gap-2 border-t pt-2">
      <legend className="sr-only">On all of them</legend>
      {choice(
        'Line posts',
        'post',
        Object.entries(cat.posts)
          .filter(([, p]) => p.use === 'line')
          .map(([k, p]) => [k, p.name] as const),
      )}
      <QuantityField
        label={bay === undefined ? 'Longest bay (they differ)' : 'Longest bay'}
        q="tape"
        at="lines/*/maxBay_m"
        value={bay ?? NaN}
        onCommit={(m) => set('longest bay', (l) => void (l.maxBay_m = m))}
        width="w-16"
      />
      {choice(
        'Tension',
        'school',
        Object.entries(cat.schools).map(([k, s]) => [k, s.name] as const),
      )}
      {flag('tensioner', 'a tensioner on each strand')}
      {flag('springs', 'a spring on each strand')}
      {flag('boundary', 'boundary of the property')}
      {flag('standing', 'old posts stand and are sound')}
      {flag('stepOver', 'people step over')}
      {flag('snow', 'snow or frozen ground')}
      {flag('dim', 'stock meet it in dim light')}
      {stock('left', 'stock to the left')}
      {stock('right', 'stock to the right')}
      {stock('keepOut', 'kept out')}
      {stock('later', 'to be held later')}
      <AsOn lines={lines} />
    </fieldset>
  );
}

/** A tick box that shows when lines differ in it. */
function Flag(p: {
  label: ReactNode;
  value: boolean | undefined;
  onChange: (on: boolean) => void;
}) {
  const box = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    const input = box.current?.querySelector('input');
    if (input) input.indeterminate = p.value === undefined;
  });
  return (
    <span ref={box}>
      <Check
        label={
          <>
            {p.label}
            {p.value === undefined && <span className="label"> (they differ)</span>}
          </>
        }
        checked={p.value ?? false}
        onChange={p.onChange}
      />
    </span>
  );
}

const ABOUT: readonly (readonly [Common, string])[] = [
  ['strands', 'strands'],
  ['posts', 'posts and bays'],
  ['tension', 'tension'],
  ['stock', 'stock and what is asked'],
];

/** What one of the lines has, given to the others. */
function AsOn({ lines }: { lines: readonly Line[] }) {
  const [from, setFrom] = useState(lines[0]!.id);
  const [about, setAbout] = useState<readonly Common[]>(['strands', 'posts', 'tension']);
  const model = lines.find((l) => l.id === from) ?? lines[0]!;
  return (
    <div className="flex flex-col items-start gap-1">
      <Select
        label="All as on"
        value={model.id}
        options={lines.map((l) => [l.id, l.name] as const)}
        onChange={setFrom}
      />
      <span className="flex flex-wrap gap-x-3">
        {ABOUT.map(([key, words]) => (
          <Check
            key={key}
            label={words}
            checked={about.includes(key)}
            onChange={(on) => setAbout(on ? [...about, key] : about.filter((a) => a !== key))}
          />
        ))}
      </span>
      <Button
        disabled={about.length === 0}
        onClick={() =>
          commit(`${lines.length} lines as on ${model.name}`, (d) =>
            makeAlike(
              d,
              model.id,
              lines.map((l) => l.id),
              about,
            ),
          )
        }
      >
        Make them alike
      </Button>
    </div>
  );
}
