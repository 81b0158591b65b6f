import { useEffect, useState } from 'react';
import { say } from '../../core/base/units.js';
import { figure } from '../../core/plan/catalogue.js';
import type { Energiser } from '../../core/plan/schema.js';
import { hoofContact } from '../../core/power/feel.js';
import type { Beside } from '../../core/power/pulseNet.js';
import type { EnergiserReport } from '../../core/report/schema.js';
import { Asked } from '../../ui/parts/Asked.js';
import { usePower } from '../../session/power.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, useSession } from '../../session/session.js';
import { look, useView } from '../../session/view.js';
import { Button } from '../../ui/parts/Button.js';
import { Check, Choice, QuantityField, Select } from '../../ui/parts/controls.js';
import { Num, useUnits } from '../../ui/parts/Num.js';
import { PULSE } from './origins.js';

type What = 'nothing' | 'leak' | 'break' | 'animal';

/** What something would do to the volts; nothing is saved unless it is asked. */
export function WhatIf({ unit, report }: { unit: Energiser; report: EnergiserReport }) {
  const cat = useCatalogue();
  const units = useUnits();
  const lines = useSession((s) => s.plan.lines);
  const season = useView((v) => v.season);
  const chosen = useView((v) => v.line);
  const cursor = useView((v) => v.cursor);
  const [growth, setGrowth] = useState(1);
  const [here, setHere] = useState(false);
  const [what, setWhat] = useState<What>('nothing');
  const [leak, setLeak] = useState(500);
  const [off, setOff] = useState(false);
  const line = chosen && report.lines.includes(chosen) ? chosen : null;
  const worst = report.seasons[season]?.worst ?? null;
  const place =
    line !== null ? { line, at_m: cursor ?? 0 } : worst && { line: worst.line, at_m: worst.at_m };
  const animal = Object.values(cat.animals)[0]!;
  const beside: Beside = {
    ...(growth === 1 ? {} : { growth: here && line ? { [line]: growth } : growth }),
    ...(place && what === 'leak' ? { loads: [{ ...place, r_ohm: leak }] } : {}),
    ...(place && what === 'animal'
      ? { loads: [{ ...place, r_ohm: animal.body_ohm + hoofContact(figure(cat, 'shock.moist'), animal.hoof_m) }] } // prettier-ignore
      : {}),
    ...(place && what === 'break' ? { breaks: [place] } : {}),
  };
  const asked = off || Object.keys(beside).length > 0;
  const key = asked ? `whatIf ${unit.id} ${season} ${off} ${JSON.stringify(beside)}` : null;
  const answer = usePower(
    key,
    (api) => api.whatIf(unit.id, season, beside, off ? 'off' : 'on'),
    asked ? `whatIf ${unit.id} ${season}` : null,
  );
  const { value, waiting } = answer;
  useEffect(() => {
    const tracks = value && Object.entries(value.volts.lines);
    look({
      beside: tracks
        ? {
            words: 'as it would be, dashed',
            lines: Object.fromEntries(
              tracks.map(([id, t]) => [id, { s_m: t.s_m, low_V: t.v_V, high_V: t.v_V }]),
            ),
          }
        : null,
    });
  }, [value]);
  useEffect(() => () => look({ beside: null }), []);
  const now = worst?.v_V ?? null;
  const where = (p: { line: string; at_m: number }) =>
    `${lines[p.line]?.name} at ${say(p.at_m, 'length', units)}`;
  return (
    <>
      <p>
        In the season chosen above. Put the cursor where it happens, on the map or in the section
        below{place ? `: now ${where(place)}` : ''}.
      </p>
      <div className="mt-2 flex flex-col gap-2">
        <label className="flex flex-wrap items-center gap-2">
          <span className="label">Growth, times the season’s</span>
          <input
            type="range"
            min={-2}
            max={2}
            step={0.25}
            value={Math.log2(growth)}
            aria-valuetext={`${growth.toFixed(2)} times`}
            onChange={(e) => setGrowth(2 ** Number(e.target.value))}
            className="w-40"
          />
          <span className="figure">{growth.toFixed(2)} ×</span>
        </label>
        {line && (
          <Check label={`on ${lines[line]?.name} alone`} checked={here} onChange={setHere} />
        )}
        <Check label="the lowest live strands switched off" checked={off} onChange={setOff} />
        <Choice<What>
          label="What happens there"
          value={what}
          options={[
            ['nothing', 'nothing'],
            ['leak', 'a leak'],
            ['break', 'all strands broken'],
            ['animal', 'an animal touches'],
          ]}
          onChange={setWhat}
        />
        {what === 'leak' && (
          <QuantityField label="Leak" q="ohm" min={10} max={1e6} value={leak} onCommit={setLeak} />
        )}
      </div>
      {answer.fault !== null && <Asked of={answer} doing="Working out what would be" />}
      <p className="mt-3 text-[1.071rem]" role="status" data-what-if>
        Worst point now <Num value={now} q="volt" from={PULSE} />
        {asked && (
          <>
            , then{' '}
            {waiting && !value ? (
              <span className="label">being worked out …</span>
            ) : (
              <strong
                className={
                  waiting ? 'text-soft' : value?.score && value.score.share < 1 ? 'text-stop' : ''
                }
              >
                <Num value={value?.score?.worst.v_V} q="volt" />
              </strong>
            )}
            {value?.score && <span className="label"> on {where(value.score.worst)}</span>}
            {(value?.volts.unfed.length ?? 0) > 0 && (
              <span className="label"> · a part of the fence is dead</span>
            )}
            {value?.volts.loads[0] && (
              <span className="label">
                {' '}
                · across it <Num value={value.volts.loads[0].v_V} q="volt" />,{' '}
                <Num value={value.volts.loads[0].energy_J} q="fineJoule" /> a pulse
              </span>
            )}
          </>
        )}
        .
      </p>
      <span className="mt-2 flex flex-wrap gap-2">
        {asked && (
          <Button
            onClick={() => {
              setGrowth(1);
              setWhat('nothing');
              setOff(false);
            }}
          >
            Back to the plan
          </Button>
        )}
        {line && (
          <Select
            label={`What grows under ${lines[line]?.name}, in the plan`}
            value={lines[line]?.growth ?? 'usual'}
            options={[
              ['bare', 'bare or grazed short'],
              ['usual', 'the usual'],
              ['rank', 'rank'],
            ]}
            onChange={(g) =>
              commit(`growth under ${lines[line]?.name}`, (d) => {
                if (g === 'usual') delete d.lines[line]!.growth;
                else d.lines[line]!.growth = g as 'bare' | 'rank';
              })
            }
          />
        )}
      </span>
    </>
  );
}
