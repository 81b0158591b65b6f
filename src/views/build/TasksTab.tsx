/** All tasks as a list by line: sorted, looked through, opened and changed; work of one's own put in. */
import type { PlannedTask } from '../../core/build/shifts.js';
import { Asked } from '../../ui/parts/Asked.js';
import { useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Num } from '../../ui/parts/Num.js';
import { commit } from '../../session/session.js';
import { changeTask } from '../../core/build/edits.js';
import { dayName, timeName, useBuildTab, useWork, useWorking } from './built.js';
import { OwnTasks } from './OwnTasks.js';
import { TaskCard } from './TaskCard.js';

export function TasksTab() {
  const work = useWork();
  const { value: planned } = work;
  const lines = useSession((s) => s.plan.lines);
  const edits = useSession((s) => s.plan.build?.tasks);
  const open = useBuildTab((t) => t.task);
  const w = useWorking();
  if (!planned) return <Asked of={work} doing="Planning the work" />;
  if (planned.fault !== null) return <p role="alert">{planned.fault}</p>;
  const name = (id: string) => w.crew.find((m) => m.id === id)?.name ?? id;
  const who = (t: PlannedTask) => [...new Set(t.shifts.flatMap((s) => s.who))].map(name).join(', ');
  const out = Object.entries(edits ?? {}).filter(([, e]) => e.out);
  const done = planned.tasks.filter((t) => t.start === null).length;
  return (
    <>
      <p className="mb-2">
        {planned.tasks.length} tasks, {done} of them done. ▲ critical: no number of people makes that path of work and waits shorter.
      </p>
      <DataTable<PlannedTask>
        label="Tasks"
        rows={planned.tasks}
        keyOf={(t) => t.id}
        groupOf={(t) => (t.line === null ? 'The property' : (lines[t.line]?.name ?? t.line))}
        finds={(t) => `${t.line ? lines[t.line]?.name : ''} ${t.name} ${who(t)} ${t.start ? dayName(t.start.slice(0, 10)) : ''}`}
        detail={(t) => (t.id === open ? <TaskCard task={t} planned={planned} /> : null)}
        rowProps={(t) => ({ 'data-task': t.id })}
        columns={[
          {
            name: 'task',
            head: 'plain',
            by: (t) => t.name,
            cell: (t) => (
              <button
                className="cursor-pointer text-left underline decoration-dotted"
                aria-expanded={t.id === open}
                onClick={() => useBuildTab.setState({ task: t.id === open ? null : t.id })}
              >
                {t.name}
              </button>
            ),
          },
          { name: 'begins', by: (t) => t.start ?? '', cell: (t) => (t.start ? timeName(t.start) : '') },
          { name: 'ends', by: (t) => t.end ?? '', cell: (t) => (t.end ? timeName(t.end) : `✓ ${t.doneOn ? dayName(t.doneOn) : ''}`) },
          { name: 'who', cell: who },
          { name: 'work', n: true, by: (t) => t.left_h, cell: (t) => (t.start ? <Num value={t.left_h} q="hours" /> : '') },
          {
            name: 'may slip',
            n: true,
            by: (t) => t.float_h ?? 1e6,
            cell: (t) =>
              t.start === null || t.float_h === null ? (
                ''
              ) : (
                <>
                  {t.float_h === 0 ? 'no' : <Num value={t.float_h} q="hours" />}
                  {t.critical && <span title="critical"> ▲</span>}
                </>
              ),
          },
        ]}
      />
      {out.length > 0 && (
        <p className="mt-3">
          Left out:{' '}
          {out.map(([id]) => (
            <Button key={id} className="mr-2" onClick={() => commit(`put back ${id}`, (d) => changeTask(d, id, { out: undefined }))}>
              put back {id.split(':')[0]} of {lines[id.split(':')[1]!.split('.')[0]!]?.name ?? id.split(':')[1]}
            </Button>
          ))}
        </p>
      )}
      <OwnTasks tasks={planned.tasks} />
    </>
  );
} // prettier-ignore
