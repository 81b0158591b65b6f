/** What the lines and symbols of the map mean. */
import { THING_NAMES } from '../../core/edit/landEdits.js';
import { THING_KINDS } from '../../core/plan/schema.js';
import { useSession } from '../../session/session.js';
import { DrawnSymbol } from '../../ui/parts/DrawnSymbol.js';
import { FindingMark } from '../../ui/parts/FindingMark.js';
import { KIND_NAMES } from '../../ui/parts/findingShapes.js';
import { ENERGISER, GATE, GATE_BARE, spotOf } from '../../ui/symbols.js';
import { WAYS } from './ways.js';

function Row({ sign, words }: { sign: React.ReactNode; words: string }) {
  return (
    <li className="flex items-center gap-2">
      <span className="inline-grid w-10 shrink-0 place-items-center">{sign}</span>
      {words}
    </li>
  );
}

const Stroke = (p: { colour: string; width: number; dash?: string; rim?: string }) => (
  <svg width={38} height={12} aria-hidden>
    {p.rim && <line x1={1} x2={37} y1={6} y2={6} stroke={p.rim} strokeWidth={p.width + 7} />}
    <line
      x1={1}
      x2={37}
      y1={6}
      y2={6}
      stroke={p.colour}
      strokeWidth={p.width}
      strokeDasharray={p.dash}
    />
  </svg>
);

export function MapKey() {
  const things = useSession((s) => s.plan.things);
  const kinds = THING_KINDS.filter((k) => Object.values(things ?? {}).some((t) => t.kind === k));
  return (
    <details className="bg-panel/95 border-rule border px-2 py-1 text-[0.929rem]">
      <summary className="cursor-pointer">Key</summary>
      <ul className="max-h-[50vh] space-y-0.5 overflow-y-auto pb-1">
        <Row sign={<Stroke colour="var(--live)" width={2} />} words="fence, fed" />
        <Row sign={<Stroke colour="var(--ink)" width={2} dash="8 5" />} words="fence, not fed" />
        <Row sign={<Stroke colour="var(--live)" width={3.2} />} words="boundary fence" />
        <Row sign={<Stroke colour="var(--live)" width={2} rim="var(--pick)" />} words="chosen" />
        <Row sign={<DrawnSymbol drawn={GATE} />} words="gate" />
        <Row sign={<DrawnSymbol drawn={GATE_BARE} />} words="gate without a cable under it" />
        <Row sign={<DrawnSymbol drawn={ENERGISER} />} words="energiser" />
        {kinds.map((k) => {
          const spot = Object.values(things ?? {}).some(
            (t) => t.kind === k && t.points.length === 1,
          );
          const w = WAYS[k];
          return (
            <Row
              key={k}
              sign={
                spot ? (
                  <DrawnSymbol drawn={spotOf(k)} />
                ) : (
                  <Stroke colour={`var(--${w.ink})`} width={w.width} dash={w.dash.join(' ')} />
                )
              }
              words={THING_NAMES[k].split(',')[0]!.toLowerCase()}
            />
          );
        })}
        {(['stop', 'mend', 'confirm'] as const).map((kind) => (
          <Row
            key={kind}
            sign={<FindingMark kind={kind} silent />}
            words={`finding: ${KIND_NAMES[kind].toLowerCase()}`}
          />
        ))}
      </ul>
    </details>
  );
}
