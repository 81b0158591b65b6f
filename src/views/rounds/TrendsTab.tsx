/** What each place read over the year against what it should have read on such days; and the property as a whole. */
import { useState } from 'react';
import { seasonOf } from '../../core/rounds/logged.js';
import { expectedAt, type TestPoint } from '../../core/rounds/points.js';
import { useSession } from '../../session/session.js';
import { Part, Select } from '../../ui/parts/controls.js';
import { LineChart } from '../../ui/parts/LineChart.js';
import { useUnits } from '../../ui/parts/Num.js';
import { dayName } from '../build/built.js';
import { useLog, usePointName, valueWords, type ReadingRecord } from './rounds.js';

const day = (v: number): string => new Date(v).toISOString().slice(0, 10);
const middle = (x: readonly number[]): number => [...x].sort((a, b) => a - b)[x.length >> 1]!;

export function TrendsTab() {
  const log = useLog();
  const name = usePointName();
  const report = useSession((s) => s.report);
  const [chosen, setChosen] = useState('');
  const read = log.points.filter((p) => (log.at.get(p.key)?.length ?? 0) > 0);
  if (!report || read.length === 0) return <p>{log.known ? 'Nothing was read yet: put readings down on Round.' : 'Asking for the log …'}</p>;
  const worst = read.filter((p) => p.kind === 'volts' && p.line !== null)[0] ?? read[0]!;
  const point = read.find((p) => p.key === chosen) ?? worst;
  const shareOf = (p: TestPoint, r: ReadingRecord): number | null => {
    const v = expectedAt(report, p, seasonOf(r));
    return v && v > 0 ? r.value / v : null;
  };
  return (
    <div className="max-w-[64em]">
      <Part
        title="One place"
        aside={<Select label="Place" value={point.key} width="max-w-[18rem]" options={read.map((p) => [p.key, name(p)] as const)} onChange={setChosen} />}
      >
        <PointChart point={point} read={log.at.get(point.key) ?? []} should={(r) => expectedAt(report, point, seasonOf(r))} />
      </Part>
      <Part title="The property">
        <p className="label mb-1">Of what each place should read on such a day: the middle of each day, and its lowest.</p>
        <WholeChart days={wholeOf(read, log.at, shareOf)} />
      </Part>
    </div>
  );
} // prettier-ignore

interface WholeDay {
  readonly t: number;
  readonly middle: number;
  readonly low: number;
}

function wholeOf(points: readonly TestPoint[], at: ReadonlyMap<string, readonly ReadingRecord[]>, shareOf: (p: TestPoint, r: ReadingRecord) => number | null): WholeDay[] {
  const days = new Map<string, number[]>();
  for (const p of points) {
    if (p.kind !== 'volts' || p.line === null) continue;
    for (const r of at.get(p.key) ?? []) {
      const share = shareOf(p, r);
      if (share === null || r.kind !== 'volts') continue;
      const key = r.time.slice(0, 10);
      days.set(key, [...(days.get(key) ?? []), 100 * share]);
    }
  }
  return [...days.entries()]
    .map(([d, all]) => ({ t: Date.parse(d), middle: middle(all), low: Math.min(...all) }))
    .sort((a, b) => a.t - b.t);
} // prettier-ignore

const DAYS = {
  title: 'day',
  ticks: { maxTicksLimit: 8, callback: (v: number | string) => day(Number(v)) },
};

function PointChart({ point, read, should }: { point: TestPoint; read: readonly ReadingRecord[]; should: (r: ReadingRecord) => number | null }) {
  const units = useUnits();
  const name = usePointName();
  const scale = point.kind === 'volts' ? 1000 : 1;
  const of = (list: readonly { t: string; v: number | null }[]) => list.flatMap(({ t, v }) => (v === null ? [] : [{ x: Date.parse(t), y: v / scale }]));
  const last = read.at(-1);
  return (
    <div className="h-[260px]">
      <LineChart
        label={`${name(point)}: ${read.length} readings${last ? `, the last ${valueWords(last.kind, last.value, units)} on ${dayName(last.time.slice(0, 10))}` : ''}`}
        curves={(colour) => [
          {
            label: 'read',
            data: of(read.map((r) => ({ t: r.time, v: r.value }))),
            borderColor: colour('ink'),
            backgroundColor: colour('panel'),
            borderWidth: 1.5,
            pointStyle: 'circle',
            pointRadius: 4,
          },
          {
            label: 'expected on such a day',
            data: of(read.map((r) => ({ t: r.time, v: should(r) }))),
            borderColor: colour('soft'),
            borderDash: [2, 4],
            borderWidth: 1.5,
            pointRadius: 0,
            pointStyle: 'line',
          },
        ]}
        x={DAYS}
        y={{ beginAtZero: true, title: point.kind === 'volts' ? 'kV' : 'V' }}
        box={18}
      />
    </div>
  );
} // prettier-ignore

function WholeChart({ days }: { days: readonly WholeDay[] }) {
  if (days.length === 0) return <p>No volts were read along the lines yet.</p>;
  const last = days.at(-1)!;
  return (
    <div className="h-[220px]">
      <LineChart
        label={`Share of what is expected over ${days.length} days; the last, ${day(last.t)}: middle ${Math.round(last.middle)} %, lowest ${Math.round(last.low)} %`}
        curves={(colour) => [
          { label: 'middle', data: days.map((d) => ({ x: d.t, y: d.middle })), borderColor: colour('ink'), borderWidth: 1.5, pointRadius: 3, pointStyle: 'circle', backgroundColor: colour('panel') },
          { label: 'lowest place', data: days.map((d) => ({ x: d.t, y: d.low })), borderColor: colour('live'), borderDash: [6, 3], borderWidth: 1.5, pointRadius: 3, pointStyle: 'rectRot', backgroundColor: colour('panel') },
          { label: 'all of it', data: [days[0]!, last].map((d) => ({ x: d.t, y: 100 })), borderColor: colour('soft'), borderDash: [1, 4], borderWidth: 1.5, pointRadius: 0, pointStyle: 'line' },
        ]}
        x={DAYS}
        y={{ beginAtZero: true, title: '% of expected' }}
        box={18}
      />
    </div>
  );
} // prettier-ignore
