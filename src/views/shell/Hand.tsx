/** In one hand: the view to the edges, a sheet that is pulled up, the steps at the thumb. */
import { useSession } from '../../session/session.js';
import { look, useView, useViewOf, type SheetSize, type SheetTab } from '../../session/view.js';
import { Divider, Pane, Pulled, Split } from '../../ui/parts/Split.js';
import { SectionStrip } from '../section/SectionStrip.js';
import type { Step } from '../steps.js';
import { FindingCounts, FindingList } from './Findings.js';
import { Rail } from './Rail.js';
import { OfFigures, StepSide, StepView, useSomeLine } from './StepView.js';

/** How far the sheet is open, percent. */
const OPEN: Record<SheetSize, number> = { peek: 0, half: 52, full: 96 };

export function Hand({ step, flat }: { step: Step; flat: boolean }) {
  useSomeLine(step);
  const size = useView((v) => v.sheetSize);
  return (
    <div className={`flex min-h-0 flex-1 ${flat ? '' : 'flex-col'}`}>
      {flat && <Rail />}
      <main className="flex min-h-0 min-w-0 flex-1" aria-label={step.name}>
        <Split id={`hand-${flat ? 'flat' : 'up'}`} down={!flat} className="min-h-0 flex-1">
          <Pane id="main" least="0%">
            <div id="view" tabIndex={-1} className="relative h-full min-w-0 overflow-auto">
              <StepView step={step} />
            </div>
          </Pane>
          <Divider label="How far the sheet is open" />
          <Pulled
            id="sheet"
            open={flat ? Math.min(OPEN[size], 40) : OPEN[size]}
            closed={flat ? '3.4rem' : '3.6rem'}
            onPulled={(percent) => {
              const now: SheetSize = percent < 15 ? 'peek' : percent < 75 ? 'half' : 'full';
              if (!flat && now !== size) look({ sheetSize: now });
            }}
          >
            <Sheet step={step} flat={flat} />
          </Pulled>
        </Split>
      </main>
      {!flat && <Rail low />}
    </div>
  );
}

function Sheet({ step, flat }: { step: Step; flat: boolean }) {
  const { sheetTab, sheetSize, line } = useViewOf('sheetTab', 'sheetSize', 'line');
  const name = useSession((s) => (line ? s.plan.lines[line]?.name : undefined));
  const tabs: (readonly [SheetTab, React.ReactNode])[] = [];
  if (step.side)
    tabs.push([
      'card',
      <bdi key="n">
        {(step.oneLine || step.cards?.ofLine ? name : undefined) ?? step.cards?.name ?? 'Lines'}
      </bdi>,
    ]);
  if (step.section && name !== undefined) tabs.push(['section', 'Section']);
  tabs.push(['findings', <FindingCounts key="f" />]);
  const tab = tabs.find(([t]) => t === sheetTab)?.[0] ?? tabs[0]![0];
  const press = (t: SheetTab) => {
    if (t !== tab || sheetSize === 'peek')
      look({ sheetTab: t, sheetSize: sheetSize === 'peek' ? 'half' : sheetSize });
    else look({ sheetSize: sheetSize === 'half' ? 'peek' : 'half' });
  };
  return (
    <section
      aria-label="Sheet"
      className={`bg-panel flex h-full min-h-0 ${flat ? '' : 'flex-col'}`}
    >
      <div
        role="group"
        aria-label="What the sheet shows"
        className={`no-print flex shrink-0 gap-1 px-2 ${flat ? 'w-[3.2rem] flex-col overflow-hidden' : 'h-[3.4rem] items-center'}`}
      >
        {tabs.map(([t, words]) => (
          <button
            key={t}
            className={`sheet-tab min-w-0 truncate ${t === 'findings' ? 'shrink-0 grow' : 'flex-1'} ${t === tab && sheetSize !== 'peek' ? 'bg-chosen font-semibold' : ''}`}
            aria-expanded={t === tab && sheetSize !== 'peek'}
            onClick={() => press(t)}
          >
            {words}
          </button>
        ))}
      </div>
      {sheetSize !== 'peek' && (
        <div
          className={`min-h-0 min-w-0 flex-1 overflow-x-hidden overflow-y-auto ${tab === 'section' || (tab === 'card' && step.cards) ? '' : 'no-print'}`}
          key={`${step.id}${tab}`}
        >
          {tab === 'card' && <StepSide step={step} />}
          {tab === 'section' && (
            <OfFigures what="The section">
              <SectionStrip />
            </OfFigures>
          )}
          {tab === 'findings' && <FindingList />}
        </div>
      )}
    </section>
  );
}
