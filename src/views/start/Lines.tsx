import { useId } from 'react';
import type { UseFormReturn } from 'react-hook-form';
import type { Waypoint } from '../../core/edit/bring.js';
import { TEMPLATES } from '../../core/edit/templates.js';
import { QuantityField } from '../../ui/parts/controls.js';
import { ReferenceFields } from '../../ui/parts/Reference.js';
import type { Begun } from '../../workers/begin.js';
import { Tolerance } from '../land/Tolerance.js';
import { Waypoints } from '../land/Waypoints.js';
import { measuredIn, type Form } from './answers.js';
import type { Read } from './files.js';
import { Fault, FilePick, Labelled, Question, Radios, Typed } from './questions.js';
import { Shapes } from './Shapes.js';
import { moneyText } from '../../core/base/locale.js';
import { bracedIn } from './SoFar.js';

/** Where the first lines run: drawn, walked, typed, or a ready shape. */
export function Lines(p: {
  form: UseFormReturn<Form>;
  read: Read;
  files: readonly File[];
  places: readonly Waypoint[];
  fault: string | undefined;
  take: (files: FileList | null) => void;
  leave: () => void;
  begun: Begun | null;
}) {
  const { register, watch, setValue } = p.form;
  const [kind, units] = watch(['lineKind', 'units']);
  return (
    <Question number={3} title="Where does the first line run?">
      <Radios
        {...register('lineKind')}
        options={[
          ['draw', 'I draw it on the map next'],
          ['file', 'from a file (GPX, KML, CSV …)'],
          ['typed', 'by bearing and distance'],
          ['shape', 'a ready shape'],
        ]}
      />
      {kind === 'file' && <Walked {...p} />}
      {kind === 'typed' && (
        <Labelled
          name={`Legs from 0, 0, one a row: distance @ bearing, in ${units === 'metric' ? 'metres' : 'feet'} and degrees`}
        >
          <textarea
            className="field figure h-24 w-60 py-1"
            placeholder="85 @ 112"
            {...register('legs')}
          />
        </Labelled>
      )}
      {kind === 'shape' && (
        <>
          <Shapes
            chosen={watch('shape')}
            onChoose={(id) => {
              setValue('shape', id);
              setValue('area_m2', TEMPLATES[id]!.area_m2);
            }}
          />
          <p className="label my-1">{TEMPLATES[watch('shape')]!.words}</p>
          <Typed>
            <QuantityField
              label="Area within it"
              q="area"
              min={2000}
              max={2e7}
              value={watch('area_m2')}
              onCommit={(m2) => setValue('area_m2', m2)}
            />
          </Typed>
        </>
      )}
      <Fault words={p.fault} />
    </Question>
  );
}

function straightened({ plan, report, furthest_m }: Begun) {
  const vertices = Object.values(plan.lines).flatMap((l) => l.vertices);
  return {
    vertices: vertices.length,
    corners: vertices.filter((v) => v.kind === 'corner').length,
    ends: bracedIn(report),
    cost: moneyText(report.totals.cost, plan.currency, true),
    furthest_m,
  };
}

function Walked(p: Parameters<typeof Lines>[0]) {
  const { watch, setValue } = p.form;
  const field = useId();
  const { walked } = p.read;
  const measured = measuredIn(p.read);
  return (
    <div className="mt-2 flex flex-col gap-2">
      <Labelled name="GPX, KML, GeoJSON, CSV or zipped shapefile; several are put together">
        <FilePick
          id={field}
          accept=".gpx,.kml,.geojson,.json,.csv,.zip"
          multiple
          shown={p.files.map((f) => f.name)}
          take={p.take}
          leave={p.leave}
        />
      </Labelled>
      {walked && (
        <>
          {walked.as.reference === 'geographic' ? (
            <p role="status" className="label">
              Taken as {walked.as.words}.
            </p>
          ) : (
            <Typed>
              <ReferenceFields
                what="The walk"
                value={watch('walkAs')}
                as={walked.as}
                suggested="utm 30n"
                degrees={false}
                onChange={(v) => setValue('walkAs', v)}
              />
            </Typed>
          )}
          {p.begun && walked.lines.length > 0 && (
            <Typed>
              <Tolerance
                value={watch('tolerance_m') ?? measured}
                measured={measured}
                walked={walked.lines.reduce((n, l) => n + l.points.length, 0)}
                made={straightened(p.begun)}
                onChange={(m) => setValue('tolerance_m', m)}
              />
            </Typed>
          )}
          <Waypoints places={p.places} onChange={(list) => setValue('places', list)} />
        </>
      )}
    </div>
  );
}
