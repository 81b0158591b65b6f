/** Several things to look at in one place, one at a time. */
import { Tabs as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

export function Tabs<T extends string>({
  label,
  tabs,
  chosen,
  onChoose,
  children,
}: {
  label: string;
  tabs: readonly (readonly [T, string])[];
  chosen: T;
  onChoose: (tab: T) => void;
  /** What the chosen tab shows. */
  children: ReactNode;
}) {
  return (
    <Radix.Root value={chosen} onValueChange={(tab) => onChoose(tab as T)}>
      <Radix.List
        aria-label={label}
        className="border-ink mt-4 mb-3 flex flex-wrap gap-x-1 border-b max-[30rem]:gap-x-0"
      >
        {tabs.map(([key, name]) => (
          <Radix.Trigger
            key={key}
            value={key}
            className={`cursor-pointer px-2 py-1.5 max-[30rem]:px-1.5 ${chosen === key ? 'bg-ink text-sheet' : 'hover:bg-hover'}`}
          >
            {name}
          </Radix.Trigger>
        ))}
      </Radix.List>
      <Radix.Content value={chosen} tabIndex={-1}>
        {children}
      </Radix.Content>
    </Radix.Root>
  );
}
