/** Panes that are resized and folded by hand, and stay as they were left in this browser. */
import { useEffect, useLayoutEffect, useRef, useState, type ReactNode } from 'react';
import {
  Group,
  Panel,
  Separator,
  type Layout,
  type PanelImperativeHandle,
} from 'react-resizable-panels';
import { keepHere, keptHere } from '../../session/here.js';

interface SplitProps {
  readonly id: string;
  readonly down?: boolean;
  /** Panes whose sizes are kept under other names than their own, by those: see `keptAs` of the pane. */
  readonly names?: Readonly<Record<string, string>>;
  readonly className?: string;
  readonly children: ReactNode;
}

/** Sizes of panes by their names, percent. */
const KEY = 'anabatic.panes';
const kept = (): Layout => keptHere<Layout>(KEY, {});

/** A row of panes, or a column of them. Panes may come and go; each comes back as it was left. */
export function Split({ id, down = false, names = {}, className = '', children }: SplitProps) {
  const keep = (layout: Layout) => {
    const named = Object.entries(layout).map(([pane, size]) => [names[pane] ?? pane, size]);
    keepHere(KEY, { ...kept(), ...Object.fromEntries(named) });
  };
  return (
    <Group
      id={id}
      orientation={down ? 'vertical' : 'horizontal'}
      className={`split ${className}`}
      onLayoutChanged={(layout, { isUserInteraction }) => void (isUserInteraction && keep(layout))}
    >
      {children}
    </Group>
  );
}

interface PaneProps {
  readonly id: string;
  /** Under which its size is kept; where this changes, the same pane is brought to the size kept there. */
  readonly keptAs?: string;
  /** As CSS says it: `18rem`, `40%`. Without it the pane takes what the others leave. */
  readonly size?: string;
  readonly least?: string;
  readonly most?: string;
  readonly className?: string;
  readonly children: ReactNode;
}

/** One pane; with a `size` it keeps its pixels while the window grows. */
export function Pane({ id, keptAs = id, size, least, most, className = '', children }: PaneProps) {
  const panel = useRef<PanelImperativeHandle | null>(null);
  const sizeNow = () => {
    const own = kept()[keptAs];
    return own === undefined ? size : `${own}%`;
  };
  const [first] = useState(sizeNow);
  const was = useRef(keptAs);
  useLayoutEffect(() => {
    if (was.current === keptAs) return;
    was.current = keptAs;
    const now = sizeNow();
    if (now !== undefined) panel.current?.resize(now);
  });
  return (
    <Panel
      id={id}
      panelRef={panel}
      className={`min-h-0 min-w-0 ${className}`}
      {...(size === undefined
        ? {}
        : { defaultSize: first!, groupResizeBehavior: 'preserve-pixel-size' as const })}
      {...(least === undefined ? {} : { minSize: least })}
      {...(most === undefined ? {} : { maxSize: most })}
    >
      {children}
    </Panel>
  );
}

/** What is dragged, or moved with arrows, to resize the panes beside it. */
export function Divider({ label }: { label: string }) {
  return <Separator className="divider no-print" aria-label={label} />;
}

interface PulledProps {
  readonly id: string;
  /** How far it is open, in percent; it is brought there when this changes. */
  readonly open: number;
  /** What is left of it when it is closed. */
  readonly closed: string;
  /** Where it was pulled to by hand, percent. */
  readonly onPulled: (percent: number) => void;
  readonly children: ReactNode;
}

/** A pane that is opened and closed by what happens, and by hand. */
export function Pulled({ id, open, closed, onPulled, children }: PulledProps) {
  const panel = useRef<PanelImperativeHandle | null>(null);
  const pulled = useRef(onPulled);
  useEffect(() => void (pulled.current = onPulled));
  useEffect(() => {
    if (open === 0) panel.current?.collapse();
    else panel.current?.resize(`${open}%`);
  }, [open]);
  return (
    <Panel
      id={id}
      panelRef={panel}
      className="min-h-0 min-w-0"
      collapsible
      collapsedSize={closed}
      minSize="28%"
      defaultSize={open === 0 ? closed : `${open}%`}
      onResize={(size, _, before) => {
        if (before) pulled.current(panel.current?.isCollapsed() ? 0 : size.asPercentage);
      }}
    >
      {children}
    </Panel>
  );
}
