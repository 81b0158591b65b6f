/** The plan of work as bars: a row for each line, a lane for each stage, waits dashed; bars are moved by hand or by keys. */
import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useDraggable,
  useSensor,
  useSensors,
  type KeyboardCoordinateGetter,
  type Modifier,
} from '@dnd-kit/core';
import { useState } from 'react';
import { PHASES, type Phase } from '../../core/build/kinds.js';
import type { Planned } from '../../core/build/planned.js';
import type { PlannedTask } from '../../core/build/shifts.js';
import { daysBetween } from '../../core/base/days.js';
import { PROPERTY } from '../../core/report/uses.js';
import { useSession } from '../../session/session.js';
import { inHand, useShape } from '../../session/shape.js';
import { useWidth } from '../../ui/parts/width.js';
import { dayName, phaseOf, timeName, useBuildTab, useWorking } from './built.js';
import { frameOf, spanOf, type Frame } from './chartFrame.js';
import { HireRow } from './HireRow.js';
import { moveTasks } from './moving.js';

export const PHASE_NAMES: Record<Phase, string> = {
  ready: 'clear, guide wire',
  ends: 'ends and gates',
  posts: 'posts, insulators',
  wire: 'wire',
  live: 'ties, power, proving',
};
/** How bars of each stage are filled. */
const FILL: Record<Phase, string> = {
  ready: 'bar-ready',
  ends: 'bar-ends',
  posts: 'bar-posts',
  wire: 'bar-wire',
  live: 'bar-live',
};
const LANE = 8;

interface ChartProps {
  readonly planned: Planned;
  /** Days that are shown. */
  readonly days: readonly string[];
}

export function Chart({ planned, days }: ChartProps) {
  const lines = useSession((s) => s.plan.lines);
  const w = useWorking();
  const [ref, width] = useWidth<HTMLDivElement>(800);
  const [open, setOpen] = useState<readonly string[]>([]);
  const narrow = width < 560;
  // In the hand bars are only looked at: a fingertip is wider than a day. A task is moved on its card.
  const hand = inHand(useShape());
  const names = narrow ? 0 : 132;
  const frame = frameOf(days, Math.max(120, width - names), w);
  const rows = [...Object.keys(lines), PROPERTY].flatMap((id) => {
    const tasks = planned.tasks.filter((t) => (t.line ?? PROPERTY) === id);
    return tasks.length > 0 ? [{ id, name: lines[id]?.name ?? 'The property', tasks }] : [];
  });
  const byDay: KeyboardCoordinateGetter = (event, { currentCoordinates }) => {
    const step = event.code === 'ArrowRight' ? 1 : event.code === 'ArrowLeft' ? -1 : 0;
    if (step === 0) return undefined;
    event.preventDefault();
    return { ...currentCoordinates, x: currentCoordinates.x + step * frame.dayWidth };
  };
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: byDay }),
  );
  /** Bars go by whole days, and along their row alone. */
  const byDays: Modifier = ({ transform }) => ({
    ...transform,
    x: Math.round(transform.x / frame.dayWidth) * frame.dayWidth,
    y: 0,
  });
  return (
    <DndContext
      sensors={sensors}
      modifiers={[byDays]}
      autoScroll={false}
      onDragEnd={({ active, delta }) => {
        const by = Math.round(delta.x / frame.dayWidth);
        const { tasks, words } = active.data.current as Dragged;
        if (by !== 0) moveTasks(tasks, words, by, frame, w);
      }}
      accessibility={{
        screenReaderInstructions: {
          draggable: 'Space takes it, the arrows move it by a day, Space puts it down, Escape leaves it where it was.', // prettier-ignore
        },
      }}
    >
      <div ref={ref} data-chart>
        <DayHeads frame={frame} names={names} />
        {planned.hires.map((hire) => (
          <HireRow key={hire.item} hire={hire} tasks={planned.tasks} frame={frame} names={names} />
        ))}
        {rows.map(({ id, name, tasks }) => (
          <div key={id} className="border-rule border-b py-1" data-row={id}>
            <div className={narrow ? '' : 'flex'}>
              <button
                className="hover:bg-hover cursor-pointer truncate text-left"
                style={narrow ? {} : { width: names }}
                aria-expanded={open.includes(id)}
                onClick={() => setOpen(open.includes(id) ? open.filter((o) => o !== id) : [...open, id])} // prettier-ignore
              >
                <span aria-hidden>{open.includes(id) ? '▾ ' : '▸ '}</span>
                {name}
              </button>
              <div className="relative grow" style={{ height: PHASES.length * LANE + 4 }}>
                <Nights frame={frame} />
                {PHASES.map((phase, lane) => (
                  <PhaseBar
                    key={phase}
                    line={name}
                    phase={phase}
                    tasks={tasks.filter((t) => phaseOf(t) === phase && !t.aside)}
                    frame={frame}
                    top={2 + lane * LANE}
                    held={!hand}
                  />
                ))}
              </div>
            </div>
            {open.includes(id) && (
              <TaskRows tasks={tasks} frame={frame} names={names} held={!hand} />
            )}
          </div>
        ))}
      </div>
    </DndContext>
  );
}

interface Dragged {
  readonly tasks: readonly PlannedTask[];
  readonly words: string;
}

function DayHeads({ frame, names }: { frame: Frame; names: number }) {
  // As many days are named as have room.
  const every = Math.max(1, Math.ceil(46 / frame.dayWidth));
  return (
    <div className="border-ink relative h-9 border-b" style={{ marginLeft: names }} aria-hidden>
      {frame.days.map((day, k) =>
        k % every === 0 && (frame.days.length - k) * frame.dayWidth > 34 ? (
          <span
            key={day}
            className="label absolute bottom-0.5 leading-tight whitespace-nowrap"
            style={{ left: k * frame.dayWidth + 2 }}
          >
            {dayName(day).slice(0, 3)}
            <br />
            {dayName(day).split(' ').slice(1, 3).join(' ')}
          </span>
        ) : null,
      )}
    </div>
  );
}

/** Where one day ends and the next begins; stronger where days off lie between. */
function Nights({ frame }: { frame: Frame }) {
  return (
    <>
      {frame.days.map((day, k) => {
        const gap = k > 0 && daysBetween(frame.days[k - 1]!, day) > 1;
        if (!gap && frame.dayWidth < 16) return null;
        return (
          <span
            key={day}
            className={`absolute inset-y-0 ${gap ? 'border-rule border-l' : 'border-rule border-l border-dotted opacity-70'}`}
            style={{ left: k * frame.dayWidth }}
          />
        );
      })}
    </>
  );
}

interface BarProps {
  readonly tasks: readonly PlannedTask[];
  readonly frame: Frame;
  readonly top: number;
}

interface PhaseBarProps extends BarProps {
  readonly line: string;
  readonly phase: Phase;
  /** Whether it can be taken hold of. */
  readonly held: boolean;
}

/** All of a stage on a line: its stretches of work, held together by a thin line, and what is taken hold of. */
function PhaseBar({ line, phase, tasks, frame, top, held }: PhaseBarProps) {
  const span = spanOf(tasks);
  const words = `${line}, ${PHASE_NAMES[phase]}`;
  if (!span) return null;
  const left = frame.x(span.start.slice(0, 10), span.start.slice(11));
  const right = frame.x(span.end.slice(0, 10), span.end.slice(11));
  if (right <= 0 || left >= frame.days.length * frame.dayWidth) return null;
  return (
    <>
      <span className="bg-soft absolute h-px" style={{ left, width: Math.max(1, right - left), top: top + 3 }} />
      <Stretches tasks={tasks} frame={frame} top={top} fill={FILL[phase]} />
      <Waits tasks={tasks} frame={frame} top={top} />
      {held && <Handle tasks={tasks} words={words} id={words} span={[left, right]} top={top - 1} height={LANE} />}
    </>
  );
} // prettier-ignore

interface HandleProps extends Dragged {
  readonly id: string;
  /** From where to where, px. */
  readonly span: readonly [left: number, right: number];
  readonly top: number;
  readonly height: number;
}

/** What a bar is taken hold of by. */
function Handle({ tasks, words, id, span: [left, right], top, height }: HandleProps) {
  const drag = useDraggable({ id, data: { tasks, words } satisfies Dragged });
  const { start, end } = spanOf(tasks)!;
  const said = `${words}: ${timeName(start)} to ${timeName(end)}`;
  return (
    <button
      ref={drag.setNodeRef}
      className="absolute z-[1] cursor-grab rounded-[2px] hover:outline hover:outline-1"
      style={{
        left: left - 1,
        width: Math.max(8, right - left + 2),
        top,
        height,
        transform: drag.transform ? `translateX(${drag.transform.x}px)` : undefined,
        background: drag.isDragging ? 'var(--pick)' : 'transparent',
      }}
      title={said}
      {...drag.attributes}
      {...drag.listeners}
      aria-label={said}
    />
  );
}

function Stretches({ tasks, frame, top, fill }: BarProps & { fill: string }) {
  return (
    <>
      {tasks.flatMap((t) =>
        t.shifts.map((s, k) => {
          const left = frame.x(s.day, s.from);
          const right = frame.x(s.day, s.to);
          if (right <= 0 || left >= frame.days.length * frame.dayWidth) return null;
          return (
            <span
              key={`${t.id} ${k}`}
              className={`absolute ${fill} ${t.critical ? 'bar-critical' : ''}`}
              style={{ left, width: Math.max(2, right - left - 0.5), top, height: LANE - 2 }}
            />
          );
        }),
      )}
    </>
  );
}

/** From what was set to what waits for it, by the clock. */
function Waits({ tasks, frame, top }: BarProps) {
  return (
    <>
      {tasks.flatMap((t) =>
        t.after.flatMap((a) => {
          const before = a.wait_h > 0 ? tasks.find((b) => b.id === a.id) : undefined;
          if (!before?.end || !t.start) return [];
          const left = frame.x(before.end.slice(0, 10), before.end.slice(11));
          const right = frame.x(t.start.slice(0, 10), t.start.slice(11));
          return right > left + 1
            ? [<span key={`${a.id} ${t.id}`} className="bar-wait absolute" style={{ left, width: right - left, top: top + 2 }} />] // prettier-ignore
            : [];
        }),
      )}
    </>
  );
}

/** The single tasks of a line, under its row. */
function TaskRows({ tasks, frame, names, held }: { tasks: readonly PlannedTask[]; frame: Frame; names: number; held: boolean }) {
  const chosen = useBuildTab((t) => t.task);
  return (
    <div className="mt-1">
      {tasks.filter((t) => t.start !== null).map((t) => (
        <div key={t.id} className={names ? 'flex items-center' : ''}>
          <button
            className={`label cursor-pointer truncate pl-3 text-left ${chosen === t.id ? 'bg-chosen' : 'hover:bg-hover'}`}
            style={names ? { width: names } : {}}
            aria-pressed={chosen === t.id}
            onClick={() => useBuildTab.setState({ task: t.id })}
          >
            {t.name}
            {!held && `, ${timeName(t.start!)}`}
          </button>
          <div className="relative h-4 grow">
            <TaskBar task={t} frame={frame} held={held} />
          </div>
        </div>
      ))}
    </div>
  );
} // prettier-ignore

function TaskBar({ task, frame, held }: { task: PlannedTask; frame: Frame; held: boolean }) {
  const left = frame.x(task.start!.slice(0, 10), task.start!.slice(11));
  const right = frame.x(task.end!.slice(0, 10), task.end!.slice(11));
  if (right < 0 || left > frame.days.length * frame.dayWidth) return null;
  return (
    <>
      <Stretches tasks={[task]} frame={frame} top={4} fill={FILL[phaseOf(task)]} />
      {held && (
        <Handle
          tasks={[task]}
          words={task.name}
          id={task.id}
          span={[left, right]}
          top={2}
          height={12}
        />
      )}
    </>
  );
}
