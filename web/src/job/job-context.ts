import { createContext, useContext } from 'react';
import type { FitQuestion, HistoryNames, Job, JobView, Knowledge, Shop, ShopRecord, StationId } from '@fairwatt/core';
import type { Technician } from '@fairwatt/contract';
import type { Acts } from './use-acting.ts';
import type { Judging } from './use-sizing.ts';

/** What every station works on, and does to it. */
export interface JobDesk extends Acts {
  readonly code: string;
  readonly job: Job;
  readonly view: JobView;
  readonly shop: Shop;
  readonly knowledge: Knowledge;
  /** What the shop's closed jobs say. */
  readonly record: ShopRecord;
  readonly technicians: readonly Technician[];
  /** What is asked of a replacement; null without parts. */
  readonly question: FitQuestion | null;
  /** How the judging of the shop's supplies stands. */
  readonly judging: Judging;
  readonly technician: string | null;
  /** Closed, or nobody picked at the top right. */
  readonly locked: boolean;
  /** Opens another station of this job, on its first page or on one of its others. */
  readonly goTo: (station: StationId, way?: string) => void;
  readonly names: HistoryNames;
  readonly personName: (id: string) => string;
  readonly inletLabel: (id: string) => string;
  readonly partName: (id: string) => string;
}

export const JobDeskContext = createContext<JobDesk | null>(null);

export function useDesk(): JobDesk {
  const desk = useContext(JobDeskContext);
  if (desk === null) throw new Error('no job is on the desk');
  return desk;
}
