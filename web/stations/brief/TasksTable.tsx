'use client';

import { useMemo, useState } from 'react';
import {
  addTask,
  setTask,
  strikeTask,
  TASK_BEFORE,
  TASK_BEFORE_WORDS,
  TASK_HAZARDS,
  TASK_KINDS,
  type Command,
  type Job,
  type Task,
  type TaskHazard,
  type TaskKind,
} from 'wattograph-core';
import { useJobStore } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import { NumberField } from '../../ui/fields/NumberField';
import { Pick } from '../../ui/fields/Pick';
import { TextField } from '../../ui/fields/TextField';
import type { Column } from '../../ui/table/columns';
import { DataTable } from '../../ui/table/DataTable';
import styles from './Brief.module.css';
import { NoteLine } from './NoteLine';
import { createOwnerColumns } from './ownerColumns';
import { listPlaces, Places, toPlaceWord } from './Places';

interface Row {
  id: string;
  task: Task;
}

const KIND_WORDS: Readonly<Record<TaskKind, string>> = { fabricate: 'to be made', visit: 'visit', yes: 'customer’s yes' };
const KINDS = TASK_KINDS.map((value) => ({ value, label: KIND_WORDS[value] }));
const HAZARD_WORDS: Readonly<Record<TaskHazard, string>> = { weld: 'welding', drill: 'drilling', grind: 'grinding', glue: 'glue, resin' };

/** What a loom waits for that is no work on it: a bracket, a visit, a yes. Each is a step of the looms that it is for. */
export function TasksTable({ job }: { job: Job }) {
  const { people } = useShop();
  const store = useJobStore();
  const rows = useMemo(() => Object.entries(job.tasks).map(([id, task]) => ({ id, task })), [job]);
  const columns = useMemo(() => createColumns(job, people, store.edit), [job, people, store]);
  return (
    <DataTable
      name="tasks"
      label="Tasks"
      rows={rows}
      columns={columns}
      keyOf={({ id }) => id}
      empty={
        <>
          <Note />
          <p className={styles.empty}>
            Nothing else is waited for. A bracket, a boss, a hole, a visit or a yes of the customer goes here: it becomes a step of the
            looms that it is for, before the work that it names.
          </p>
        </>
      }
    >
      <Note />
    </DataTable>
  );
}

/** Write down another. */
function Note() {
  const store = useJobStore();
  const [minutes, setMinutes] = useState<number | null>(null);
  // what was typed goes with what was noted
  const [nth, setNth] = useState(0);
  return (
    <NoteLine<TaskKind>
      kindLabel="Kind of task"
      kinds={KINDS}
      first="fabricate"
      label="Task"
      placeholder="what has to be made, visited or agreed before work goes on"
      isReady={minutes !== null && Number.isFinite(minutes)}
      onNote={(kind, what) => {
        store.edit(addTask(kind, what, Math.round(minutes!)));
        setMinutes(null);
        setNth(nth + 1);
      }}
    >
      <NumberField
        key={nth}
        label="Minutes that it takes"
        placeholder="min"
        unit={null}
        least={0}
        most={6000}
        digits={0}
        canBeEmpty
        isLive
        value={minutes}
        onChange={setMinutes}
      />
    </NoteLine>
  );
}

function createColumns(job: Job, people: readonly string[], edit: (command: Command) => void): Column<Row>[] {
  const all = listPlaces(job, false);
  const toWords = toPlaceWord(all);
  return [
    {
      id: 'task',
      head: 'task',
      className: styles.task,
      value: ({ task }) => `${KIND_WORDS[task.kind]} ${task.what}`,
      cell: ({ id, task }) => (
        <>
          <span className="faint">{KIND_WORDS[task.kind]}</span>{' '}
          <TextField label={`Task ${id}`} value={task.what} most={300} onChange={(what) => what && edit(setTask(id, 'what', what))} />
        </>
      ),
    },
    {
      id: 'where',
      head: 'where',
      className: styles.where,
      value: ({ task }) => task.where,
      cell: ({ id, task }) => (
        <TextField
          label={`Where: ${task.what}`}
          value={task.where}
          most={200}
          placeholder="on the vehicle"
          onChange={(where) => edit(setTask(id, 'where', where))}
        />
      ),
    },
    {
      id: 'places',
      head: 'for',
      className: styles.for,
      value: ({ task }) => task.places.map(toWords).join(', '),
      cell: ({ id, task }) => (
        <>
          {task.places.length === 0 && <span className={styles.alarm}>on no floor yet </span>}
          <Places
            label={`Waits for ${task.what}`}
            remove="Does not wait for it"
            all={all}
            chosen={task.places}
            onChange={(places) => edit(setTask(id, 'places', places))}
          />
        </>
      ),
    },
    {
      id: 'before',
      head: 'before',
      value: ({ task }) => TASK_BEFORE_WORDS[task.before],
      cell: ({ id, task }) => (
        <Pick
          label={`Before which work: ${task.what}`}
          title="The first work there that waits. Nothing is signed before it is done."
          value={task.before}
          options={TASK_BEFORE.map((value) => ({ value, label: TASK_BEFORE_WORDS[value] }))}
          onChange={(before) => before && edit(setTask(id, 'before', before))}
        />
      ),
    },
    {
      id: 'hazards',
      head: 'can hurt',
      value: ({ task }) => task.hazards.map((one) => HAZARD_WORDS[one]).join(', '),
      cell: ({ id, task }) => <Hazards task={task} onChange={(hazards) => edit(setTask(id, 'hazards', hazards))} />,
    },
    ...createOwnerColumns<Row>({
      people: [...people, job.customer],
      toOwned: ({ task }) => ({ ...task, words: task.what }),
      onOwner: ({ id }, owner) => edit(setTask(id, 'owner', owner)),
      onDue: ({ id }, due) => edit(setTask(id, 'due', due)),
    }),
    {
      id: 'minutes',
      head: 'min',
      isNumber: true,
      value: ({ task }) => task.minutes,
      cell: ({ id, task }) => (
        <NumberField
          label={`Minutes of ${task.what}`}
          unit={null}
          least={0}
          most={6000}
          digits={0}
          value={task.minutes}
          onChange={(minutes) => minutes !== null && edit(setTask(id, 'minutes', Math.round(minutes)))}
        />
      ),
    },
    {
      id: 'do',
      head: '',
      cell: ({ id, task }) => (
        <button className={styles.link} aria-label={`Strike off: ${task.what}`} onClick={() => edit(strikeTask(id))}>
          strike off
        </button>
      ),
    },
  ];
}

function Hazards({ task, onChange }: { task: Task; onChange: (hazards: TaskHazard[]) => void }) {
  return (
    <>
      {task.hazards.map((one) => (
        <span key={one} className={styles.chip}>
          {HAZARD_WORDS[one]}
          <button aria-label={`No ${HAZARD_WORDS[one]}`} onClick={() => onChange(task.hazards.filter((other) => other !== one))}>
            ×
          </button>
        </span>
      ))}
      <Pick
        label={`Can hurt at ${task.what}`}
        value={null}
        none={task.hazards.length ? 'and …' : 'nothing …'}
        options={TASK_HAZARDS.filter((one) => !task.hazards.includes(one)).map((value) => ({ value, label: HAZARD_WORDS[value] }))}
        onChange={(one) => one && onChange([...task.hazards, one])}
      />
    </>
  );
}
