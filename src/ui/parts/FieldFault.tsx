import type { ReactNode } from 'react';

/** What is wrong with a field, beside it. */
export const FieldFault = ({ id, children }: { id?: string; children: ReactNode }) => (
  <span id={id} role="alert" className="text-stop w-full text-xs">
    {children}
  </span>
);
