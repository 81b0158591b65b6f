/** Findings by cause: what shares a kind, a cause and a step is one entry with its places. */
import { isOpen } from '../report/open.js';
import type { Finding } from '../report/schema.js';
import { RANK } from './index.js';

/** One cause with all its places. */
export interface Cause {
  /** The same as long as the cause is there. */
  readonly key: string;
  readonly kind: Finding['kind'];
  readonly words: string;
  readonly step: string;
  /** Its findings, those of the line that is looked at first, then the worst. */
  readonly findings: readonly Finding[];
  /** Ids of the lines that it is found on. */
  readonly lines: readonly string[];
}

export interface Causes {
  /** What is open on the step that is looked at, gravest first. */
  readonly here: readonly Cause[];
  /** What is open on the others, by step in the order given. */
  readonly elsewhere: readonly { readonly step: string; readonly causes: readonly Cause[] }[];
  /** What somebody lets be. */
  readonly accepted: readonly Cause[];
}

export interface CausesAsked {
  /** Ids of all steps, in the order of the work. */
  readonly steps: readonly string[];
  readonly step: string;
  /** The line that is looked at: what lies on it comes first. */
  readonly line: string | null;
}

/**
 * Groups findings by what is the matter. Gravest first; among equals what lies on the line that is looked
 * at, then what is dearest: what is found at the most places.
 */
export function causesOf(findings: readonly Finding[], asked: CausesAsked): Causes {
  const open = grouped(findings.filter(isOpen), asked.line);
  const steps = [...new Set([...asked.steps, ...open.map((c) => c.step)])];
  return {
    here: open.filter((c) => c.step === asked.step),
    elsewhere: steps
      .filter((step) => step !== asked.step)
      .map((step) => ({ step, causes: open.filter((c) => c.step === step) }))
      .filter(({ causes }) => causes.length > 0),
    accepted: grouped(
      findings.filter((f) => !isOpen(f)),
      asked.line,
    ),
  };
}

/** Findings of one key are one entry. */
export const causeKey = (f: Finding): string => `${f.step}|${f.kind}|${f.rule}|${f.cause}`;

const linesOf = (findings: readonly Finding[]): string[] => [
  ...new Set(findings.flatMap((f) => f.place.line ?? [])),
];

function grouped(findings: readonly Finding[], line: string | null): Cause[] {
  const by = new Map<string, Finding[]>();
  for (const f of findings) {
    const key = causeKey(f);
    const own = by.get(key);
    if (own) own.push(f);
    else by.set(key, [f]);
  }
  const onLine = (f: Finding) => (line !== null && f.place.line === line ? 0 : 1);
  const causes = [...by].map(([key, found]): Cause => {
    const { kind, cause: words, step } = found[0]!;
    const inOrder = [...found].sort(
      (a, b) => onLine(a) - onLine(b) || (b.badness ?? 0) - (a.badness ?? 0),
    );
    return { key, kind, words, step, findings: inOrder, lines: linesOf(inOrder) };
  });
  return causes.sort(
    (a, b) =>
      RANK[a.kind] - RANK[b.kind] ||
      onLine(a.findings[0]!) - onLine(b.findings[0]!) ||
      b.findings.length - a.findings.length,
  );
}

/** All findings of a list in the order in which it shows them. */
export const inOrder = ({ here, elsewhere }: Causes): Finding[] => [
  ...here.flatMap((c) => c.findings),
  ...elsewhere.flatMap(({ causes }) => causes.flatMap((c) => c.findings)),
];

/** Causes of which a word stands in what is said, or in the name of a line; all where nothing is asked. */
export function matching(
  causes: readonly Cause[],
  text: string,
  nameOf: (line: string) => string,
): Cause[] {
  const asked = text.trim().toLowerCase();
  if (asked === '') return [...causes];
  return causes.flatMap((cause) => {
    if (cause.words.toLowerCase().includes(asked)) return [cause];
    const findings = cause.findings.filter((f) =>
      `${f.title} ${f.why} ${f.todo} ${f.place.line ? nameOf(f.place.line) : ''}`
        .toLowerCase()
        .includes(asked),
    );
    return findings.length > 0 ? [{ ...cause, findings, lines: linesOf(findings) }] : [];
  });
}
