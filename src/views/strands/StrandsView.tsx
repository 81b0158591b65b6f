import { Tabs } from '../../ui/parts/Tabs.js';
import { useEffect, useState } from 'react';
import type { Line } from '../../core/plan/schema.js';
import type { LineReport } from '../../core/report/schema.js';
import { say } from '../../core/base/units.js';
import { Num, useUnits, WhereFrom } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { drawn, useSession, watchChoices } from '../../session/session.js';
import { look, useView, type StrandsTab } from '../../session/view.js';
import { Bench, grassKey, grassOf } from './Bench.js';
import { Demands } from './Demands.js';
import { Designs } from './Designs.js';
import { Kinds } from './Kinds.js';
import { Marks } from './Marks.js';
import { OldFence } from './OldFence.js';
import { Proposals } from './Proposals.js';
import { Stock } from './Stock.js';
import { StrandTable } from './StrandTable.js';
import { TradePart } from './TradeChart.js';
import { Button } from '../../ui/parts/Button.js';

const TABS: readonly (readonly [StrandsTab, string])[] = [
  ['strands', 'Strands'],
  ['asks', 'What it asks'],
  ['proposals', 'Proposals'],
  ['trade', 'Posts or strands'],
  ['kinds', 'Other fences'],
  ['old', 'Old fence'],
  ['designs', 'Designs'],
];

/** Which make-up holds this stock on this ground: the bench, and below it the reasons. */
export function StrandsView() {
  const id = useView((v) => v.line);
  // The bench follows the hand; what is worked out of it follows the figures.
  const line = useSession((s) => (id ? drawn(s).lines[id] : undefined));
  const known = line?.id ?? null;
  useEffect(() => {
    watchChoices(known);
    return () => watchChoices(null);
  }, [known]);
  return (
    <div className="@container relative p-4">
      {line && <LineStrands key={line.id} line={line} />}
    </div>
  );
}

function LineStrands({ line }: { line: Line }) {
  const report = useSession((s) => s.report?.lines[line.id]);
  const [chosen, setChosen] = useState<number | null>(null);
  const tab = useView((v) => v.strandsTab);
  const setTab = (strandsTab: StrandsTab) => look({ strandsTab });
  const [beast, setBeast] = useState<string | null | undefined>(undefined);
  const animals = useAnimals(report);
  const animal =
    beast === undefined || !(beast === null || animals.includes(beast))
      ? (animals[0] ?? null)
      : beast;
  return (
    // With room for both, the bench and what is said of it stand side by side.
    <div className="gap-x-8 @[76rem]:grid @[76rem]:grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)]">
      <div className="min-w-0">
        <div className="flex flex-wrap items-baseline justify-between gap-x-4 gap-y-1">
          <h2 className="heading">
            {line.name}: {line.strands.length} strands
            <DesignName line={line} />
          </h2>
          <Beside animals={animals} animal={animal} onChange={setBeast} />
        </div>
        <Bench
          line={line}
          marks={report?.marks ?? []}
          animal={animal}
          chosen={chosen}
          onChoose={setChosen}
        />
        {report && <Marks line={line} report={report} />}
        <BenchNotes report={report} />
      </div>
      <div className="min-w-0">
        <Tabs label="About these strands" tabs={TABS} chosen={tab} onChoose={setTab}>
          {tab === 'strands' && <StrandTable line={line} chosen={chosen} onChoose={setChosen} />}
          {tab === 'asks' && (
            <>
              <Stock line={line} />
              {report?.requirement && <Demands line={line} need={report.requirement} />}
            </>
          )}
          {tab === 'proposals' && <Proposals line={line} />}
          {tab === 'trade' && report && <TradePart line={line} report={report} />}
          {tab === 'kinds' && <Kinds line={line} />}
          {tab === 'old' && <OldFence line={line} report={report} />}
          {tab === 'designs' && <Designs line={line} />}
        </Tabs>
      </div>
    </div>
  );
}

function DesignName({ line }: { line: Line }) {
  const design = useSession((s) => (line.design ? s.plan.designs?.[line.design] : undefined));
  return design ? <span className="label ml-2">design: {design.name}</span> : null;
}

/** The kinds of animals at a line, grown and young. */
function useAnimals(report: LineReport | undefined): string[] {
  const cat = useCatalogue();
  const ids = report?.requirement?.profiles ?? [];
  return [...new Set(ids.map((id) => cat.profiles[id]!.animal))];
}

function Beside({
  animals,
  animal,
  onChange,
}: {
  animals: readonly string[];
  animal: string | null;
  onChange: (animal: string | null) => void;
}) {
  const cat = useCatalogue();
  if (animals.length === 0) return null;
  return (
    <div
      role="group"
      aria-label="Animal beside the fence, for size"
      className="flex flex-wrap gap-1"
    >
      {animals.map((a) => (
        <Button
          key={a}
          className="small text-[0.929rem]"
          aria-pressed={a === animal}
          onClick={() => onChange(a)}
        >
          {cat.animals[a]!.name} and {cat.animals[a]!.young}
        </Button>
      ))}
      <Button
        className="small text-[0.929rem]"
        aria-pressed={animal === null}
        onClick={() => onChange(null)}
      >
        none
      </Button>
    </div>
  );
}

/** What the drawing shows beside the strands, and how they are moved. */
function BenchNotes({ report }: { report: LineReport | undefined }) {
  const cat = useCatalogue();
  const units = useUnits();
  const season = useView((v) => v.season);
  const grass = grassOf(season, cat);
  return (
    <div className="label mt-1 flex flex-wrap gap-x-5 gap-y-0.5">
      <span>
        Drag a strand, or choose it: ↑ ↓ height, Alt ↑ ↓ order, L E C duty, I insulators, + new, Del
        away.
      </span>
      <span>
        Grass {say(grass, 'height', units)}
        <WhereFrom
          shown={say(grass, 'height', units)}
          origin={{
            kind: 'default',
            title: 'Grass under the fence in this season',
            inputs: [
              { name: 'Grass', path: `defaults.${grassKey(season)}.value`, quantity: 'height' },
            ],
          }}
        />
      </span>
      {report?.effectiveGap_m != null && (
        <span>
          A push at mid-bay opens the widest gap to{' '}
          <Num
            value={report.effectiveGap_m}
            q="height"
            from={{
              kind: 'formula',
              title: 'Widest gap with what a push opens',
              formula: 'gap + d₁ + d₂, where F = 4 d (T + EA ΔL/L) / L at mid-bay',
              source:
                'Taut wires pushed aside at mid-bay with their stretch, on the hottest day and in the longest bay; gaps above the reach of the stock are left out',
              inputs: [{ name: 'Push', path: 'defaults.wire.pushForce.value', quantity: 'force' }],
            }}
          />
        </span>
      )}
    </div>
  );
}
