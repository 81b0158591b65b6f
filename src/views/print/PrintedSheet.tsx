/** One sheet of the printed map: drawn in millimetres, so that it comes out true to scale. */
import { useMemo } from 'react';
import { say } from '../../core/base/units.js';
import { SHAPE_OF } from '../../core/land/things.js';
import { pointAt } from '../../core/plan/geometry.js';
import type { Grid, Plan, Point } from '../../core/plan/schema.js';
import type { Report } from '../../core/report/schema.js';
import { contourInterval, contourLines, heightRange } from '../../core/terrain/relief.js';
import { Key } from './Key.js';
import { PaperSymbol } from './PaperSymbol.js';
import { sheetWords, type Asked, type SheetWord } from './sheetWords.js';
import { mapSize, MARGIN, PAPERS, STRIP, type Paper, type Sheet } from './sheets.js';
import { WAY_STROKES } from './strokes.js';

interface Props {
  sheet: Sheet;
  count: number;
  paper: Paper;
  scale: number;
  plan: Plan;
  report: Report;
  grid: Grid | null;
  asked: Asked;
  /** Its mark in the pack. */
  mark?: string;
}

export function PrintedSheet(p: Props) {
  const { sheet, count, paper, scale, plan, report, grid, asked, mark } = p;
  const [w, h] = PAPERS[paper];
  const [mw, mh] = mapSize(paper);
  const { box } = sheet;
  const mm = 1000 / scale;
  const x = (p: Point) => MARGIN + (p.e - box.west) * mm;
  const y = (p: Point) => MARGIN + (box.north - p.n) * mm;
  const path = (points: readonly Point[]) =>
    points.map((p, i) => `${i ? 'L' : 'M'}${x(p).toFixed(2)} ${y(p).toFixed(2)}`).join('');
  const seen = (points: readonly Point[]) =>
    points.some((p) => p.e > box.west) &&
    points.some((p) => p.e < box.east) &&
    points.some((p) => p.n > box.south) &&
    points.some((p) => p.n < box.north);
  const contours = useMemo(() => {
    if (!grid) return [];
    const interval = contourInterval(...heightRange(grid));
    return contourLines(grid, interval).map((c) => ({
      ...c,
      heavy: Math.round(c.z_m / interval) % 5 === 0,
    }));
  }, [grid]);
  const { symbols, words } = useMemo(
    () =>
      sheetWords({
        plan,
        report,
        asked,
        at: (p) => ({ x: MARGIN + (p.e - box.west) * mm, y: MARGIN + (box.north - p.n) * mm }),
        frame: { x: MARGIN, y: MARGIN, w: mw, h: mh },
      }),
    [plan, report, asked, box, mm, mw, mh],
  );
  const clip = `sheet-${sheet.row}-${sheet.col}`;
  return (
    <svg
      className="mx-auto my-4 block break-after-page bg-white shadow print:m-0 print:shadow-none"
      style={{ width: `${w}mm`, height: `${h}mm` }}
      viewBox={`0 0 ${w} ${h}`}
      fontFamily="Archivo Variable, sans-serif"
      role="img"
      aria-label={`Map of ${plan.name}, 1 to ${scale}, sheet ${sheet.row + 1}-${sheet.col + 1}`}
      data-sheet
    >
      <clipPath id={clip}>
        <rect x={MARGIN} y={MARGIN} width={mw} height={mh} />
      </clipPath>
      <g clipPath={`url(#${clip})`} fill="none" strokeLinejoin="round">
        {contours.map((c) => (
          <path
            key={c.z_m}
            d={c.lines.filter(seen).map(path).join('')}
            stroke="#9aa3a6"
            strokeWidth={c.heavy ? 0.22 : 0.1}
          />
        ))}
        {Object.values(plan.things ?? {})
          .filter((t) => t.points.length > 1 && seen(t.points))
          .map((t) => (
            <g key={t.id}>
              <path
                d={path(t.points) + (SHAPE_OF[t.kind] === 'area' ? 'Z' : '')}
                fill={WAY_STROKES[t.kind].fill ?? 'none'}
                stroke={WAY_STROKES[t.kind].ink}
                strokeWidth={WAY_STROKES[t.kind].width}
                strokeDasharray={WAY_STROKES[t.kind].dash}
              />
            </g>
          ))}
        {Object.values(plan.lines)
          .filter((l) => seen(l.vertices))
          .map((l) => (
            <path
              key={l.id}
              d={path(l.vertices)}
              stroke="#b3261e"
              strokeWidth={l.boundary ? 0.8 : 0.45}
              data-line={l.id}
            />
          ))}
        {asked.posts &&
          Object.values(report.lines).flatMap((l) =>
            l.posts.map((p, i) => (
              <circle
                key={`${l.id}${i}`}
                cx={x(p)}
                cy={y(p)}
                r={p.role === 'line' ? 0.35 : 0.7}
                fill={p.role === 'line' ? 'white' : '#1c2b33'}
                stroke="#1c2b33"
                strokeWidth={0.15}
              />
            )),
          )}
        {Object.values(plan.gates).map((g) => {
          const line = plan.lines[g.line];
          if (!line) return null;
          const [a, b] = [-1, 1].map((k) => pointAt(line.vertices, g.at_m + (k * g.width_m) / 2));
          return (
            <g key={g.id}>
              <path d={path([a!, b!])} stroke="white" strokeWidth={1.4} />
              <path
                d={path([a!, b!])}
                stroke="#1c2b33"
                strokeWidth={0.3}
                strokeDasharray="0.6 0.4"
              />
            </g>
          );
        })}
        {symbols.map((s) => (
          <PaperSymbol
            key={`${s.x},${s.y}`}
            drawn={s.drawn}
            x={s.x}
            y={s.y}
            scale={s.w / s.drawn.w}
          />
        ))}
        {words.map((w) => (
          <MapWords key={`${w.text}${w.x},${w.y}`} word={w} />
        ))}
      </g>
      <rect
        x={MARGIN}
        y={MARGIN}
        width={mw}
        height={mh}
        fill="none"
        stroke="#1c2b33"
        strokeWidth={0.3}
      />
      <g transform={`translate(${MARGIN},${h - MARGIN - STRIP + 5})`}>
        <Words x={0} y={4} size={5}>
          {plan.name}
        </Words>
        <Words x={0} y={9.5} size={3}>
          {`1 : ${scale}${count > 1 ? `, sheet ${sheet.row + 1}-${sheet.col + 1} of ${count}` : ''}, grid north up`}
        </Words>
        <Words x={0} y={14} size={2.4} soft>
          {plan.invented ? 'Invented property. ' : ''}Plan of a fence, not of ownership. Locate
          buried services before digging.
        </Words>
        <Bar scale={scale} units={plan.units} x={mw * 0.36} />
        <Key x={mw * 0.55} plan={plan} posts={asked.posts} />
        <North x={mw - 4} />
        {mark && (
          <text x={mw - 12} y={14} fontSize={4} textAnchor="end">
            {mark}
          </text>
        )}
      </g>
    </svg>
  );
}

function MapWords({ word: { x, y, text, size, look, turn = 0 } }: { word: SheetWord }) {
  const rows = text.split('\n');
  return (
    <text
      transform={`translate(${x},${y}) rotate(${(turn * 180) / Math.PI})`}
      fontSize={size}
      textAnchor="middle"
      fontStyle={look === 'italic' ? 'italic' : undefined}
      fill={look === 'soft' || look === 'figure' ? '#4a565c' : '#1c2b33'}
      stroke="white"
      strokeWidth={size / 5}
      paintOrder="stroke"
      data-word
    >
      {rows.map((row, i) => (
        <tspan key={i} x={0} y={(i - (rows.length - 1) / 2) * size * 1.15 + size * 0.35}>
          {row}
        </tspan>
      ))}
    </text>
  );
}

function Words(p: {
  x: number;
  y: number;
  size: number;
  middle?: boolean;
  italic?: boolean;
  soft?: boolean;
  children: React.ReactNode;
}) {
  return (
    <text
      x={p.x}
      y={p.y}
      fontSize={p.size}
      textAnchor={p.middle ? 'middle' : 'start'}
      fontStyle={p.italic ? 'italic' : undefined}
      fill={p.soft ? '#4a565c' : '#1c2b33'}
      stroke="white"
      strokeWidth={p.size / 5}
      paintOrder="stroke"
    >
      {p.children}
    </text>
  );
}

/** A bar of a round length, true to scale, with its length on paper to check the printer by. */
function Bar({ scale, units, x }: { scale: number; units: Plan['units']; x: number }) {
  const unit = units === 'metric' ? 1 : 0.3048;
  const most = (45 * scale) / 1000 / unit;
  const power = 10 ** Math.floor(Math.log10(most));
  const nice = [5, 2, 1].find((k) => k * power <= most)! * power;
  const length = (nice * unit * 1000) / scale;
  return (
    <g transform={`translate(${x},2)`} data-bar>
      <path
        d={`M0 0v2.4h${length}v-2.4M${length / 2} 1.2v1.2`}
        fill="none"
        stroke="#1c2b33"
        strokeWidth={0.3}
      />
      <rect y={1.6} width={length / 2} height={0.8} fill="#1c2b33" data-half />
      <text y={6} fontSize={2.6}>
        0
      </text>
      <text x={length} y={6} fontSize={2.6} textAnchor="middle">
        {say(nice * unit, 'length', units)}
      </text>
      <text y={9.6} fontSize={2.2} fill="#4a565c">
        {`this bar is ${units === 'metric' ? `${length.toFixed(1)} mm` : `${(length / 25.4).toFixed(2)} in`} on paper`}
      </text>
    </g>
  );
}

function North({ x }: { x: number }) {
  return (
    <g transform={`translate(${x},0)`}>
      <path d="M0 0L2.2 7 0 5.6 -2.2 7Z" fill="#1c2b33" />
      <text y={11} fontSize={3} textAnchor="middle">
        N
      </text>
    </g>
  );
}
