import { Fence, MousePointer2, PenLine, Route, Zap } from 'lucide-react';
import { lazy, useState } from 'react';
import { Loaded } from '../../ui/parts/Loaded.js';
import { useSession } from '../../session/session.js';
import { useView, useViewOf, type Tool } from '../../session/view.js';
import { THING_NAMES } from '../../core/edit/landEdits.js';
import { SHAPE_OF } from '../../core/land/things.js';
import { THING_KINDS, type ThingKind } from '../../core/plan/schema.js';
import { takeTool } from './actions.js';
import { DrawPanel } from './DrawPanel.js';
import { Overview } from './Overview.js';
import { useWaiting } from './waiting.js';
import { Button } from '../../ui/parts/Button.js';

// What is first shown is the map: a card comes when something is chosen.
const cards = () => import('./cards.js');
const PaddockCard = lazy(() => cards().then((m) => ({ default: m.PaddockCard })));
const WalkReview = lazy(() => cards().then((m) => ({ default: m.WalkReview })));
const ManyCard = lazy(() => cards().then((m) => ({ default: m.ManyCard })));
const ThingCard = lazy(() => cards().then((m) => ({ default: m.ThingCard })));
const LineCard = lazy(() => cards().then((m) => ({ default: m.LineCard })));

const TOOLS: readonly { tool: Tool; name: string; key: string; icon: typeof Zap }[] = [
  { tool: 'select', name: 'Choose', key: 'V', icon: MousePointer2 },
  { tool: 'draw', name: 'Draw', key: 'D', icon: PenLine },
  { tool: 'lane', name: 'Lane', key: 'L', icon: Route },
  { tool: 'gate', name: 'Gate', key: 'G', icon: Fence },
  { tool: 'energiser', name: 'Energiser', key: 'E', icon: Zap },
];

/** The tools, and what goes with the one in the hand. */
export function LandTools() {
  const tool = useView((v) => v.tool);
  const [said, setSaid] = useState<string | null>(null);
  const waits = useWaiting((w) => w.walk !== null);
  const drawing = tool === 'draw' || tool === 'lane' || tool in SHAPE_OF;
  return (
    <div className="border-rule bg-panel no-print max-h-[62vh] overflow-y-auto border-r border-b p-3 max-[700px]:max-h-none">
      <div
        role="toolbar"
        aria-label="Tools"
        className="grid grid-cols-2 gap-1 max-[700px]:grid-cols-3"
      >
        {TOOLS.map(({ tool: t, name, key, icon: Icon }) => (
          <Button
            key={t}

            aria-pressed={tool === t}
            onClick={() => takeTool(t)}
            title={`${name} (${key})`}
          >
            <Icon size={15} aria-hidden />
            {name}
          </Button>
        ))}
        <ThingTool tool={tool} />
      </div>
      <ToolHint tool={tool} />
      {drawing && <DrawPanel tool={tool} />}
      {waits && (
        <Loaded what="The walk">
          <WalkReview onDone={setSaid} />
        </Loaded>
      )}
      {said && (
        <p role="status" className="label mt-2">
          {said}
        </p>
      )}
    </div>
  );
}

/** What is chosen, else the whole property with its files. */
export function LandCards() {
  const { line, also, thing } = useViewOf('line', 'also', 'thing');
  const exists = useSession((s) => (line ? line in s.plan.lines : false));
  return (
    <div
      className="border-rule bg-panel no-print min-h-0 overflow-y-auto border-r p-3 max-[700px]:overflow-visible"
      tabIndex={-1}
    >
      <Loaded what="What is chosen">
        {thing?.kind === 'paddock' ? (
          <PaddockCard at={thing.id} />
        ) : thing ? (
          <ThingCard thing={thing} />
        ) : line && exists && also.length > 0 ? (
          <ManyCard ids={[line, ...also]} />
        ) : line && exists ? (
          <LineCard id={line} />
        ) : (
          <Overview />
        )}
      </Loaded>
    </div>
  );
}

/** The tool for everything else that lies on the land. */
function ThingTool({ tool }: { tool: Tool }) {
  const kind = tool in SHAPE_OF ? (tool as ThingKind) : '';
  return (
    <select
      className={`field ${kind ? 'bg-chosen font-semibold' : ''}`}
      aria-label="Put a thing on the land"
      value={kind}
      onChange={(e) => takeTool((e.target.value || 'select') as Tool)}
    >
      <option value="">Land …</option>
      {THING_KINDS.map((k) => (
        <option key={k} value={k}>
          {THING_NAMES[k].split(',')[0]}
        </option>
      ))}
    </select>
  );
}

const HINTS: Partial<Record<Tool, string>> = {
  select:
    'Press a line or paddock to choose it; drag a vertex or a leg, or the dot in its middle for a new vertex. Shift: the whole line.',
  draw: 'Press from point to point. It catches on vertices, lines and rims. Enter, or the last point again, ends the line.',
  lane: 'Press along its middle; Enter, or the last point again, puts both fences down.',
  gate: 'Press where the gate stands on a line.',
  energiser: 'Press where the unit stands; its lead-out goes to the nearest line.',
};
const SHAPE_HINTS = {
  point: 'Press where it is.',
  way: 'Press from point to point. Enter, or the last point again, ends it.',
  area: 'Press its corners in turn. Enter, or the last point again, ends it.',
};

function ToolHint({ tool }: { tool: Tool }) {
  const words =
    HINTS[tool] ?? `${THING_NAMES[tool as ThingKind]}: ${SHAPE_HINTS[SHAPE_OF[tool as ThingKind]]}`;
  return <p className="label mt-2">{words}</p>;
}
