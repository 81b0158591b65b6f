/** How tight, today: where it is set from, what friction leaves, what to set, what was measured, and of what wire. */
import { Printer } from 'lucide-react';
import { recordOf } from '../../core/plan/catalogue.js';
import { say } from '../../core/base/units.js';
import type { LineReport } from '../../core/report/schema.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useSession } from '../../session/session.js';
import { useView } from '../../session/view.js';
import { Caution, Part, Select } from '../../ui/parts/controls.js';
import { useUnits } from '../../ui/parts/Num.js';
import { Tabs } from '../../ui/parts/Tabs.js';
import { AlongTab } from './AlongTab.js';
import { ChecksTab } from './ChecksTab.js';
import { chooseRun, strandsOf, useStrained, useStrainTab, type Strained, type StrainTab } from './strained.js'; // prettier-ignore
import { TableTab } from './TableTab.js';
import { TightTab } from './TightTab.js';
import { WiresTab } from './WiresTab.js';

const TABS: readonly (readonly [StrainTab, string])[] = [
  ['tight', 'How tight'],
  ['along', 'Along the run'],
  ['table', 'Stringing table'],
  ['checks', 'Checks'],
  ['wires', 'Wires'],
];

export function StrainView() {
  const id = useView((v) => v.line);
  const line = useSession((s) => (id ? s.plan.lines[id] : undefined));
  const report = useSession((s) => (id ? s.report?.lines[id] : undefined));
  const tab = useStrainTab((t) => t.tab);
  if (!line || !report) return <div className="p-4" />;
  return (
    <div className="@container relative p-4 pt-0">
      <Tabs
        label="What Strain looks at"
        tabs={TABS}
        chosen={tab}
        onChoose={(t) => useStrainTab.setState({ tab: t })}
      >
        <Looked key={line.id} line={line} report={report} tab={tab} />
      </Tabs>
    </div>
  );
}

function Looked({
  line,
  report,
  tab,
}: {
  line: Strained['line'];
  report: LineReport;
  tab: StrainTab;
}) {
  const of = useStrained(line, report);
  const property = useSession((s) => s.id);
  if (!of)
    return <p className="label">No strands on {line.name} yet: there is nothing to tension.</p>;
  return (
    <Part
      title={`${TABS.find(([t]) => t === tab)![1]}: ${line.name}`}
      aside={
        <a
          className="button no-print"
          href={`/strain/${property}?line=${encodeURIComponent(line.id)}`}
        >
          <Printer size={14} aria-hidden /> Cards to print
        </a>
      }
    >
      <Which of={of} />
      {tab === 'tight' && <TightTab of={of} />}
      {tab === 'along' && <AlongTab of={of} />}
      {tab === 'table' && <TableTab of={of} />}
      {tab === 'checks' && <ChecksTab key={`${of.index} ${of.wire}`} of={of} />}
      {tab === 'wires' && <WiresTab of={of} />}
      <Caution>
        Eyes and gloves always. Stand away from the line of a tight wire, nobody in line while
        tensioning, never astride a chain or puller, and never above the limit shown. Switch the
        fence off and prove it dead before anybody touches a strand.
      </Caution>
    </Part>
  );
}

/** Which run and which wire is looked at. */
function Which({ of: { line, report, index, wire } }: { of: Strained }) {
  const units = useUnits();
  const cat = useCatalogue();
  const wires = [...new Set(report.strain.map((s) => s.wire))];
  if (report.runs.length < 2 && wires.length < 2) return null;
  return (
    <div className="mb-3 flex flex-wrap gap-x-5 gap-y-1">
      {report.runs.length > 1 && (
        <Select
          label="Run"
          width="max-w-[20rem]"
          value={String(index)}
          options={report.runs.map((r, k) => [String(k), `${k + 1}: ${say(r.from_m, 'length', units)} to ${say(r.to_m, 'length', units)}, ${say(r.ground_m, 'length', units)} long`] as const)} // prettier-ignore
          onChange={(k) => chooseRun(report, Number(k))}
        />
      )}
      {wires.length > 1 && (
        <Select
          label="Wire"
          width="max-w-[20rem]"
          value={wire}
          options={wires.map((w) => [w, `${recordOf(cat.wires, w).name} (strand ${strandsOf(line, w).join(', ')})`] as const)} // prettier-ignore
          onChange={(w) => useStrainTab.setState({ wire: w })}
        />
      )}
    </div>
  );
}
