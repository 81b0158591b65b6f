/** The look of the guided start: questions, named fields, faults. */
import { Upload } from 'lucide-react';
import type { ComponentProps, ReactNode } from 'react';
import { catalogue } from '../../core/plan/shipped.js';

/** One numbered question of the start. */
export function Question({
  number,
  title,
  children,
}: {
  number: number;
  title: string;
  children: ReactNode;
}) {
  return (
    <fieldset className="border-ink mt-6 border-t pt-2">
      <legend className="float-left mb-2 w-full text-[1.143rem] font-semibold">
        <span className="figure text-soft mr-2">{number}</span>
        {title}
      </legend>
      <div className="clear-both">{children}</div>
    </fieldset>
  );
}

/** A field with its name above it. */
export function Labelled({ name, children }: { name: string; children: ReactNode }) {
  return (
    <label className="flex flex-col gap-0.5">
      <span className="label">{name}</span>
      {children}
    </label>
  );
}

/** What is wrong with an answer, beside it. */
export function Fault({ words }: { words: string | undefined }) {
  return words ? (
    <p role="alert" className="text-stop mt-1">
      {words}
    </p>
  ) : null;
}

/** Stock or predators to tick. */
export function ProfileBoxes({
  role,
  chosen,
  onChange,
}: {
  role: 'stock' | 'predator';
  chosen: readonly string[];
  onChange: (ids: string[]) => void;
}) {
  // The boundary profile is taken by itself, for every boundary with cattle.
  const offered = Object.entries(catalogue.profiles).filter(
    ([id, p]) => p.role === role && id !== 'cattle-boundary',
  );
  return (
    <div className="flex flex-wrap gap-x-4">
      {offered.map(([id, p]) => (
        <label key={id} className="inline-flex items-center gap-1.5 py-1">
          <input
            type="checkbox"
            className="size-4"
            checked={chosen.includes(id)}
            onChange={(e) =>
              onChange(e.target.checked ? [...chosen, id] : chosen.filter((x) => x !== id))
            }
          />
          {p.name}
        </label>
      ))}
    </div>
  );
}

/** One of a few answers; the rest goes to each input. */
export function Radios({
  options,
  ...input
}: ComponentProps<'input'> & { options: readonly (readonly [value: string, words: string])[] }) {
  return (
    <div className="flex flex-wrap gap-x-5">
      {options.map(([value, words]) => (
        <label key={value} className="inline-flex items-center gap-1.5 py-1">
          <input type="radio" className="size-4" value={value} {...input} />
          {words}
        </label>
      ))}
    </div>
  );
}

/** Files to choose, with the names of those that were chosen or dropped. */
export function FilePick(p: {
  id: string;
  accept: string;
  multiple?: boolean;
  shown: readonly string[];
  take: (files: FileList | null) => void;
  leave?: () => void;
}) {
  return (
    <span className="flex flex-wrap items-center gap-x-2 gap-y-1">
      <span className="button relative">
        <Upload size={14} aria-hidden />
        {p.shown.length > 0 ? 'Another file' : 'Choose a file'}
        <input
          id={p.id}
          type="file"
          accept={p.accept}
          multiple={p.multiple ?? false}
          className="absolute inset-0 cursor-pointer opacity-0"
          onChange={(e) => {
            p.take(e.target.files);
            e.target.value = '';
          }}
        />
      </span>
      <span className="min-w-0 break-all">{p.shown.join(', ')}</span>
      {p.leave && p.shown.length > 0 && (
        <button type="button" className="label cursor-pointer underline" onClick={p.leave}>
          leave it out
        </button>
      )}
    </span>
  );
}

/** Enter takes what is typed here; it does not start the plan. */
export const Typed = ({ children }: { children: ReactNode }) => (
  <div onKeyDown={(e) => e.key === 'Enter' && e.preventDefault()}>{children}</div>
);
