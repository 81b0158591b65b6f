/** The strip itself: ground, posts, strands and tracks of one line on one axis; loaded once a line is chosen. */
import { ChevronDown, Minus, Plus, Scan } from 'lucide-react';
import { scaleLinear } from 'd3-scale';
import { useMemo, useRef } from 'react';
import { say } from '../../core/base/units.js';
import type { Line } from '../../core/plan/schema.js';
import type { LineReport, SeasonPower } from '../../core/report/schema.js';
import { readAt, zAt, type Profile } from '../../core/terrain/profile.js';
import { useWhere } from '../../ui/parts/AlongField.js';
import { Num, useUnits } from '../../ui/parts/Num.js';
import { useProfile } from '../../ui/parts/profile.js';
import { look, useView, type Track } from '../../session/view.js';
import { keysOf, lookAt, useDragPan, useZoomWheel } from './moves.js';
import { postNear } from './PostCard.js';
import { GroundTrack } from './GroundTrack.js';
import { Axis, AXIS, LEFT, RIGHT, SectionWindow, type Scale } from './frame.js';
import { TRACKS } from './tracks.js';
import { Button } from '../../ui/parts/Button.js';

export interface StripProps {
  line: Line;
  report: LineReport;
  volts: SeasonPower['lines'][string] | null;
  width: number;
  /** Height that there is for all of it, px; the tracks share it. */
  height: number;
  tall: boolean;
  tracksOpen: boolean;
  onTracks: () => void;
}

/** Least height of the ground, of the row of words above it, and of the choice of tracks, px. */
const GROUND = 84;
const HEAD = 38;
const CHOICE = 30;

export function Strip(p: StripProps) {
  const { line, report, volts, width, tall, tracksOpen, onTracks } = p;
  const profile = useProfile(line);
  const reading = useReading({ line, report, profile, volts });
  const cursor = useView((v) => v.cursor);
  const window = useView((v) => v.window);
  const folded = useView((v) => v.folded);
  const steeper = useView((v) => v.steeper);
  const total = report.plan_m;
  const [from, to] = window ?? [0, total];
  // The same scale as long as the same is in view: the tracks are not drawn anew at every move of the pointer.
  const x: Scale = useMemo(
    () => scaleLinear([from, to], [LEFT, Math.max(LEFT + 100, width - RIGHT)]),
    [from, to, width],
  );
  // On other steps there is room for one: what the step is about.
  const only = useView((v) =>
    v.step === 'strain' ? 'pull' : v.step === 'faults' && v.chances ? 'chance' : 'volts',
  );
  const looking = useView((v) => v.chances !== null);
  const tracks = TRACKS.filter((t) =>
    t.id === 'chance' && !looking ? false : tall ? !folded.includes(t.id) : t.id === only,
  );
  // Whatever room there is goes to the tracks in proportion, most of it to the ground.
  const fixed = AXIS + 8 + HEAD + (tall && tracksOpen ? CHOICE : 0);
  const least = GROUND + tracks.reduce((h, t) => h + t.height, 0);
  const grown = Math.max(1, (p.height - fixed) / least);
  const heights = tracks.map((t) => Math.round(t.height * Math.min(grown, 2.2)));
  const below = heights.reduce((a, b) => a + b, 0);
  const groundHeight = Math.max(GROUND, p.height - fixed - below);
  const height = AXIS + groundHeight + 8 + below;
  const svg = useRef<SVGSVGElement>(null);
  useZoomWheel(svg, x, total);
  const drag = useDragPan(x, total);
  const zoom = (factor: number) => {
    const middle = cursor !== null && cursor >= from && cursor <= to ? cursor : (from + to) / 2;
    lookAt(middle - (middle - from) / factor, middle + (to - middle) / factor, total);
  };
  const shown = cursor === null ? null : Math.min(cursor, total);
  const keys = keysOf(line, report, shown, [from, to], zoom);
  let top = AXIS + groundHeight + 8;
  return (
    <>
      <div className="flex items-center gap-x-3 overflow-hidden px-3 pt-1 whitespace-nowrap">
        <bdi className="max-w-[45%] shrink-0 truncate font-semibold">{line.name}</bdi>
        <Num
          value={report.ground_m}
          q="tape"
          from={{
            kind: 'measured',
            title: 'Length over ground',
            formula: 'sum of sqrt(ds² + dz²) along the ground',
            source: 'Ground along the drawn line, at every change of its slope',
          }}
        />
        {shown === null && width > 620 && (
          <span className="label">
            {report.posts.length} posts, {line.strands.length} strands
          </span>
        )}
        <Reading s={shown} line={line} profile={profile} report={report} volts={volts} />
        <span className="ml-auto inline-flex gap-1">
          {tall && (
            <>
              <select
                className="field small text-[0.893rem]"
                aria-label="Ground drawn steeper"
                value={steeper}
                onChange={(e) => look({ steeper: Number(e.target.value) })}
              >
                {[0, 1, 2, 5, 10].map((k) => (
                  <option key={k} value={k}>
                    {k === 0 ? 'ground as fits' : k === 1 ? 'true to scale' : `${k} × steeper`}
                  </option>
                ))}
              </select>
              <Button className="small" aria-expanded={tracksOpen} onClick={onTracks}>
                Tracks
              </Button>
            </>
          )}
          <Button className="small" aria-label="Look closer" onClick={() => zoom(2)}>
            <Plus size={14} aria-hidden />
          </Button>
          <Button className="small" aria-label="See more" onClick={() => zoom(0.5)}>
            <Minus size={14} aria-hidden />
          </Button>
          <Button
            className="small"
            aria-label="The whole line"
            onClick={() => look({ window: null })}
          >
            <Scan size={14} aria-hidden />
          </Button>
          <Button
            className="strip-fold small"
            aria-label="Fold the section away"
            aria-expanded
            onClick={() => look({ sectionOpen: false })}
          >
            <ChevronDown size={14} aria-hidden />
          </Button>
        </span>
      </div>
      {tall && tracksOpen && <TrackChoice folded={folded} />}
      <svg
        ref={svg}
        width={width}
        height={height}
        viewBox={`0 0 ${width} ${height}`}
        role="slider"
        tabIndex={0}
        aria-label={`Cursor along ${line.name}; arrows go from post to post, plus and minus look closer and wider, P pins the post`}
        aria-valuemin={0}
        aria-valuemax={Math.round(total)}
        aria-valuenow={Math.round(shown ?? 0)}
        aria-valuetext={reading(shown ?? 0)}
        className="touch-pan-y"
        {...drag}
        onKeyDown={(event) => {
          if (!keys(event.key)) return;
          event.preventDefault();
          event.stopPropagation();
        }}
      >
        <SectionWindow width={width} height={height} />
        <Axis x={x} height={height} runs={report.runs} profile={profile} />
        <GroundTrack
          line={line}
          report={report}
          profile={profile}
          x={x}
          top={AXIS}
          height={groundHeight}
          steeper={tall ? steeper : 0}
        />
        {tracks.map((t, i) => {
          const at = top;
          top += heights[i]!;
          return (
            <g key={t.id} transform={`translate(0,${at})`} data-track={t.id}>
              <line x1={LEFT} x2={x.range()[1]!} y1={0} y2={0} stroke="var(--rule)" />
              <t.Draw
                line={line}
                report={report}
                profile={profile}
                volts={volts}
                x={x}
                height={heights[i]!}
              />
            </g>
          );
        })}
        {shown !== null && shown >= from && shown <= to && (
          <line
            x1={x(shown)}
            x2={x(shown)}
            y1={4}
            y2={height}
            stroke="var(--earth)"
            strokeWidth={1.5}
            data-cursor
          />
        )}
      </svg>
    </>
  );
}

function TrackChoice({ folded }: { folded: readonly Track[] }) {
  return (
    <fieldset className="flex flex-wrap gap-x-4 px-3 py-1">
      <legend className="sr-only">Tracks of the section</legend>
      {TRACKS.map((t) => (
        <label key={t.id} className="flex items-center gap-1.5">
          <input
            type="checkbox"
            className="size-4"
            checked={!folded.includes(t.id)}
            onChange={(e) =>
              look({
                folded: e.target.checked ? folded.filter((f) => f !== t.id) : [...folded, t.id],
              })
            }
          />
          {t.name}
        </label>
      ))}
    </fieldset>
  );
}

/** What stands at a place of the line, in words: for the eye above the section, and for those who hear it. */
function useReading({ line, report, profile, volts }: Omit<At, 's'>): (s: number) => string {
  const units = useUnits();
  const where = useWhere(line, report);
  return (s) => {
    const post = report.posts[postNear(report.posts, s)!]!;
    return [
      where(s),
      `ground ${say(zAt(profile, s), 'length', units)}`,
      volts ? say(readAt(volts.s_m, volts.v_V, s), 'volt', units) : '',
      post.uplift_N > 1 ? `lifted ${say(post.uplift_N, 'force', units)}` : '',
    ]
      .filter(Boolean)
      .join(', ');
  };
}

interface At {
  s: number | null;
  line: Line;
  profile: Profile;
  report: LineReport;
  volts: SeasonPower['lines'][string] | null;
}

function Reading({ s, ...of }: At) {
  const reading = useReading(of);
  if (s === null)
    return <span className="label min-w-0 truncate">move over the section to read it</span>;
  return (
    <span className="figure min-w-0 truncate text-[0.893rem]" aria-live="off" data-reading>
      {reading(s)}
    </span>
  );
}
