import { partClass, partsAt } from '../machine/index.ts';
import type { Job, Lead, LeadKind } from './job.ts';

/** Kinds of leads that carry no supply power, or carry it on, in the order in which a bench meets them. */
export const leadKinds = [
  'panel-switch',
  'panel-lamp',
  'panel-speaker',
  'usb-2',
  'usb-3',
  'usb-c',
  'audio',
  'fan',
  'processor-fan',
  'pump',
  'light-5',
  'light-12',
  'sata-data',
  'hub-data',
  'riser',
  'clip',
  'aerial',
  'other',
] as const satisfies readonly LeadKind[];

/** A lead as it is likely there, to be corrected. */
export type LikelyLead = Pick<Lead, 'kind' | 'what' | 'place'>;

const numbered = (count: number, lead: (number: number) => LikelyLead): LikelyLead[] =>
  Array.from({ length: count }, (_, index) => lead(index + 1));

/**
 * The leads that a machine of these parts likely has (bench practice): what a front has in any case, and what hangs on
 * its parts. To start from and to correct, not to trust.
 */
export function likelyLeads(job: Pick<Job, 'parts'>): readonly LikelyLead[] {
  const present = partsAt(job.parts, 'present');
  const countOf = (...classIds: readonly string[]) =>
    present.filter(({ classId }) => classIds.includes(classId)).reduce((sum, { quantity }) => sum + quantity, 0);
  const hasBoard = present.some(({ classId }) => partClass(classId)?.group === 'board');
  const drives = countOf('drive-flat', 'drive-35', 'drive-25', 'optical');
  const fans = countOf('fan');
  const pumps = countOf('pump', 'pump-large', 'pump-sata');
  const front: readonly LikelyLead[] = [
    { kind: 'panel-switch', what: 'Power switch', place: 'front panel 6, 8' },
    { kind: 'panel-switch', what: 'Reset switch', place: 'front panel 5, 7' },
    { kind: 'panel-lamp', what: 'Power lamp', place: 'front panel 2 +, 4 -' },
    { kind: 'panel-lamp', what: 'Drive lamp', place: 'front panel 1 +, 3 -' },
    { kind: 'usb-3', what: 'Front USB', place: 'framed 19-pin header' },
    { kind: 'audio', what: 'Front audio', place: 'audio header' },
  ];
  return [
    ...(hasBoard ? front : []),
    ...(hasBoard ? [{ kind: 'processor-fan', what: 'Processor fan', place: 'CPU fan header' } as const] : []),
    ...numbered(fans, (number) => ({ kind: 'fan', what: `Fan ${number}`, place: `fan header ${number}` })),
    ...numbered(pumps, () => ({ kind: 'pump', what: 'Pump', place: 'pump header' })),
    ...numbered(countOf('lighting'), () => ({ kind: 'light-5', what: 'Lighting', place: '5 V lighting header' })),
    ...numbered(countOf('lighting-plain'), () => ({
      kind: 'light-12',
      what: 'Lighting',
      place: '12 V lighting header',
    })),
    ...numbered(drives, (number) => ({ kind: 'sata-data', what: `Drive ${number} data`, place: `port ${number}` })),
  ];
}

/** The leads of another job's machine, by kind and name, that nobody wrote down here; each is to be looked at again. */
export function copiedLeads(from: Pick<Job, 'leads'>, job: Pick<Job, 'leads'>): readonly LikelyLead[] {
  const plain = ({ kind, what }: LikelyLead) => `${kind} ${what.trim().toLowerCase()}`;
  const here = job.leads.map(plain);
  return from.leads
    .filter((lead) => {
      const at = here.indexOf(plain(lead));
      if (at >= 0) here.splice(at, 1);
      return at < 0;
    })
    .map(({ kind, what, place }) => ({ kind, what, place }));
}

/** Leads that are out now, and those of which nobody said whether they were touched. */
export function openLeads({ leads }: Pick<Job, 'leads'>): {
  readonly out: readonly Lead[];
  readonly unsaid: readonly Lead[];
} {
  return {
    out: leads.filter(({ state }) => state === 'out'),
    unsaid: leads.filter(({ state }) => state === 'recorded'),
  };
}
