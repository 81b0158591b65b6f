/** The tools of the map in one row, and a word on the one in the hand. */
import { Fence, MapPin, MousePointer2, PenLine, Route, Zap } from 'lucide-react';
import { THING_NAMES } from '../../core/edit/landEdits.js';
import { SHAPE_OF } from '../../core/land/things.js';
import { THING_KINDS, type ThingKind } from '../../core/plan/schema.js';
import { look, useView, type Tool } from '../../session/view.js';
import { takeTool } from './actions.js';

const TOOLS: readonly { tool: Tool; name: string; key: string; icon: typeof Zap }[] = [
  { tool: 'select', name: 'Choose', key: 'V', icon: MousePointer2 },
  { tool: 'draw', name: 'Draw', key: 'D', icon: PenLine },
  { tool: 'lane', name: 'Lane', key: 'L', icon: Route },
  { tool: 'gate', name: 'Gate', key: 'G', icon: Fence },
  { tool: 'energiser', name: 'Unit', key: 'E', icon: Zap },
];

export function LandTools() {
  const tool = useView((v) => v.tool);
  return (
    <div className="border-rule bg-panel no-print shrink-0 border-b px-2 py-1">
      <div role="toolbar" aria-label="Tools" className="tools flex gap-1">
        {TOOLS.map(({ tool: t, name, key, icon: Icon }) => (
          <button
            key={t}
            type="button"
            className="button tool"
            aria-pressed={tool === t}
            onClick={() => {
              takeTool(t);
              // The card of the tool lies in the side, which may be a sheet.
              if (t !== 'select') look({ sheetTab: 'card' });
            }}
            title={`${t === 'energiser' ? 'Energiser' : name} (${key})`}
          >
            <Icon size={16} aria-hidden />
            {name}
          </button>
        ))}
        <ThingTool tool={tool} />
      </div>
      <ToolHint tool={tool} />
    </div>
  );
}

/** The tool for everything else that lies on the land. */
function ThingTool({ tool }: { tool: Tool }) {
  const kind = tool in SHAPE_OF ? (tool as ThingKind) : '';
  return (
    <span className={`button tool relative ${kind ? '!bg-ink !text-sheet' : ''}`}>
      <MapPin size={16} aria-hidden />
      <span aria-hidden>{kind ? THING_NAMES[kind].split(',')[0] : 'Land'}</span>
      <select
        className="absolute -inset-px w-[calc(100%+2px)] cursor-pointer opacity-0"
        aria-label="Put a thing on the land"
        value={kind}
        onChange={(e) => {
          takeTool((e.target.value || 'select') as Tool);
          look({ sheetTab: 'card' });
        }}
      >
        <option value="">Land …</option>
        {THING_KINDS.map((k) => (
          <option key={k} value={k}>
            {THING_NAMES[k].split(',')[0]}
          </option>
        ))}
      </select>
    </span>
  );
}

const HINTS: Partial<Record<Tool, string>> = {
  select:
    'Press a line or paddock to choose it; drag a corner or a leg, or the dot in its middle for a new corner.',
  draw: 'Press from point to point. It catches on corners, lines and edges. Enter, or the last point again, ends the line.',
  lane: 'Press along its middle; Enter, or the last point again, puts both fences down.',
  gate: 'Press where the gate stands on a line, or type the place beside the map.',
  energiser:
    'Press where the unit stands; its lead-out goes to the nearest line. Or type the place beside the map.',
};
const SHAPE_HINTS = {
  point: 'Press where it is, or type the place beside the map.',
  way: 'Press from point to point. Enter, or the last point again, ends it.',
  area: 'Press its corners in turn. Enter, or the last point again, ends it.',
};

function ToolHint({ tool }: { tool: Tool }) {
  const words =
    HINTS[tool] ?? `${THING_NAMES[tool as ThingKind]}: ${SHAPE_HINTS[SHAPE_OF[tool as ThingKind]]}`;
  return <p className="tool-hint label mt-1">{words}</p>;
}
