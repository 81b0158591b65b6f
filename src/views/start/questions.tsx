/** The look of the guided start: questions, named fields, faults. */
import type { ReactNode } from 'react';

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
      <legend className="float-left mb-2 w-full text-[16px] font-semibold">
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
    <p role="alert" className="text-live mt-1">
      {words}
    </p>
  ) : null;
}
