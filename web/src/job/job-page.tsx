import { lazy, memo, Suspense, useCallback, useMemo, useState } from 'react';
import { Button } from 'antd';
import { shallowEqual } from 'react-redux';
import { Navigate, Route, Routes, useNavigate, useParams } from 'react-router';
import {
  compileModel,
  knowsOf,
  faultSourceOf,
  faultView,
  loadView,
  questionOf,
  unanswered,
  viewJob,
  type CableBags,
  type HistoryNames,
  type Job,
  type Knowledge,
  type Shop,
  type ShopRecord,
  type Station,
} from '@fairwatt/core';
import { roleMay, type Technician } from '@fairwatt/contract';
import {
  problemOf,
  useJobQuery,
  useCableBagsQuery,
  useKnowledgeQuery,
  useRecordQuery,
  useShopQuery,
  useWholeSuppliesQuery,
} from '../app/api.ts';
import type { ShopData } from '../app/endpoints/build.ts';
import { useRole } from '../access/use-may.ts';
import { Guarded } from '../app/trouble.tsx';
import { useAppSelector } from '../app/store.ts';
import { Empty } from '../controls/empty.tsx';
import { Waiting } from '../controls/waiting.tsx';
import { overlay } from '../offline/overlay.ts';
import { looks } from '../looks/looks.ts';
import { Conflicts } from './conflicts.tsx';
import { JobDeskContext, useDesk, type JobDesk } from './job-context.ts';
import { DangerStrip } from './interlock-card.tsx';
import { SaidDangerStrip } from './said-dangers.tsx';
import { JobHead } from './job-head.tsx';
import { NotNeeded } from './not-needed.tsx';
import { PutAwayStrip } from './put-away-strip.tsx';
import { stationCode } from './station-code.ts';
import { StationWire } from './station-wire.tsx';
import { steadyJob } from './steady-job.ts';
import { UndoStrip } from './undo.tsx';
import { useActing } from './use-acting.ts';
import { useRanking } from './use-sizing.ts';
import styles from './job-page.module.css';

const SecondPerson = lazy(() => import('./second-person.tsx'));
const Intake = stationCode.intake.Drawn;
const Fault = stationCode.fault.Drawn;
const Measure = stationCode.measure.Drawn;
const Load = stationCode.load.Drawn;
const Replacement = stationCode.replacement.Drawn;
const Cables = stationCode.cables.Drawn;
const HandOver = stationCode['hand-over'].Drawn;

/**
 * What was answered to a question, or why nothing was: that it is asked once more draws nothing anew. On the way from
 * one job to another, the one that is left is not this one.
 */
const selectFromResult = <T,>({ currentData, isError, error }: Answered<T>): Answered<T> => ({
  currentData,
  isError,
  error,
});

interface Answered<T> {
  readonly currentData?: T | undefined;
  readonly isError: boolean;
  readonly error?: unknown;
}

export default function JobPage() {
  const { code = '' } = useParams();
  const job = useJobQuery(code, { refetchOnFocus: true, refetchOnMountOrArgChange: 5, selectFromResult });
  const shop = useShopQuery(undefined, { selectFromResult });
  const supplies = useWholeSuppliesQuery(undefined, { selectFromResult });
  const knowledge = useKnowledgeQuery(undefined, { selectFromResult });
  const record = useRecordQuery(undefined, { selectFromResult });
  const bags = useCableBagsQuery(undefined, { selectFromResult });
  const missing = [job, shop, supplies, knowledge, record, bags].find(
    (query) => query.currentData === undefined && query.isError,
  );
  if (missing !== undefined) {
    const problem = problemOf(missing.error);
    return (
      <div className={looks.page}>
        <Empty title={problem.title}>
          {problem.status === 404 ? (
            <>
              Look for it among the <a href="/jobs">jobs</a>.
            </>
          ) : (
            'It is tried again by itself.'
          )}
        </Empty>
      </div>
    );
  }
  if (
    job.currentData === undefined ||
    shop.currentData === undefined ||
    supplies.currentData === undefined ||
    knowledge.currentData === undefined ||
    record.currentData === undefined ||
    bags.currentData === undefined
  )
    return <Waiting className={looks.page}>Fetching {code} …</Waiting>;
  return (
    <Desk
      key={code}
      stored={job.currentData}
      shopData={shop.currentData}
      supplies={supplies.currentData}
      knowledge={knowledge.currentData}
      record={record.currentData.counts}
      bags={bags.currentData}
    />
  );
}

/** The computation's shop, compiled once per knowledge and record. */
function useShop(
  shopData: ShopData,
  supplies: Shop['supplies'],
  knowledge: Knowledge,
  record: ShopRecord,
  bags: CableBags,
): Shop {
  const model = useMemo(() => compileModel(knowledge, record), [knowledge, record]);
  return useMemo(
    () => ({ settings: shopData.settings, instruments: shopData.instruments, supplies, model, bags }),
    [shopData, supplies, model, bags],
  );
}

/** The job as {@link steadyJob} has it, from one drawing to the next. */
function useSteadyJob(job: Job): Job {
  const [kept, keep] = useState({ job, steady: job });
  if (kept.job === job) return kept.steady;
  const steady = steadyJob(kept.steady, job);
  keep({ job, steady });
  return steady;
}

/** The same object for as long as nothing in it changed. */
function useSame<T extends object>(value: T): T {
  const [kept, keep] = useState(value);
  if (shallowEqual(kept, value)) return kept;
  keep(value);
  return value;
}

/**
 * What follows from the job; each part is computed again only when something it depends on changed. Supplies are judged
 * in a worker.
 */
function useView(job: Job, shop: Shop) {
  const {
    layout,
    shapes,
    depthMillimetres,
    school,
    measuredLoad,
    staggeredStart,
    supplyYears,
    cardAdviceWatts,
    day,
    wants,
    ownHoles,
    ventClosed,
  } = job.sheet;
  const { settings, supplies, bags } = shop;
  const load = useMemo(
    () => loadView(job, { settings, supplies, bags }),
    // oxlint-disable-next-line react-hooks/exhaustive-deps -- the fields that matter are named one by one
    [
      job.parts,
      job.supply,
      layout,
      measuredLoad,
      staggeredStart,
      supplyYears,
      cardAdviceWatts,
      settings,
      supplies,
      bags,
    ],
  );
  const source = useSame(faultSourceOf(job));
  const fault = useMemo(() => faultView(source, shop, load), [source, shop, load]);
  const asked = JSON.stringify([
    layout,
    shapes,
    depthMillimetres,
    school,
    measuredLoad,
    staggeredStart,
    cardAdviceWatts,
    day,
    wants,
    ownHoles,
    ventClosed,
    job.supply?.label,
  ]);
  // oxlint-disable-next-line react-hooks/exhaustive-deps -- as above
  const question = useMemo(() => questionOf(job, { settings, bags }), [job.parts, asked, settings, bags]);
  const { rows, judging } = useRanking(question, shop);
  const view = useMemo(() => viewJob(job, shop, { fault, load, candidates: rows }), [job, shop, fault, load, rows]);
  return { view, question, judging };
}

/** What acts on this job speak of by ids. */
const namesOf = (job: Job, shop: Shop, knowledge: Knowledge): HistoryNames => ({
  knowledge,
  part: (id) => job.parts.find((part) => part.id === id)?.name ?? id,
  inlet: (id) => job.parts.flatMap((part) => part.inlets).find((inlet) => inlet.id === id)?.label ?? id,
  supply: (id) => shop.supplies.find((model) => model.id === id)?.name ?? id,
});

/** The station that the address names. */
function StationPages() {
  const { job, view } = useDesk();
  const { bareSupply } = job.sheet;
  return (
    <Guarded>
      <Suspense
        fallback={
          <div className={looks.station}>
            <Waiting className={looks.work} />
          </div>
        }
      >
        <Routes>
          <Route index element={<Navigate to={firstStation(job, view.stations)} replace />} />
          <Route path="intake" element={<Intake />} />
          <Route path="fault" element={bareSupply ? <NotNeeded /> : <Fault />} />
          <Route path="measure" element={<Measure />} />
          <Route path="load" element={bareSupply ? <NotNeeded /> : <Load />} />
          <Route path="replacement" element={bareSupply ? <NotNeeded /> : <Replacement />} />
          <Route path="cables" element={bareSupply ? <NotNeeded /> : <Cables />} />
          <Route path="hand-over" element={<HandOver />} />
          <Route path="*" element={<Navigate to="../intake" replace />} />
        </Routes>
      </Suspense>
    </Guarded>
  );
}

/** What an act was refused for, until it is read. */
function Refusal({ words, onRead }: { readonly words: string | null; readonly onRead: () => void }) {
  if (words === null) return null;
  return (
    <div className={`${looks.notice} ${looks.bad}`} role="alert">
      <span>{words}</span>
      <Button type="link" onClick={onRead}>
        Got it
      </Button>
    </div>
  );
}

interface DeskProps {
  readonly stored: Job;
  readonly shopData: ShopData;
  readonly supplies: Shop['supplies'];
  readonly knowledge: Knowledge;
  readonly record: ShopRecord;
  readonly bags: CableBags;
}

/** The job as everything on this screen sees it, with what is done here and not sent yet, and what can be done to it. */
function useWholeDesk({ stored, shopData, supplies, knowledge, record, bags }: DeskProps) {
  const { code } = stored;
  const navigate = useNavigate();
  const parcels = useAppSelector((state) => state.outbox.parcels);
  const technician = useAppSelector((state) => state.session.technician);
  const technicians: readonly Technician[] = shopData.technicians;
  const role = useRole();
  const shop = useShop(shopData, supplies, knowledge, record, bags);
  const knows = useMemo(() => knowsOf(shop), [shop]);
  const job = useSteadyJob(useMemo(() => overlay(stored, parcels, knows), [stored, parcels, knows]));
  const { view, question, judging } = useView(job, shop);
  const by = technicians.some((person) => person.id === technician) ? technician : null;
  const names = useMemo(() => namesOf(job, shop, knowledge), [job, shop, knowledge]);
  const unansweredPoints = useCallback(() => unanswered(view.openPoints).length, [view]);
  const acting = useActing({ code, by, knows, unansweredPoints, names });
  const { acts } = acting;
  const desk = useMemo<JobDesk>(
    () => ({
      ...acts,
      code: job.code,
      job,
      view,
      shop,
      knowledge,
      record,
      technicians,
      question,
      judging,
      technician: by,
      locked: job.state !== 'open' || by === null || role === null || !roleMay(role, 'intake'),
      goTo: (station, way) => {
        void navigate(`/jobs/${job.code}/${station}${way === undefined ? '' : `?way=${way}`}`);
      },
      names,
      personName: (id) => technicians.find((person) => person.id === id)?.name ?? id,
      partName: names.part,
      inletLabel: names.inlet,
    }),
    [acts, job, view, shop, knowledge, record, technicians, question, judging, by, role, names, navigate],
  );
  return { desk, acting };
}

/** What stands there whatever is done: drawn anew only when the desk has changed. */
const aboveTheWork = (
  <>
    <JobHead />
    <PutAwayStrip />
    <DangerStrip />
    <SaidDangerStrip />
  </>
);
const theWork = (
  <>
    <StationWire />
    <StationPages />
  </>
);

const Desk = memo(function Desk(props: DeskProps) {
  const { desk, acting } = useWholeDesk(props);
  const { acts, told, refusal, setRefusal, second, setSecond } = acting;
  return (
    <JobDeskContext value={desk}>
      <div className={styles.job}>
        <div>
          <Conflicts />
          <Refusal words={refusal} onRead={() => setRefusal(null)} />
          {second !== null && desk.technician !== null && (
            <Suspense fallback={null}>
              <SecondPerson job={desk.job} act={second} by={desk.technician} onClose={() => setSecond(null)} />
            </Suspense>
          )}
          {aboveTheWork}
        </div>
        {theWork}
      </div>
      <UndoStrip told={told} undo={acts.undo} />
    </JobDeskContext>
  );
});

/** Where the work goes on: what needs somebody, else the first that is not settled. */
function firstStation(job: Job, all: readonly Station[]): string {
  if (job.state === 'closed') return 'hand-over';
  const stations = all.filter(({ line }) => line.code !== 'not-needed');
  return (
    (
      stations.find((station) => station.state === 'needs-you') ??
      stations.find((station) => station.state !== 'settled')
    )?.id ?? 'intake'
  );
}
