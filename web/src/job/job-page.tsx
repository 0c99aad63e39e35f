import { lazy, Suspense, useCallback, useEffect, useMemo, useState, type ReactNode } from 'react';
import { Navigate, Route, Routes, useNavigate, useParams } from 'react-router';
import { applyAct, candidatesOf, compileModel, faultView, loadView, refusalText, unanswered, viewJob, type Act, type ActContext, type Job, type Knowledge, type Refusal, type Shop, type ShopRecord } from '@fairwatt/core';
import type { Technician } from '@fairwatt/contract';
import { problemOf, useJobQuery, useKnowledgeQuery, useRecordQuery, useShopQuery, useSuppliesQuery, type ShopData } from '../app/api.ts';
import { useAppDispatch, useAppSelector } from '../app/store.ts';
import { Empty } from '../controls/empty.tsx';
import { Waiting } from '../controls/waiting.tsx';
import { outbox, overlay } from '../offline/outbox.ts';
import { Conflicts } from './conflicts.tsx';
import { JobDeskContext, type JobDesk } from './job-context.ts';
import { JobHead } from './job-head.tsx';
import { StationWire } from './station-wire.tsx';

const Intake = lazy(() => import('../stations/intake/intake.tsx'));
const Fault = lazy(() => import('../stations/fault/fault.tsx'));
const Measure = lazy(() => import('../stations/measure/measure.tsx'));
const Load = lazy(() => import('../stations/load/load.tsx'));
const Replacement = lazy(() => import('../stations/replacement/replacement.tsx'));
const Cables = lazy(() => import('../stations/cables/cables.tsx'));
const HandOver = lazy(() => import('../stations/hand-over/hand-over.tsx'));

export default function JobPage() {
  const { code = '' } = useParams();
  const job = useJobQuery(code, { refetchOnFocus: true, refetchOnMountOrArgChange: 5, pollingInterval: 12_000, skipPollingIfUnfocused: true });
  const shop = useShopQuery();
  const supplies = useSuppliesQuery();
  const knowledge = useKnowledgeQuery();
  const record = useRecordQuery();
  const missing = [job, shop, supplies, knowledge, record].find((query) => query.data === undefined && query.isError);
  if (missing !== undefined) {
    const problem = problemOf(missing.error);
    return <div className="page"><Empty title={problem.title}>{problem.status === 404 ? <>Look for it among the <a href="/jobs">jobs</a>.</> : 'It is tried again by itself.'}</Empty></div>;
  }
  if (job.data === undefined || shop.data === undefined || supplies.data === undefined || knowledge.data === undefined || record.data === undefined) return <Waiting className="page">Fetching {code} …</Waiting>;
  return <Desk key={code} stored={job.data} shopData={shop.data} supplies={supplies.data} knowledge={knowledge.data} record={record.data.counts} />;
}

/** The computation's shop, compiled once per knowledge and record. */
function useShop(shopData: ShopData, supplies: Shop['supplies'], knowledge: Knowledge, record: ShopRecord): Shop {
  const model = useMemo(() => compileModel(knowledge, record), [knowledge, record]);
  return useMemo(() => ({ settings: shopData.settings, instruments: shopData.instruments, supplies, model }), [shopData, supplies, model]);
}

/** What follows from the job; each part is computed again only when something it depends on changed. */
function useView(job: Job, shop: Shop) {
  const { button, course, layout, shapes, depthMillimetres, school } = job.sheet;
  const shapeList = shapes.join();
  // eslint-disable-next-line react-hooks/exhaustive-deps -- the fields that matter are named one by one
  const fault = useMemo(() => faultView(job, shop), [button, course, job.outcomes, job.readings, job.logs, job.supply, job.parts, shop]);
  // eslint-disable-next-line react-hooks/exhaustive-deps -- as above
  const load = useMemo(() => loadView(job), [job.parts, job.supply]);
  // eslint-disable-next-line react-hooks/exhaustive-deps -- as above
  const candidates = useMemo(() => candidatesOf(job, shop), [job.parts, layout, shapeList, depthMillimetres, school, job.supply, shop]);
  return useMemo(() => viewJob(job, shop, { fault, load, candidates }), [job, shop, fault, load, candidates]);
}

function Desk({ stored, shopData, supplies, knowledge, record }: { readonly stored: Job; readonly shopData: ShopData; readonly supplies: Shop['supplies']; readonly knowledge: Knowledge; readonly record: ShopRecord }) {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const items = useAppSelector((state) => state.outbox.items);
  const technician = useAppSelector((state) => state.session.technician);
  const technicians: readonly Technician[] = shopData.technicians;
  const shop = useShop(shopData, supplies, knowledge, record);
  const knows = useMemo<ActContext['knows']>(() => ({ instrument: (id) => shop.instruments.some((item) => item.id === id), supply: (id) => shop.supplies.some((item) => item.id === id) }), [shop]);
  const job = useMemo(() => overlay(stored, items, knows), [stored, items, knows]);
  const view = useView(job, shop);
  const [undo, setUndo] = useState<{ text: string; run: () => void } | null>(null);
  const [refusal, setRefusal] = useState<string | null>(null);
  const by = technicians.some((person) => person.id === technician) ? technician : null;

  useEffect(() => {
    if (undo === null) return undefined;
    const timer = setTimeout(() => setUndo(null), 9000);
    return () => clearTimeout(timer);
  }, [undo]);

  const act = useCallback((wanted: Act): Refusal | null => {
    if (by === null) { setRefusal('Pick your name at the top right first; every change is signed with it.'); return { code: 'closed' }; }
    const at = new Date().toISOString();
    const result = applyAct(job, wanted, { by, at, knows, unansweredPoints: () => unanswered(view.openPoints).length });
    if (!result.ok) { setRefusal(refusalText(result.refusal)); return result.refusal; }
    setRefusal(null);
    const sheet = job.sheet as unknown as Record<string, unknown>;
    const was = wanted.kind === 'edit-sheet' ? Object.fromEntries(Object.keys(wanted.changes).map((field) => [field, sheet[field]])) : {};
    dispatch(outbox.add({ id: crypto.randomUUID(), code: job.code, by, at, act: wanted, was, state: 'waiting', refusal: null }));
    return null;
  }, [job, by, knows, view, dispatch]);

  const desk = useMemo<JobDesk>(() => ({
    code: job.code, job, view, shop, knowledge, record, technicians, technician: by, locked: job.state === 'closed' || by === null, act,
    goTo: (station) => { void navigate(`/jobs/${job.code}/${station}`); },
    offerUndo: (text, run) => setUndo({ text, run }),
    personName: (id) => technicians.find((person) => person.id === id)?.name ?? id,
    inletLabel: (id) => job.parts.flatMap((part) => part.inlets).find((inlet) => inlet.id === id)?.label ?? id,
  }), [job, view, shop, knowledge, record, technicians, by, act, navigate]);

  return (
    <JobDeskContext value={desk}>
      <div className="job">
        <div>
          <Conflicts />
          {refusal !== null && <div className="notice bad" role="alert"><span>{refusal}</span><button type="button" className="link" onClick={() => setRefusal(null)}>Got it</button></div>}
          <JobHead />
        </div>
        <StationWire />
        <Suspense fallback={<div className="station"><Waiting className="work" /></div>}>
          <Routes>
            <Route index element={<Navigate to={firstStation(job, view.stations)} replace />} />
            <Route path="intake" element={<Intake />} />
            <Route path="fault" element={<Fault />} />
            <Route path="measure" element={<Measure />} />
            <Route path="load" element={<Load />} />
            <Route path="replacement" element={<Replacement />} />
            <Route path="cables" element={<Cables />} />
            <Route path="hand-over" element={<HandOver />} />
            <Route path="*" element={<Navigate to="../intake" replace />} />
          </Routes>
        </Suspense>
      </div>
      {undo !== null && <Undo text={undo.text} onUndo={() => { undo.run(); setUndo(null); }} />}
    </JobDeskContext>
  );
}

function Undo({ text, onUndo }: { readonly text: ReactNode; readonly onUndo: () => void }) {
  return <div className="undo" role="status"><span>{text}</span><button type="button" className="link" onClick={onUndo}>Undo</button></div>;
}

/** Where the work goes on: what needs somebody, else the first that is not settled. */
function firstStation(job: Job, stations: readonly { readonly id: string; readonly state: string }[]): string {
  if (job.state === 'closed') return 'hand-over';
  return (stations.find((station) => station.state === 'needs-you') ?? stations.find((station) => station.state !== 'settled'))?.id ?? 'intake';
}
