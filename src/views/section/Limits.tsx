import { useState } from 'react';
import { Trash2 } from 'lucide-react';
import { barPosts } from '../../core/plan/pins.js';
import type { Line } from '../../core/plan/schema.js';
import type { LineReport } from '../../core/report/schema.js';
import { Part, QuantityField, Select } from '../../ui/parts/controls.js';
import { AlongField, useWhere } from '../../ui/parts/AlongField.js';
import { Num } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';

/** What a placement must keep to on this line. */
export function Limits({ line, report }: { line: Line; report: LineReport }) {
  const cat = useCatalogue();
  const set = (words: string, change: (l: Line) => void) =>
    commit(`${words} of ${line.name}`, (d) => change(d.lines[line.id]!));
  const usual = Math.max(...report.stretches.map((s) => s.maxBay_m), 0);
  const school = Object.entries(cat.spacings).find(
    ([, s]) =>
      s.bay_m === line.maxBay_m &&
      s.dropper?.kind === line.dropper?.kind &&
      s.dropper?.each_m === line.dropper?.each_m,
  )?.[0];
  return (
    <Part title="Limits">
      <div className="flex flex-col items-start gap-2">
        <Select
          label="Rule for the bays"
          value={line.maxBay_m === null ? 'usual' : (school ?? 'own')}
          options={[
            ['usual', 'by stock and ground'],
            ...Object.entries(cat.spacings).map(([k, s]) => [k, s.name] as const),
            ...(line.maxBay_m !== null && !school ? ([['own', 'my own']] as const) : []),
          ]}
          onChange={(k) =>
            set('longest bay', (l) => {
              const spacing = cat.spacings[k];
              l.maxBay_m = k === 'usual' ? null : (spacing?.bay_m ?? l.maxBay_m);
              if (spacing?.dropper) l.dropper = { ...spacing.dropper };
              else delete l.dropper;
            })
          }
        />
        {school && <p className="label">{cat.spacings[school]!.why}</p>}
        <QuantityField
          label="Longest bay"
          q="tape"
          at="lines/*/maxBay_m"
          value={line.maxBay_m ?? usual}
          onCommit={(m) => set('longest bay', (l) => void (l.maxBay_m = m))}
          width="w-20"
        />
        <Select
          label="Line posts"
          value={line.post}
          options={Object.entries(cat.posts)
            .filter(([, p]) => p.use === 'line')
            .map(([k, p]) => [k, p.name] as const)}
          onChange={(post) => set('posts', (l) => void (l.post = post))}
        />
        <Select
          label="Between the posts"
          value={line.dropper?.kind ?? ''}
          options={[
            ['', 'nothing'],
            ...Object.entries(cat.droppers).map(([k, d]) => [k, d.name.toLowerCase()] as const),
          ]}
          onChange={(kind) =>
            set('droppers', (l) => {
              if (kind) l.dropper = { kind, each_m: l.dropper?.each_m ?? 5 };
              else delete l.dropper;
            })
          }
        />
        {line.dropper && (
          <>
            <QuantityField
              label="Apart at most"
              q="tape"
              at="lines/*/dropper/each_m"
              value={line.dropper.each_m}
              onCommit={(m) => set('droppers', (l) => void (l.dropper!.each_m = m))}
              width="w-20"
            />
            <p className="label">
              {report.droppers.length} of them. {cat.droppers[line.dropper.kind]!.why}
            </p>
          </>
        )}
        <QuantityField
          label="Hollows may be filled by"
          q="height"
          at="lines/*/fill_m"
          value={line.fill_m ?? 0}
          onCommit={(m) =>
            set('fill', (l) => {
              if (m > 0) l.fill_m = m;
              else delete l.fill_m;
            })
          }
        />
        {report.fills.length > 0 && (
          <p>
            Fill {report.fills.length === 1 ? 'one hollow' : `${report.fills.length} hollows`}, the
            deepest by{' '}
            <Num
              value={Math.max(...report.fills.map((f) => f.depth_m))}
              q="height"
              from={{
                kind: 'formula',
                title: 'Depth of fill',
                formula: 'gap under the lowest strand − (strand height + allowance)',
                inputs: [
                  {
                    name: 'Allowance',
                    path: 'defaults.posts.clearanceAbove.value',
                    quantity: 'height',
                  },
                ],
              }}
            />
            .
          </p>
        )}
        <NoPosts line={line} report={report} />
      </div>
    </Part>
  );
}

/** Stretches where no post may stand: typed here, or found from things on the land. */
function NoPosts({ line, report }: { line: Line; report: LineReport }) {
  const where = useWhere(line, report);
  const [from, setFrom] = useState(0);
  const [to, setTo] = useState(0);
  const [why, setWhy] = useState('rock');
  const typed = line.noPosts ?? [];
  const others = report.barred.filter(
    (b) => !typed.some((t) => t.from_m === b.from_m && t.to_m === b.to_m),
  );
  return (
    <fieldset className="w-full">
      <legend className="font-semibold">No posts</legend>
      <ul>
        {typed.map((t, i) => (
          <li key={`${t.from_m}-${i}`} className="flex items-center gap-2">
            {where(t.from_m)} to {where(t.to_m)}: {t.why}
            <Button
              className="small"
              aria-label={`Allow posts again from ${where(t.from_m)}`}
              onClick={() =>
                commit(`allowed posts on ${line.name}`, (d) => {
                  d.lines[line.id]!.noPosts!.splice(i, 1);
                })
              }
            >
              <Trash2 size={14} aria-hidden />
            </Button>
          </li>
        ))}
        {others.map((b) => (
          <li key={`${b.from_m}${b.why}`} className="text-soft">
            {where(b.from_m)} to {where(b.to_m)}: {b.why}, from the map
          </li>
        ))}
        {report.barred.length === 0 && <li className="label">Posts may stand anywhere.</li>}
      </ul>
      <div className="no-print mt-1 flex flex-wrap items-end gap-2">
        <AlongField label="From" line={line} report={report} value={from} onCommit={setFrom} />
        <AlongField label="To" line={line} report={report} value={to} onCommit={setTo} />
        <input
          className="field w-28"
          aria-label="Why no posts"
          maxLength={80}
          value={why}
          onChange={(e) => setWhy(e.target.value)}
        />
        <Button
          disabled={Math.abs(to - from) < 0.05}
          onClick={() => {
            commit(`barred posts on ${line.name}`, (d) =>
              barPosts(d, line.id, from, to, why.trim()),
            );
            setFrom(0);
            setTo(0);
          }}
        >
          Bar it
        </Button>
      </div>
    </fieldset>
  );
}
