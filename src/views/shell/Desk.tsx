import { useState } from 'react';
import { PanelLeftClose, PanelLeftOpen, PanelRightOpen } from 'lucide-react';
import type { Shape } from '../../session/shape.js';
import { useSession } from '../../session/session.js';
import { look, useView, useViewOf } from '../../session/view.js';
import { Button } from '../../ui/parts/Button.js';
import { Divider, Pane, Split } from '../../ui/parts/Split.js';
import { SectionStrip } from '../section/SectionStrip.js';
import type { Step } from '../steps.js';
import { Findings, FindingsDrawer } from './Findings.js';
import { Rail } from './Rail.js';
import { OfFigures, StepSide, StepView, useSomeLine } from './StepView.js';

/** On a desk: steps, what one chooses from, the view with the section below, findings beside. */
export function Desk({ step, shape }: { step: Step; shape: Shape }) {
  useSomeLine(step);
  const { sideOpen, findingsOpen, drawer } = useViewOf('sideOpen', 'findingsOpen', 'drawer');
  const narrow = shape === 'narrow';
  const vast = shape === 'vast';
  // With the drawer over the view there is no room for both.
  const side = step.side !== undefined && sideOpen && !(narrow && drawer);
  const beside = !narrow && findingsOpen;
  // A list of lines is as wide on every step; cards want their own room on each.
  const cards = step.cards ? `side-${step.id}` : 'side';
  return (
    <div className="relative flex min-h-0 flex-1">
      <div className="border-rule bg-panel no-print flex shrink-0 flex-col border-r">
        <Rail />
        {step.side && (
          <button
            className="label m-1 mt-auto inline-flex min-h-9 cursor-pointer items-center gap-1.5 px-1"
            aria-expanded={sideOpen}
            onClick={() => look({ sideOpen: !sideOpen })}
          >
            {sideOpen ? (
              <PanelLeftClose size={15} aria-hidden />
            ) : (
              <PanelLeftOpen size={15} aria-hidden />
            )}
            {step.cards?.name ?? 'Lines'}
          </button>
        )}
      </div>
      <main className="flex min-w-0 flex-1" aria-label={step.name}>
        <Split id="desk" className="across">
          {side && (
            <Pane
              id={cards}
              key="side"
              size={sizeOf(step, shape)}
              least="10rem"
              most="60%"
              // Cards say what the step found; a list of lines only chooses.
              className={step.cards ? '' : 'no-print'}
            >
              <section
                aria-label={
                  step.cards ? `${step.cards.name}: what is chosen` : 'Lines to choose from'
                }
                className="bg-panel relative h-full overflow-y-auto"
              >
                <StepSide step={step} />
              </section>
            </Pane>
          )}
          {side && (
            <Divider label={step.cards ? 'Width of the cards' : 'Width of the list of lines'} />
          )}
          <Pane id="main">
            <div className="flex h-full min-w-0 flex-col">
              <Above step={step} />
            </div>
          </Pane>
          {beside && <Divider label="Width of the findings" />}
          {beside && (
            <Pane
              id="findings"
              size={vast ? '28rem' : '18rem'}
              least="14rem"
              most="45%"
              className="no-print"
            >
              <Findings />
            </Pane>
          )}
        </Split>
        {!narrow && !findingsOpen && (
          <section aria-label="Findings" className="border-rule bg-panel no-print border-l p-1">
            <Button aria-label="Show findings" onClick={() => look({ findingsOpen: true })}>
              <PanelRightOpen size={16} aria-hidden />
            </Button>
          </section>
        )}
        {narrow && drawer && <FindingsDrawer />}
      </main>
    </div>
  );
}

/** How wide what stands beside the view is at first. */
function sizeOf({ cards }: Step, shape: Shape): string {
  if (!cards) return shape === 'vast' ? '18rem' : '12rem';
  if (cards.size.endsWith('%')) return cards.size;
  return shape === 'vast' ? '26rem' : shape === 'narrow' ? '17rem' : cards.size;
}

/** The view, and the section of the chosen line below it. */
function Above({ step }: { step: Step }) {
  const { sectionOpen, line } = useViewOf('sectionOpen', 'line');
  const known = useSession((s) => line !== null && line in s.plan.lines);
  const tall = step.id === 'section';
  // One tree for all steps: the map must not be made anew when a line is chosen.
  const pen = useView((v) => v.tool !== 'select') && step.id === 'land';
  const below = useHeld(step.section && known && sectionOpen, pen) && known;
  const pane = tall ? 'section-tall' : 'section-low';
  return (
    <>
      <Split id="main-split" down className="min-h-0 flex-1">
        <Pane id="upper" key="upper" least="8rem">
          <div id="view" tabIndex={-1} className="relative h-full min-h-0 overflow-auto">
            <StepView step={step} />
          </div>
        </Pane>
        {below && <Divider key="divider" label="Height of the section" />}
        {below && (
          <Pane key="section" id={pane} size={tall ? '26rem' : '15rem'} least="9rem" most="80%">
            <OfFigures what="The section">
              <SectionStrip />
            </OfFigures>
          </Pane>
        )}
      </Split>
      {/* Without a line, or folded, it is one row of words. */}
      {step.section && !below && <SectionStrip folded />}
    </>
  );
}

/** With the pen in the hand the map keeps its room: what one is about to press must not slide from under it. */
function useHeld(open: boolean, hold: boolean): boolean {
  const [held, setHeld] = useState(open);
  if (!hold && held !== open) setHeld(open);
  return held;
}
