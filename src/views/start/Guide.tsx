import { forgetHere, keepHere, keptHere } from '../../session/here.js';
import { useEffect, useState } from 'react';
import { useForm } from 'react-hook-form';
import { say } from '../../core/base/units.js';
import { catalogue } from '../../core/plan/catalogue.js';
import { CURRENCIES } from '../../core/supplies/currency.js';
import { readTyped } from '../../core/plan/typed.js';
import type { Plan, Point } from '../../core/plan/schema.js';
import { fitWalk, toleranceOf } from '../../core/plan/walkFit.js';
import { originAt } from '../../formats/projection.js';
import {
  importGround,
  importWalked,
  postJson,
  ReferenceFields,
  type GroundAnswer,
  type ReferenceChoice,
} from '../../ui/parts/imports.js';
import { newPlan } from './newPlan.js';
import { Fault, Labelled, ProfileBoxes, Question } from './questions.js';
import { Button } from '../../ui/parts/Button.js';

interface Form {
  name: string;
  units: Plan['units'];
  currency: string;
  groundKind: 'flat' | 'file';
  reference: ReferenceChoice;
  lineKind: 'draw' | 'file' | 'typed';
  legs: string;
  left: string[];
  right: string[];
  keepOut: string[];
  boundary: boolean;
  soil: string;
  supply: 'mains' | 'solar';
}

const FILE =
  'file:border-rule file:bg-panel file:text-ink text-xs file:mr-2 file:cursor-pointer file:rounded-[3px] file:border file:px-2 file:py-1.5';
const METRES_PER = { metric: 1, imperial: 0.3048 } as const;

/** Turns typed legs, one a row, into points from 0, 0; or says which row is wrong. */
export function pointsOf(legs: string, units: Plan['units']): Point[] | string {
  const points: Point[] = [{ e: 0, n: 0 }];
  const rows = legs.split('\n').filter((r) => r.trim() !== '');
  for (const [i, row] of rows.entries()) {
    const p = readTyped(row, points.at(-1)!, METRES_PER[units]);
    if (typeof p === 'string') return `Row ${i + 1}: ${p}`;
    points.push(p);
  }
  return points.length < 2 ? 'Type at least one leg, such as 85 @ 112' : points;
}

interface Walk {
  readonly lines: { name: string; points: Point[] }[];
  readonly origin: Plan['origin'];
  readonly text: string;
}

const FRESH: Form = {
  name: '',
  units: 'metric',
  currency: 'EUR',
  groundKind: 'flat',
  reference: { kind: 'local', projection: 'utm 30n' },
  lineKind: 'draw',
  legs: '',
  left: ['cattle-calves'],
  right: [],
  keepOut: [],
  boundary: false,
  soil: 'loam',
  supply: 'mains',
};

const DRAFT = 'anabatic.start';
interface Draft {
  readonly form?: Partial<Form>;
  readonly ground?: GroundAnswer | null;
  readonly walked?: Walk | null;
}

const readDraft = (): Draft => keptHere<Draft>(DRAFT, {});

/** Five short questions that end on a complete first plan. */
export function Guide() {
  const [draft] = useState(readDraft);
  const form = useForm<Form>({
    defaultValues: { ...FRESH, ...draft.form },
  });
  const { register, watch, setValue, handleSubmit, formState } = form;
  const [ground, setGround] = useState<GroundAnswer | null>(draft.ground ?? null);
  const [walked, setWalked] = useState<Walk | null>(draft.walked ?? null);
  const [faults, setFaults] = useState<Partial<Record<'ground' | 'line' | 'all', string>>>({});
  const value = watch();
  const [kept, setKept] = useState(true);
  // Half-given answers outlive a reload.
  useEffect(() => {
    setKept(keepHere(DRAFT, { form: value, ground, walked }));
  }, [value, ground, walked]);
  const fault = (key: keyof typeof faults, words: string | undefined) =>
    setFaults((f) => ({ ...f, [key]: words }));

  const takeGround = async (file: File | undefined) => {
    if (!file) return;
    fault('ground', undefined);
    try {
      setGround(await importGround(file, value.reference, null));
      // A walk read before belongs to another origin.
      setWalked(null);
    } catch (e) {
      setGround(null);
      fault('ground', `${file.name}: ${(e as Error).message}`);
    }
  };
  const takeWalk = async (file: File | undefined) => {
    if (!file) return;
    fault('line', undefined);
    try {
      const read = await importWalked(file, ground?.origin ?? null);
      // Straight runs through the walk, as near as its own noise allows.
      const lines = read.lines.map((l) => ({
        name: l.name,
        points: fitWalk(l.points, toleranceOf(l.points)),
      }));
      const count = (list: readonly { points: readonly Point[] }[]) =>
        list.reduce((n, l) => n + l.points.length, 0);
      setWalked({
        lines,
        origin: read.origin,
        text: `${count(read.lines)} walked points became ${count(lines)} vertices`,
      });
    } catch (e) {
      setWalked(null);
      fault('line', `${file.name}: ${(e as Error).message}`);
    }
  };

  const start = handleSubmit(async (f) => {
    setFaults({});
    if (f.groundKind === 'file' && !ground)
      return fault('ground', 'Choose the file of the ground, or say flat.');
    let lines: { name: string; points: readonly Point[] }[] = [];
    if (f.lineKind === 'file') {
      if (!walked) return fault('line', 'Choose the file of the walk, or draw the line.');
      lines = walked.lines;
    } else if (f.lineKind === 'typed') {
      const points = pointsOf(f.legs, f.units);
      if (typeof points === 'string') return fault('line', points);
      lines = [{ name: 'Line 1', points }];
    }
    const plan = newPlan({
      ...f,
      lines,
      ground:
        f.groundKind === 'file' && ground
          ? { kind: 'grid', id: ground.id }
          : { kind: 'flat', z_m: 0 },
      origin:
        (f.groundKind === 'file' ? ground?.origin : undefined) ??
        (f.lineKind === 'file' ? walked?.origin : undefined) ??
        originAt([0, 0]),
    });
    try {
      const { id } = await postJson<{ id: string }>('/api/properties', plan);
      forgetHere(DRAFT);
      location.assign(`/p/${id}/land${f.lineKind === 'draw' ? '?draw' : ''}`);
    } catch (e) {
      fault('all', (e as Error).message);
    }
  });

  const stock = (key: 'left' | 'right' | 'keepOut', role: 'stock' | 'predator') => (
    <ProfileBoxes role={role} chosen={value[key]} onChange={(ids) => setValue(key, ids)} />
  );
  return (
    <main className="mx-auto max-w-[720px] px-5 py-10">
      <a className="label underline" href="/">
        all properties
      </a>
      <h1 className="mt-1 text-2xl font-semibold">A new property</h1>
      <form onSubmit={(e) => void start(e)} noValidate>
        <Question number={1} title="What is it called?">
          <div className="flex flex-wrap items-end gap-4">
            <Labelled name="Name">
              <input
                className="field w-60"
                autoFocus
                maxLength={80}
                aria-invalid={formState.errors.name !== undefined}
                {...register('name', { validate: (n) => n.trim() !== '' || 'Give it a name.' })}
              />
            </Labelled>
            <Labelled name="Units">
              <select className="field" {...register('units')}>
                <option value="metric">metres, newtons</option>
                <option value="imperial">feet, pounds</option>
              </select>
            </Labelled>
            <Labelled name="Currency">
              <select className="field" {...register('currency')}>
                {CURRENCIES.map((c) => (
                  <option key={c}>{c}</option>
                ))}
              </select>
            </Labelled>
          </div>
          <Fault words={formState.errors.name?.message} />
        </Question>
        <Question number={2} title="What is the ground like?">
          <Radios
            name="groundKind"
            register={register}
            options={[
              ['flat', 'flat enough'],
              ['file', 'from a file of heights'],
            ]}
          />
          {value.groundKind === 'file' && (
            <div className="mt-2 max-w-md">
              <ReferenceFields value={value.reference} onChange={(v) => setValue('reference', v)} />
              <Labelled name="GeoTIFF, ASCII grid (.asc), or points x, y, z (.csv)">
                <input
                  className={FILE}
                  type="file"
                  accept=".asc,.txt,.csv,.tif,.tiff"
                  onChange={(e) => void takeGround(e.target.files?.[0])}
                />
              </Labelled>
              {ground && (
                <p role="status" className="label">
                  {ground.cols} × {ground.rows} heights, {say(ground.low_m, 'length', value.units)}{' '}
                  to {say(ground.high_m, 'length', value.units)}, every{' '}
                  {say(ground.cell_m, 'length', value.units)}.
                </p>
              )}
            </div>
          )}
          <Fault words={faults.ground} />
        </Question>
        <Question number={3} title="Where does the first line run?">
          <Radios
            name="lineKind"
            register={register}
            options={[
              ['draw', 'I draw it on the map next'],
              ['file', 'from a file (GPX, KML, CSV …)'],
              ['typed', 'by bearing and distance'],
            ]}
          />
          {value.lineKind === 'file' && (
            <div className="mt-2">
              <Labelled name="GPX, KML, GeoJSON, CSV or zipped shapefile">
                <input
                  className={FILE}
                  type="file"
                  accept=".gpx,.kml,.geojson,.json,.csv,.zip"
                  onChange={(e) => void takeWalk(e.target.files?.[0])}
                />
              </Labelled>
              {walked && (
                <p role="status" className="label">
                  {walked.text}.
                </p>
              )}
            </div>
          )}
          {value.lineKind === 'typed' && (
            <Labelled
              name={`Legs from 0, 0, one a row: distance @ bearing, in ${value.units === 'metric' ? 'metres' : 'feet'} and degrees`}
            >
              <textarea
                className="field figure h-24 w-60 py-1"
                placeholder="85 @ 112"
                {...register('legs')}
              />
            </Labelled>
          )}
          <Fault words={faults.line} />
        </Question>
        <Question number={4} title="Which stock stand there, and what stays out?">
          <p className="label">left of the line, walking it</p>
          {stock('left', 'stock')}
          <p className="label mt-1">right of it</p>
          {stock('right', 'stock')}
          <p className="label mt-1">kept out</p>
          {stock('keepOut', 'predator')}
          <label className="mt-1 inline-flex items-center gap-1.5 py-1">
            <input type="checkbox" className="size-4" {...register('boundary')} />
            boundary of the property
          </label>
        </Question>
        <Question number={5} title="What soil, and what supply?">
          <div className="flex flex-wrap gap-4">
            <Labelled name="Soil where the earth rods go">
              <select className="field" {...register('soil')}>
                {Object.entries(catalogue.soils).map(([id, s]) => (
                  <option key={id} value={id}>
                    {s.name}
                  </option>
                ))}
              </select>
            </Labelled>
            <Labelled name="Supply">
              <select className="field" {...register('supply')}>
                <option value="mains">mains in a dry building</option>
                <option value="solar">solar or battery</option>
              </select>
            </Labelled>
          </div>
        </Question>
        <Button strong className="mt-6" type="submit" disabled={formState.isSubmitting}>
          Start the plan
        </Button>
        <Fault words={faults.all} />
        {!kept && (
          <p role="status" className="label mt-2">
            This browser has no room left: a reload would ask these questions again.
          </p>
        )}
      </form>
    </main>
  );
}

function Radios({
  name,
  register,
  options,
}: {
  name: 'groundKind' | 'lineKind';
  register: ReturnType<typeof useForm<Form>>['register'];
  options: readonly (readonly [string, string])[];
}) {
  return (
    <div className="flex flex-wrap gap-x-5">
      {options.map(([value, words]) => (
        <label key={value} className="inline-flex items-center gap-1.5 py-1">
          <input type="radio" className="size-4" value={value} {...register(name)} />
          {words}
        </label>
      ))}
    </div>
  );
}
