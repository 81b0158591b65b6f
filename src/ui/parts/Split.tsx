/** Panes that are resized and folded by hand, and stay as they were left in this browser. */
import { useEffect, useMemo, useRef, type ReactNode } from 'react';
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
  readonly className?: string;
  readonly children: ReactNode;
}

/** Sizes of panes by their names, percent. */
const KEY = 'anabatic.panes';
const kept = (): Layout => keptHere<Layout>(KEY, {});

/** A row of panes, or a column of them. Panes may come and go; each comes back as it was left. */
export function Split({ id, down = false, className = '', children }: SplitProps) {
  return (
    <Group
      id={id}
      orientation={down ? 'vertical' : 'horizontal'}
      className={`split ${className}`}
      onLayoutChanged={(layout, { isUserInteraction }) =>
        void (isUserInteraction && keepHere(KEY, { ...kept(), ...layout }))
      }
    >
      {children}
    </Group>
  );
}

interface PaneProps {
  /** Under which its size is kept. */
  readonly id: string;
  /** As CSS says it: `18rem`, `40%`. Without it the pane takes what the others leave. */
  readonly size?: string;
  readonly least?: string;
  readonly most?: string;
  readonly className?: string;
  readonly children: ReactNode;
}

/**
 * One pane; with a `size` it keeps its pixels while the window grows. Under another `id` it takes the size that is
 * kept there, and what is in it stays.
 */
export function Pane({ id, size, least, most, className = '', children }: PaneProps) {
  const first = useMemo(() => {
    const own = kept()[id];
    return own === undefined ? size : `${own}%`;
  }, [id, size]);
  return (
    <Panel
      id={id}
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
