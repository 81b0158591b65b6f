import { useId } from 'react';
import type { UseFormReturn } from 'react-hook-form';
import { say } from '../../core/base/units.js';
import { ReferenceFields } from '../../ui/parts/Reference.js';
import type { Form } from './answers.js';
import { offGround, type Read } from './files.js';
import { Fault, FilePick, Labelled, Question, Radios, Typed } from './questions.js';

/** What the ground is like: flat, or a file of heights in whatever coordinates it counts in. */
export function Ground(p: {
  form: UseFormReturn<Form>;
  read: Read;
  file: File | null;
  fault: string | undefined;
  take: (files: FileList | null) => void;
}) {
  const { register, watch, setValue } = p.form;
  const [kind, said, units, lineKind] = watch(['groundKind', 'groundAs', 'units', 'lineKind']);
  const field = useId();
  const { ground, grid } = p.read;
  const walked = lineKind === 'file' ? p.read.walked : null;
  const off = grid && walked ? offGround(grid, walked.lines) : 0;
  return (
    <Question number={2} title="What is the ground like?">
      <Radios
        {...register('groundKind')}
        options={[
          ['flat', 'flat enough'],
          ['file', 'from a file of heights'],
        ]}
      />
      {kind === 'file' && (
        <div className="mt-2 flex flex-col gap-1.5">
          <Labelled name="GeoTIFF, ASCII grid (.asc), or points x, y, z (.csv)">
            <FilePick
              id={field}
              accept=".asc,.txt,.csv,.tif,.tiff"
              shown={p.file ? [p.file.name] : []}
              take={p.take}
            />
          </Labelled>
          {ground && p.file && (
            <p role="status" className="label">
              {ground.cols} × {ground.rows} heights, {say(ground.low_m, 'length', units)} to{' '}
              {say(ground.high_m, 'length', units)}, every {say(ground.cell_m, 'length', units)}.
            </p>
          )}
          {p.file && (
            <Typed>
              <ReferenceFields
                what="The ground"
                value={said}
                as={ground?.as ?? null}
                suggested={suggestion(p.read)}
                degrees
                onChange={(v) => setValue('groundAs', v)}
              />
            </Typed>
          )}
          {off > 0 && (
            <p role="status" className="text-warn">
              The walk lies {say(off, 'far', units)} off this ground. What does the ground count in?
            </p>
          )}
        </div>
      )}
      <Fault words={p.fault} />
    </Question>
  );
}

/** The zone that a walk in degrees lies in, to be named where the ground's is not right. */
function suggestion({ walked }: Read): string {
  const zone = /zone (\d+) (north|south)/.exec(walked?.as.words ?? '');
  return zone ? `utm ${zone[1]}${zone[2]![0]}` : 'utm 30n';
}
