/** Pages of A5 cards that go out into the field: their bar with the way back and the printer, and each card's frame. */
import { ArrowLeft, Printer } from 'lucide-react';
import type { ReactNode } from 'react';
import { Button } from '../../ui/parts/Button.js';

const A5 = { w: 148, h: 210 } as const;

interface CardPagesProps {
  /** The step that they belong to: its address and its name. */
  readonly back: readonly [href: string, name: string];
  readonly title: string;
  /** How many there are, in words. */
  readonly count: string;
  readonly children: ReactNode;
}

export function CardPages({ back: [href, name], title, count, children }: CardPagesProps) {
  return (
    <main>
      <style>{`@page { size: ${A5.w}mm ${A5.h}mm; margin: 0 } @media print { html, body { background: white } .a5 { margin: 0 !important; border: 0 !important; break-after: page } }`}</style>
      <div className="no-print border-rule bg-panel sticky top-0 z-10 flex flex-wrap items-center gap-3 border-b p-3">
        <a className="button" href={href}>
          <ArrowLeft size={14} aria-hidden /> {name}
        </a>
        <h1 className="heading">{title}</h1>
        <Button strong onClick={() => print()}>
          <Printer size={14} aria-hidden /> Print
        </Button>
        <p className="label">{count}</p>
      </div>
      {children}
    </main>
  );
}

interface CardProps {
  /** What it is called by those who hear it. */
  readonly label: string;
  readonly title: ReactNode;
  /** Its place among the others. */
  readonly mark: string;
  readonly children: ReactNode;
}

/** One A5 card, headed with its title and its place among the others. */
export function Card({ label, title, mark, children }: CardProps) {
  return (
    <section
      className="a5 border-rule mx-auto my-4 flex flex-col border bg-white p-[9mm] text-black"
      style={{ width: `min(${A5.w}mm, 100%)`, minHeight: `${A5.h - 1}mm` }}
      aria-label={label}
    >
      <header className="flex items-baseline justify-between border-b border-black pb-1">
        <h2 className="text-[1.1rem] font-semibold">{title}</h2>
        <span className="text-[0.8rem] whitespace-nowrap">{mark}</span>
      </header>
      {children}
    </section>
  );
}
