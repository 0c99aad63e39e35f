import { lazy, Suspense, useCallback, useEffect, useMemo, useState, type ReactNode } from 'react';
import { Button } from 'antd';
import { shallowEqual, useStore } from 'react-redux';
import { Navigate, Route, Routes, useNavigate, useParams } from 'react-router';
import {
  applyAct,
  basedOnStanding,
  compileModel,
  knowsOf,
  faultSourceOf,
  faultView,
  loadView,
  questionOf,
  refusalText,
  unanswered,
  viewJob,
  type Act,
  type CableBags,
  type Job,
  type Knowledge,
  type Refusal,
  type Shop,
  type ShopRecord,
  type Station,
} from '@fairwatt/core';
import { actPermissions, permissions, roleMay, type Technician } from '@fairwatt/contract';
import {
  api,
  problemOf,
  useAccessQuery,
  useJobQuery,
  useCableBagsQuery,
  useKnowledgeQuery,
  useRecordQuery,
  useShopQuery,
  useSuppliesQuery,
  type ShopData,
} from '../app/api.ts';
import { useRole } from '../access/use-may.ts';
import { Guarded } from '../app/trouble.tsx';
import { useAppDispatch, useAppSelector, type AppState } from '../app/store.ts';
import { Empty } from '../controls/empty.tsx';
import { Waiting } from '../controls/waiting.tsx';
import { outbox } from '../offline/outbox.ts';
import { overlay } from '../offline/overlay.ts';
import { nextOrder, thisTab } from '../offline/parcel.ts';
import { Conflicts } from './conflicts.tsx';
import { JobDeskContext, type JobDesk } from './job-context.ts';
import { DangerStrip } from './interlock-card.tsx';
import { JobHead } from './job-head.tsx';
import { NotNeeded } from './not-needed.tsx';
import { Presence } from './presence.tsx';
import { PutAwayStrip } from './put-away-strip.tsx';
import { StationWire } from './station-wire.tsx';
import { useRanking } from './use-sizing.ts';

const SecondPerson = lazy(() => import('./second-person.tsx'));
const Intake = lazy(() => import('../stations/intake/intake.tsx'));
const Fault = lazy(() => import('../stations/fault/fault.tsx'));
const Measure = lazy(() => import('../stations/measure/measure.tsx'));
const Load = lazy(() => import('../stations/load/load.tsx'));
const Replacement = lazy(() => import('../stations/replacement/replacement.tsx'));
const Cables = lazy(() => import('../stations/cables/cables.tsx'));
const HandOver = lazy(() => import('../stations/hand-over/hand-over.tsx'));

export default function JobPage() {
  const { code = '' } = useParams();
  const job = useJobQuery(code, {
    refetchOnFocus: true,
    refetchOnMountOrArgChange: 5,
  });
  const shop = useShopQuery();
  const supplies = useSuppliesQuery();
  const knowledge = useKnowledgeQuery();
  const record = useRecordQuery();
  const bags = useCableBagsQuery();
  const missing = [job, shop, supplies, knowledge, record, bags].find(
    (query) => query.data === undefined && query.isError,
  );
  if (missing !== undefined) {
    const problem = problemOf(missing.error);
    return (
      <div className="page">
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
    job.data === undefined ||
    shop.data === undefined ||
    supplies.data === undefined ||
    knowledge.data === undefined ||
    record.data === undefined ||
    bags.data === undefined
  )
    return <Waiting className="page">Fetching {code} …</Waiting>;
  return (
    <Desk
      key={code}
      stored={job.data}
      shopData={shop.data}
      supplies={supplies.data}
      knowledge={knowledge.data}
      record={record.data.counts}
      bags={bags.data}
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
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the fields that matter are named one by one
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
  // eslint-disable-next-line react-hooks/exhaustive-deps -- as above
  const question = useMemo(() => questionOf(job, { settings, bags }), [job.parts, asked, settings, bags]);
  const { rows, busy, failed } = useRanking(question, shop);
  const view = useMemo(() => viewJob(job, shop, { fault, load, candidates: rows }), [job, shop, fault, load, rows]);
  return { view, question, judging: busy, judgingFailed: failed };
}

function Desk({
  stored,
  shopData,
  supplies,
  knowledge,
  record,
  bags,
}: {
  readonly stored: Job;
  readonly shopData: ShopData;
  readonly supplies: Shop['supplies'];
  readonly knowledge: Knowledge;
  readonly record: ShopRecord;
  readonly bags: CableBags;
}) {
  const dispatch = useAppDispatch();
  const store = useStore<AppState>();
  const { code } = stored;
  const navigate = useNavigate();
  const parcels = useAppSelector((state) => state.outbox.parcels);
  const technician = useAppSelector((state) => state.session.technician);
  const technicians: readonly Technician[] = shopData.technicians;
  const role = useRole();
  const signsIn = useAccessQuery().data?.signing === 'secret';
  const [second, setSecond] = useState<Act | null>(null);
  const shop = useShop(shopData, supplies, knowledge, record, bags);
  const knows = useMemo(() => knowsOf(shop), [shop]);
  const job = useMemo(() => overlay(stored, parcels, knows), [stored, parcels, knows]);
  const { view, question, judging, judgingFailed } = useView(job, shop);
  const [undo, setUndo] = useState<{ text: string; run: () => void } | null>(null);
  const [refusal, setRefusal] = useState<string | null>(null);
  const by = technicians.some((person) => person.id === technician) ? technician : null;

  useEffect(() => {
    if (undo === null) return undefined;
    const timer = setTimeout(() => setUndo(null), 9000);
    return () => clearTimeout(timer);
  }, [undo]);

  const act = useCallback(
    (wanted: Act): Refusal | null => {
      if (by === null) {
        setRefusal('Pick your name at the top right first; every change is signed with it.');
        return { code: 'closed' };
      }
      const needs = actPermissions[wanted.kind];
      if (role === null || !roleMay(role, needs)) {
        // Where people sign in, a second person signs at once; without any right here nothing is asked of anybody.
        if (role !== null && signsIn && roleMay(role, 'record')) setSecond(wanted);
        else setRefusal(`Your role may not ${permissions[needs].what}.`);
        return { code: 'closed' };
      }
      const at = new Date().toISOString();
      // As it stands at this moment: several acts may come out of one key, and an undo is older than the screen.
      const state = store.getState();
      const seen = api.endpoints.job.select(code)(state).data ?? stored;
      const now = overlay(seen, state.outbox.parcels, knows);
      const done = basedOnStanding(wanted, now);
      const result = applyAct(now, done, {
        by,
        at,
        knows,
        unansweredPoints: () => unanswered(view.openPoints).length,
      });
      if (!result.ok) {
        setRefusal(refusalText(result.refusal));
        return result.refusal;
      }
      setRefusal(null);
      dispatch(
        outbox.did({
          ids: [crypto.randomUUID(), crypto.randomUUID()],
          code,
          by,
          at,
          tab: thisTab,
          order: nextOrder(Date.parse(at)),
          act: done,
          seen,
        }),
      );
      return null;
    },
    [code, stored, by, role, signsIn, knows, view, dispatch, store],
  );

  const desk = useMemo<JobDesk>(
    () => ({
      code: job.code,
      job,
      view,
      shop,
      knowledge,
      record,
      technicians,
      question,
      judging,
      judgingFailed,
      technician: by,
      locked: job.state !== 'open' || by === null || role === null || !roleMay(role, 'intake'),
      act,
      goTo: (station) => {
        void navigate(`/jobs/${job.code}/${station}`);
      },
      offerUndo: (text, run) => setUndo({ text, run }),
      personName: (id) => technicians.find((person) => person.id === id)?.name ?? id,
      partName: (id) => job.parts.find((part) => part.id === id)?.name ?? id,
      inletLabel: (id) => job.parts.flatMap((part) => part.inlets).find((inlet) => inlet.id === id)?.label ?? id,
    }),
    [job, view, shop, knowledge, record, technicians, question, judging, judgingFailed, by, role, act, navigate],
  );

  return (
    <JobDeskContext value={desk}>
      <div className="job">
        <div>
          <Conflicts />
          {refusal !== null && (
            <div className="notice bad" role="alert">
              <span>{refusal}</span>
              <Button type="link" onClick={() => setRefusal(null)}>
                Got it
              </Button>
            </div>
          )}
          {second !== null && by !== null && (
            <Suspense fallback={null}>
              <SecondPerson job={job} act={second} by={by} onClose={() => setSecond(null)} />
            </Suspense>
          )}
          <JobHead />
          <Presence />
          <PutAwayStrip />
          <DangerStrip />
        </div>
        <StationWire />
        <Guarded>
          <Suspense
            fallback={
              <div className="station">
                <Waiting className="work" />
              </div>
            }
          >
            <Routes>
              <Route index element={<Navigate to={firstStation(job, view.stations)} replace />} />
              <Route path="intake" element={<Intake />} />
              <Route path="fault" element={job.sheet.bareSupply ? <NotNeeded /> : <Fault />} />
              <Route path="measure" element={<Measure />} />
              <Route path="load" element={job.sheet.bareSupply ? <NotNeeded /> : <Load />} />
              <Route path="replacement" element={job.sheet.bareSupply ? <NotNeeded /> : <Replacement />} />
              <Route path="cables" element={job.sheet.bareSupply ? <NotNeeded /> : <Cables />} />
              <Route path="hand-over" element={<HandOver />} />
              <Route path="*" element={<Navigate to="../intake" replace />} />
            </Routes>
          </Suspense>
        </Guarded>
      </div>
      {undo !== null && (
        <Undo
          text={undo.text}
          onUndo={() => {
            undo.run();
            setUndo(null);
          }}
        />
      )}
    </JobDeskContext>
  );
}

function Undo({ text, onUndo }: { readonly text: ReactNode; readonly onUndo: () => void }) {
  return (
    <div className="undo" role="status">
      <span>{text}</span>
      <Button type="link" onClick={onUndo}>
        Undo
      </Button>
    </div>
  );
}

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
