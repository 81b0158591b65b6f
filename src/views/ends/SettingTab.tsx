/** How the posts of a place are set: the ways side by side, what is advised here and what speaks against each. */
import { Check as Tick } from 'lucide-react';
import { say } from '../../core/base/units.js';
import { setEnd } from '../../core/edit/ending.js';
import { handAt } from '../../core/ends/hand.js';
import { doubtsOf, fillOf, settingFor, type Doubt, type SetReason, type SettingId } from '../../core/ends/setting.js'; // prettier-ignore
import { addedPosts } from '../../core/ends/takes.js';
import { figure, recordOf } from '../../core/plan/catalogue.js';
import type { Line } from '../../core/plan/schema.js';
import type { EndReport } from '../../core/report/schema.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, tell, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { Check, QuantityField, Select } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Num, useUnits } from '../../ui/parts/Num.js';
import { HOLDS, LITRES, WAIT } from './origins.js';
import { ROLES, useFrost } from './place.js';
import { Wait } from './Wait.js';

const REASONS: Readonly<Record<SetReason, string>> = {
  drives: 'posts can be driven here, and a driven post holds best',
  stony: 'stony ground: too hard to drive all the way, too loose to tamp alone',
  shrinks: 'the clay shrinks as it dries: gravel follows it',
  drains: 'no driver: the soil itself, tamped in layers, drains and costs nothing',
  steel: 'a steel tube stands in concrete',
};

const DOUBTS: Readonly<Record<Doubt, string>> = {
  timber: 'holds water against timber',
  shrinks: 'comes loose as this clay shrinks',
  stones: 'stones here',
  noDriver: 'no driver here',
  frost: 'the frost goes deeper than the post',
  wanders: 'wanders off into sand',
};

export function SettingTab({ line, end }: { line: Line; end: EndReport }) {
  const cat = useCatalogue();
  const units = useUnits();
  const frost_m = useFrost();
  const noDriver = useSession((s) => !!s.plan.noDriver);
  const typed = useSession((s) => s.plan.frost_m);
  const kind = recordOf(cat.posts, end.post);
  const soil = recordOf(cat.soils, end.soil);
  const asked = { soil, steel: kind.conducts, frost_m, noDriver };
  const advised = settingFor(asked);
  const posts = [end.post, ...addedPosts(end)];
  const where = `${ROLES[end.role] ?? 'end'} at ${say(end.at_m, 'length', units)} of ${line.name}`;
  const set = (words: string, change: Parameters<typeof setEnd>[3]) => {
    commit(`${words} at the ${where}`, (d) => setEnd(d, line.id, end.at_m, change));
    tell(`${words} at the ${where}`);
  };
  const place = handAt(line, end.at_m);
  const years = end.wood === 'untreated' ? figure(cat, 'ends.untreatedLife') : end.wood === 'recycled' ? kind.life_y * figure(cat, 'ends.recycledLife') : kind.life_y; // prettier-ignore
  return (
    <section aria-label={`How posts are set at the ${where}`}>
      <h3 className="font-semibold">
        {posts.length === 1 ? 'One post' : `${posts.length} posts`} in {soil.name.toLowerCase()},{' '}
        <Num value={end.depth_m} q="tape" /> deep
      </h3>
      <p className="mb-2">
        Advised: <strong>{recordOf(cat.settings, advised.setting).name.toLowerCase()}</strong>,{' '}
        {REASONS[advised.reason]}.
      </p>
      <DataTable
        label="Ways of setting posts"
        rows={(Object.keys(cat.settings) as SettingId[]).map((id) => ({ id }))}
        keyOf={({ id }) => id}
        chosen={({ id }) => id === end.setting}
        columns={[
          {
            name: 'way',
            head: true,
            cell: ({ id }) => (
              <>
                {recordOf(cat.settings, id).name}
                {id === advised.setting && <span className="label"> advised</span>}
              </>
            ),
          },
          {
            name: 'for and against',
            className: 'label min-w-[15rem]',
            cell: ({ id }) => {
              const way = recordOf(cat.settings, id);
              const here = doubtsOf(id, asked, end.depth_m).map((d) => DOUBTS[d]);
              return (
                <>
                  {way.why} <em>Against:</em> {way.against}
                  {here.length > 0 && (
                    <strong className="text-mend"> Here: {here.join('; ')}.</strong>
                  )}
                </>
              );
            },
          },
          {
            name: 'holds',
            n: true,
            from: HOLDS,
            cell: ({ id }) => <Num value={recordOf(cat.settings, id).shaft} q="percent" />,
          },
          { name: 'a hole takes', n: true, from: LITRES, cell: ({ id }) => { const f = fillOf(id, kind, end.depth_m, cat); return f.litres < 0.5 ? '–' : <Num value={f.litres} q="litre" />; } }, // prettier-ignore
          {
            name: 'to buy here',
            n: true,
            cell: ({ id }) => {
              const all = posts.map((p) => fillOf(id, recordOf(cat.posts, p), end.depth_m, cat));
              const bags = Math.ceil(all.reduce((s, f) => s + f.bags, 0) - 1e-9);
              const t = all.reduce((s, f) => s + f.gravel_t, 0);
              return bags > 0 ? `${bags} ${bags === 1 ? 'bag' : 'bags'}` : t > 0 ? <Num value={t} q="tonne" /> : '–'; // prettier-ignore
            },
          },
          {
            name: 'wait',
            n: true,
            from: WAIT,
            cell: ({ id }) => <Wait hours={recordOf(cat.settings, id).wait_h} />,
          },
          {
            name: 'take',
            quiet: true,
            cell: ({ id }) =>
              id === end.setting ? (
                <span className="label">taken</span>
              ) : (
                <Button
                  aria-label={`Set them ${recordOf(cat.settings, id).name.toLowerCase()}`}
                  onClick={() =>
                    set(recordOf(cat.settings, id).name, {
                      setting: id === advised.setting ? undefined : id,
                    })
                  }
                >
                  <Tick size={14} aria-hidden /> Take
                </Button>
              ),
          },
        ]}
      />
      <div className="mt-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        {!kind.conducts && (
          <Select
            label="Timber"
            width="max-w-[15rem]"
            value={end.wood}
            options={[
              ['treated', 'treated for ground contact'],
              ['untreated', 'untreated'],
              ['recycled', 'recycled, rotten foot cut away'],
            ]}
            onChange={(wood) =>
              set(`timber ${wood}`, { wood: wood === 'treated' ? undefined : wood })
            }
          />
        )}
        <span className="label">
          some <Num value={years} q="years" /> in the ground
          {end.wood === 'recycled' && (
            <>
              ; ask for <Num value={kind.length_m + figure(cat, 'ends.recycledCut')} q="tape" />,
              since <Num value={figure(cat, 'ends.recycledCut')} q="height" /> go
            </>
          )}
        </span>
        {place?.setting !== undefined && (
          <Button onClick={() => set('setting as advised', { setting: undefined })}>
            As advised
          </Button>
        )}
      </div>
      <h3 className="heading mt-5 mb-1">On the whole property</h3>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <Check
          label="A post driver is to be had"
          checked={!noDriver}
          onChange={(on) =>
            commit(on ? 'with a post driver' : 'no post driver', (d) => {
              if (on) delete d.noDriver;
              else d.noDriver = true;
            })
          }
        />
        <QuantityField
          label="The ground freezes this deep"
          q="tape"
          at="frost_m"
          value={frost_m}
          onCommit={(m) => commit('depth of frost', (d) => void (d.frost_m = m))}
        />
        {typed === undefined ? (
          <span className="label">by the coldest night; look what is known where you are</span>
        ) : (
          <Button
            onClick={() => commit('frost by the coldest night', (d) => void delete d.frost_m)}
          >
            By the coldest night
          </Button>
        )}
      </div>
    </section>
  );
}
