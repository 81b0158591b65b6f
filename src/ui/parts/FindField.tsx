/** Where one types a part of a name to sift a list by it. */
export function FindField(p: {
  readonly label: string;
  /** What stands in it while it is empty. */
  readonly hint: string;
  readonly value: string;
  onChange(asked: string): void;
  readonly className?: string;
}) {
  return (
    <input
      className={`field no-print ${p.className ?? 'w-full'}`}
      type="search"
      placeholder={p.hint}
      aria-label={p.label}
      value={p.value}
      onChange={(e) => p.onChange(e.target.value)}
    />
  );
}

/** Whether a name has what was asked for in it; every name where nothing was. */
export const sifts = (asked: string, name: string): boolean =>
  name.toLowerCase().includes(asked.trim().toLowerCase());
