import { lazy, Suspense, useEffect, useMemo, useRef, useState } from 'react';
import { useForm } from 'react-hook-form';
import type { Waypoint } from '../../core/edit/bring.js';
import { closes } from '../../core/land/ring.js';
import { newPlan } from '../../core/edit/firstPlan.js';
import { TEMPLATES } from '../../core/edit/templates.js';
import { catalogue } from '../../core/plan/shipped.js';
import type { Plan } from '../../core/plan/schema.js';
import { CURRENCIES } from '../../core/supplies/currency.js';
import { forgetHere, keepHere, keptHere } from '../../session/here.js';
import { forgetFiles, keepFiles, keptFiles } from '../../session/keptFiles.js';
import { Button } from '../../ui/parts/Button.js';
import { postJson } from '../../ui/parts/ask.js';
import { kindOfFile } from '../../ui/parts/imports.js';
import { useSketch } from '../land/sketch.js';
import { understood } from '../land/Waypoints.js';
import { answersOf, FRESH, pointsOf, type Form } from './answers.js';
import { show, useBegun } from './begun.js';
import { NOTHING, readFiles, type Read } from './files.js';
import { Ground } from './Ground.js';
import { Lines } from './Lines.js';
import { Fault, Labelled, ProfileBoxes, Question } from './questions.js';
import { SoFar } from './SoFar.js';

const MapCanvas = lazy(() =>
  import('../land/MapCanvas.js').then((m) => ({ default: m.MapCanvas })),
);

const DRAFT = 'anabatic.start';
const asked = new URLSearchParams(globalThis.location?.search).get('from') ?? '';
/** What was half answered in this browser, with a shape that was pressed on the first page. */
function begunWith(): Form {
  const kept = { ...FRESH, ...keptHere<{ form?: Partial<Form> }>(DRAFT, {}).form };
  const shape = TEMPLATES[asked];
  return shape ? { ...kept, lineKind: 'shape', shape: asked, area_m2: shape.area_m2 } : kept;
}

/** Whether the first line of a plan closes: then its sides are inside and outside. */
const closesIn = (plan: Plan): boolean => {
  const first = Object.values(plan.lines)[0];
  return first !== undefined && closes(first.vertices);
};

/** Five short questions beside a map on which every answer is seen at once; they end on a complete first plan. */
export function Guide() {
  // What is shown before the first answer is worked out.
  useState(() => show(newPlan(answersOf(FRESH, NOTHING, [])), null, null));
  const form = useForm<Form>({ defaultValues: useState(begunWith)[0] });
  const { register, watch, setValue, handleSubmit, formState } = form;
  const value = watch();
  const [files, setFiles] = useState<{ ground: File | null; walks: File[] }>({
    ground: null,
    walks: [],
  });
  const [read, setRead] = useState<Read>(NOTHING);
  const [reading, setReading] = useState(false);
  const [faults, setFaults] = useState<Partial<Record<'line' | 'ground' | 'all', string>>>({});
  const [kept, setKept] = useState(true);
  const done = useRef(false);
  const [restored] = useState(() => keptHere<object | null>(DRAFT, null) !== null);

  // Half-given answers outlive a reload; once a property is made of them they are forgotten.
  useEffect(() => {
    if (!done.current) setKept(keepHere(DRAFT, { form: value }));
  }, [value]);
  useEffect(() => {
    void Promise.all([keptFiles('ground'), keptFiles('walks')]).then(([ground, walks]) => {
      if (ground.length + walks.length > 0) setFiles({ ground: ground[0] ?? null, walks });
    });
  }, []);

  const { groundAs, walkAs } = value;
  const said = JSON.stringify([groundAs, walkAs]);
  useEffect(() => {
    if (!files.ground && files.walks.length === 0) {
      setReading(false);
      return setRead(NOTHING);
    }
    let current = true;
    setReading(true);
    void readFiles({ ...files, groundAs, walkAs }).then((now) => {
      if (!current) return;
      // What is refused leaves on the map what was there before.
      setRead((before) => ({
        ...now,
        ...(now.groundFault ? { ground: before.ground, grid: before.grid } : {}),
        ...(now.walkFault && !now.walked ? { walked: before.walked } : {}),
        origin: now.origin ?? before.origin,
      }));
      setReading(false);
    });
    return () => void (current = false);
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [files, said]);

  const take = async (list: Iterable<File> | null | undefined, into?: 'ground' | 'walk') => {
    let { ground, walks } = files;
    const strange: string[] = [];
    for (const file of list ?? []) {
      const kind = into ?? (await kindOfFile(file));
      if (kind === 'ground') ground = file;
      else if (kind === 'walk') walks = [...walks.filter((w) => w.name !== file.name), file];
      else strange.push(file.name);
    }
    setFaults(strange.length ? { all: `${strange.join(', ')}: neither heights nor lines that are read here` } : {}); // prettier-ignore
    // What was said of one file is not said of the next.
    if (ground !== files.ground) {
      setValue('groundKind', 'file');
      setValue('groundAs', 'guess');
    }
    if (walks !== files.walks) {
      setValue('lineKind', 'file');
      setValue('places', null);
      setValue('tolerance_m', null);
      if (files.walks.length === 0) setValue('walkAs', 'guess');
    }
    setFiles({ ground, walks });
    void keepFiles('ground', ground ? [ground] : []);
    void keepFiles('walks', walks);
  };
  const leaveWalks = () => {
    setFiles((f) => ({ ...f, walks: [] }));
    void forgetFiles('walks');
  };

  const places = useMemo(
    (): readonly Waypoint[] => value.places ?? understood(read.walked?.places ?? []),
    [value.places, read.walked],
  );
  // By what was answered: the form makes a new object at every stroke. The name changes nothing on the map.
  const told = JSON.stringify({ ...value, name: '' });
  const answers = useMemo(
    () => answersOf(JSON.parse(told) as Form, read, places),
    [told, read, places],
  );
  const grid = value.groundKind === 'file' ? read.grid : null;
  const { begun, fault: notBegun, working, finish } = useBegun(answers, grid);
  const walked = value.lineKind === 'file' ? read.walked : null;
  useEffect(() => {
    useSketch.setState({
      walked: walked?.lines.map((l) => l.points) ?? [],
      spots: walked ? places.filter((p) => p.kind === null).map((p) => ({ name: p.name, at: p.points[0]! })) : [], // prettier-ignore
    });
    return () => useSketch.setState({ walked: [], spots: [] });
  }, [walked, places]);

  const start = handleSubmit(async (f) => {
    setFaults({});
    const fault = (key: keyof typeof faults, words: string) => setFaults({ [key]: words });
    if (f.groundKind === 'file' && !read.ground)
      return fault('ground', 'Choose the file of the ground, or say flat.');
    if (f.lineKind === 'file' && !read.walked)
      return fault('line', 'Choose the file of the walk, or draw the line.');
    if (f.lineKind === 'typed') {
      const points = pointsOf(f.legs, f.units);
      if (typeof points === 'string') return fault('line', points);
    }
    try {
      const plan = await finish(answersOf(f, read, places));
      const { id } = await postJson<{ id: string }>('/api/properties', plan);
      done.current = true;
      forgetHere(DRAFT);
      await Promise.all([forgetFiles('ground'), forgetFiles('walks')]);
      location.assign(`/p/${id}/land${f.lineKind === 'draw' ? '?draw' : ''}`);
    } catch (e) {
      fault('all', (e as Error).message);
    }
  });

  const closed = begun ? closesIn(begun.plan) : false;
  const stock = (key: 'left' | 'right' | 'keepOut', role: 'stock' | 'predator') => (
    <ProfileBoxes role={role} chosen={value[key]} onChange={(ids) => setValue(key, ids)} />
  );
  return (
    <main
      className="grid h-screen grid-cols-[minmax(400px,500px)_1fr] max-[900px]:block max-[900px]:h-auto"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        void take([...e.dataTransfer.files]);
      }}
    >
      <div className="relative min-w-0 max-[900px]:sticky max-[900px]:top-0 max-[900px]:z-10 max-[900px]:h-[34vh] min-[901px]:order-2">
        {begun ? (
          <Suspense fallback={null}>
            <MapCanvas still />
          </Suspense>
        ) : (
          <div className="bg-sheet h-full" />
        )}
        {answers.lines.length === 0 && !grid && (
          <p className="bg-panel border-rule pointer-events-none absolute top-1/2 left-1/2 w-72 max-w-[80%] -translate-x-1/2 -translate-y-1/2 border p-3 text-center max-[900px]:w-60 max-[900px]:p-2">
            Drop a walk or a file of heights here: it lies on the map at once.
          </p>
        )}
      </div>
      <form
        onSubmit={(e) => void start(e)}
        noValidate
        className="border-rule overflow-y-auto border-r px-5 py-6"
      >
        <a className="label underline" href="/">
          all properties
        </a>
        <h1 className="mt-1 text-2xl font-semibold">A new property</h1>
        {restored && (
          <p className="label">
            Your half-given answers are still here.{' '}
            <button
              type="button"
              className="cursor-pointer underline"
              onClick={() => {
                form.reset(FRESH);
                setFaults({});
                setFiles({ ground: null, walks: [] });
                void forgetFiles('ground');
                void forgetFiles('walks');
              }}
            >
              Begin afresh
            </button>
          </p>
        )}
        <Question number={1} title="What is it called?">
          <div className="flex flex-wrap items-end gap-4">
            <Labelled name="Name">
              <input
                className="field w-52"
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
        <Ground
          form={form}
          read={read}
          file={files.ground}
          fault={faults.ground ?? read.groundFault}
          take={(f) => void take(f, 'ground')}
        />
        <Lines
          form={form}
          read={read}
          files={files.walks}
          places={places}
          fault={faults.line ?? read.walkFault}
          take={(f) => void take(f, 'walk')}
          leave={leaveWalks}
          begun={begun}
        />
        <Question number={4} title="Which stock stand there, and what stays out?">
          <p className="label">{closed ? 'inside the fence' : 'left of the line, walking it'}</p>
          {stock('left', 'stock')}
          <p className="label mt-1">{closed ? 'outside it' : 'right of it'}</p>
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
        {begun && answers.lines.length > 0 && <SoFar begun={begun} />}
        {working && (
          <p role="status" className="label">
            Working it out …
          </p>
        )}
        <Fault words={notBegun ?? undefined} />
        <Button strong className="mt-4" type="submit" disabled={formState.isSubmitting || reading}>
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
