import { useMemo, useState } from 'react';
import { Select } from 'antd';
import { firstJobPage, type OwnPart } from '@fairwatt/contract';
import {
  isSought,
  partClass,
  partClasses,
  soughtPart,
  type PartClass,
  type PartSource,
  type SoughtPart,
} from '@fairwatt/core';
import { useJobsQuery, useOwnPartsQuery } from '../../app/api.ts';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import { useLikeJob } from './use-like-job.ts';

const groups: readonly (readonly [PartClass['group'], string])[] = [
  ['board', 'Board'],
  ['processor', 'Processor'],
  ['memory', 'Memory'],
  ['card', 'Cards'],
  ['drive', 'Drives'],
  ['cooling', 'Cooling'],
  ['other', 'Other'],
];
/** Earlier machines are looked for from so many letters on. */
const leastLetters = 2;

interface Option {
  readonly value: string;
  readonly label: string;
}
interface Group {
  readonly label: string;
  readonly options: readonly Option[];
}

/** Names with their watts, and how many of them come at once. */
const lineOf = ({ name, figures }: Pick<PartClass, 'name' | 'figures'>, quantity: number): string =>
  (quantity === 1 ? name : `${quantity} × ${name}`) +
  ` · ${Math.round(figures.likelyWatts)} W${quantity === 1 ? '' : ' each'}`;

/** The shop's own parts and the classes in which all words stand, and what the words name whatever it is called. */
function partGroups(sought: SoughtPart, own: readonly OwnPart[]): Group[] {
  const { named, quantity } = sought;
  if (quantity === null) return [];
  return [
    {
      label: 'Parts of this shop',
      options: own
        .filter((part) => isSought(sought, part.name) || named?.own === part.id)
        .map((part) => ({ value: `own:${part.id}`, label: lineOf(part, quantity) })),
    },
    ...groups.map(([group, label]) => ({
      label,
      options: partClasses
        .filter((one) => one.group === group)
        .filter((one) => isSought(sought, one.name) || (named?.own === null && named.classId === one.id))
        .map((one) => ({ value: `class:${one.id}`, label: lineOf(one, quantity) })),
    })),
  ];
}

/** Earlier jobs that the words find. */
function useMachines(words: string): Group & { readonly told: string | null } {
  const { job } = useDesk();
  const jobs = useJobsQuery({ ...firstJobPage, search: words }, { skip: words.length < leastLetters });
  const found = words.length < leastLetters ? [] : (jobs.currentData?.jobs ?? []);
  return {
    told: jobs.isFetching ? 'Looking …' : jobs.isError ? 'Earlier machines could not be looked for' : null,
    label: 'Earlier machines',
    options: found
      .filter(({ code }) => code !== job.code)
      .map(({ code, title, client }) => ({
        value: `job:${code}`,
        label: [code, title, client].filter((text) => text !== '').join(' · '),
      })),
  };
}

const nothingText = ({ quantity, words }: SoughtPart): string =>
  quantity === null
    ? 'From one to 64 of a part can be added at once'
    : `Neither a class, nor a part of this shop, nor an earlier machine is called "${words.join(' ')}"`;

/** One field that finds whatever a machine is made of: classes, the shop's own parts, and machines of earlier jobs. */
export function PartSearch({
  onAdd,
}: {
  readonly onAdd: (source: PartSource, quantity: number, change: SoughtPart['change']) => void;
}) {
  const { locked } = useDesk();
  const { take, told } = useLikeJob();
  const ownQuery = useOwnPartsQuery();
  const own = useMemo(() => ownQuery.data ?? [], [ownQuery.data]);
  const [typed, setTyped] = useState('');
  const sought = useMemo(() => soughtPart(typed, own), [typed, own]);
  const machines = useMachines(sought.words.join(' '));
  const found = [...partGroups(sought, own), { label: machines.label, options: machines.options }].filter(
    ({ options }) => options.length > 0,
  );

  function pick(value: string): void {
    const [kind = ''] = value.split(':', 1);
    const id = value.slice(kind.length + 1);
    setTyped('');
    if (kind === 'job') {
      void take(id);
      return;
    }
    const part = kind === 'own' ? own.find((one) => one.id === id) : partClass(id);
    if (part !== undefined && sought.quantity !== null)
      onAdd({ ...part, classId: 'classId' in part ? part.classId : id }, sought.quantity, sought.change);
  }
  return (
    <label className={looks.field}>
      <span className={looks.name}>Find a part or an earlier machine</span>
      <Select<string | null>
        aria-label="Find a part or an earlier machine"
        value={null}
        placeholder="4x hard drive, + card, a client, or pick a class"
        showSearch={{ filterOption: false, searchValue: typed, onSearch: setTyped }}
        notFoundContent={machines.told ?? nothingText(sought)}
        listHeight={300}
        disabled={locked}
        onChange={(picked) => {
          if (picked !== null) pick(picked);
        }}
        options={found}
      />
      {told !== null && (
        <span className={looks.errorText} role="alert">
          {told}
        </span>
      )}
    </label>
  );
}
