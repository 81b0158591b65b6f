import { Check } from '../../ui/parts/controls.js';
import { ArrowLeft, Printer } from 'lucide-react';
import { useState } from 'react';
import { inUnits } from '../../core/base/prose.js';
import { OnLoaded, type Loaded } from './OnLoaded.js';
import type { Asked } from './sheetWords.js';
import { PrintedSheet } from './PrintedSheet.js';
import { extentOf } from './mapLeaves.js';
import { PAPERS, SCALES, scaleFor, sheetsOf, type Paper } from './sheets.js';
import { Button } from '../../ui/parts/Button.js';

/** The map at a true scale, on as many sheets as it takes. */
export function PrintView({ id }: { id: string }) {
  return (
    <OnLoaded id={id} words="Drawing the map …">
      {(loaded) => <Sheets id={id} loaded={loaded} />}
    </OnLoaded>
  );
}

/** What can be written on the map. */
const WORDS: Record<keyof Asked, string> = {
  lengths: 'lengths',
  strands: 'strands',
  corners: 'corner numbers',
  posts: 'posts',
};

function Sheets({ id, loaded }: { id: string; loaded: Loaded }) {
  const box = extentOf(loaded.plan);
  const [paper, setPaper] = useState<Paper>('A4 landscape');
  const [scale, setScale] = useState<number | null>(null);
  const [ground, setGround] = useState(true);
  const [asked, setAsked] = useState<Asked>({
    lengths: true,
    strands: false,
    posts: false,
    corners: false,
  });
  const shown = scale ?? scaleFor(box, paper);
  const sheets = sheetsOf(box, paper, shown);
  const [w, h] = PAPERS[paper];
  return (
    <main className="bg-sheet min-h-dvh print:bg-white" aria-label="Printed map">
      <style>{`@page { size: ${w}mm ${h}mm; margin: 0 } @media print { html, body { background: white } }`}</style>
      <div className="no-print border-rule bg-panel sticky top-0 z-10 flex flex-wrap items-center gap-x-5 gap-y-2 border-b p-3">
        <h1 className="heading">{loaded.plan.name}</h1>
        <a className="button" href={`/p/${id}/land`}>
          <ArrowLeft size={14} aria-hidden /> Land
        </a>
        <label className="flex items-center gap-1.5">
          <span className="label">Paper</span>
          <select
            className="field"
            value={paper}
            onChange={(e) => setPaper(e.target.value as Paper)}
          >
            {Object.keys(PAPERS).map((p) => (
              <option key={p}>{p}</option>
            ))}
          </select>
        </label>
        <label className="flex items-center gap-1.5">
          <span className="label">Scale</span>
          <select
            className="field"
            value={scale ?? ''}
            onChange={(e) => setScale(e.target.value ? Number(e.target.value) : null)}
          >
            <option value="">on one sheet, 1 : {scaleFor(box, paper)}</option>
            {SCALES.map((s) => (
              <option key={s} value={s}>
                1 : {s}
              </option>
            ))}
          </select>
        </label>
        {loaded.grid && (
          <Check label="contours" checked={ground} onChange={(on) => setGround(on)} />
        )}
        {(Object.keys(WORDS) as (keyof Asked)[]).map((key) => (
          <Check
            key={key}
            label={WORDS[key]}
            checked={asked[key]}
            onChange={(on) => setAsked({ ...asked, [key]: on })}
          />
        ))}
        <span className="label" role="status">
          {sheets.length === 1
            ? 'one sheet'
            : inUnits(`${sheets.length} sheets that lap over by 10 mm`, loaded.plan.units)}
        </span>
        {sheets.length <= 60 ? (
          <Button strong onClick={() => print()}>
            <Printer size={14} aria-hidden /> Print
          </Button>
        ) : (
          <span role="alert" className="text-stop">
            More than 60 sheets: take a smaller scale.
          </span>
        )}
        <span className="label">
          Print at 100 %, without “fit to page”; the bar is there to check it with a rule.
        </span>
      </div>
      {sheets.length <= 60 &&
        sheets.map((sheet) => (
          <PrintedSheet
            key={`${sheet.row}-${sheet.col}`}
            sheet={sheet}
            count={sheets.length}
            paper={paper}
            scale={shown}
            plan={loaded.plan}
            report={loaded.report}
            grid={ground ? loaded.grid : null}
            asked={asked}
          />
        ))}
    </main>
  );
}
