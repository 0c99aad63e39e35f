import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { hasUsualOutputs, quotedWords, upgradeInWords, type Job, type JobView } from '@fairwatt/core';
import { Primary } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import { CaseForm } from './case-form.tsx';
import { Complaint } from './complaint.tsx';
import { Counter } from './counter.tsx';
import { PartsForm } from './parts-form.tsx';
import { SupplyForm } from './supply-form.tsx';
import { SoFar } from './so-far.tsx';
import styles from './intake.module.css';
import { Choice } from '../../controls/choice.tsx';
import { useWay } from '../../controls/use-way.ts';

const allPages = [
  ['complaint', 'Complaint'],
  ['machine', 'Parts'],
  ['supply', 'Present supply'],
  ['case', 'Case and bag'],
  ['counter', 'At the counter'],
] as const;
type Page = (typeof allPages)[number][0];

interface Missing {
  readonly page: Page;
  readonly text: string;
}

/** What is still to be found out, and on which page. */
function missingOf(job: Job, { saidDangers }: JobView): readonly Missing[] {
  const { sheet, parts, supply } = job;
  const missing: Missing[] = [];
  const isMachine = !sheet.bareSupply;
  if (isMachine && sheet.button === null) missing.push({ page: 'complaint', text: 'what pressing the button does' });
  for (const { words } of saidDangers)
    missing.push({ page: 'complaint', text: `what the client’s ${quotedWords(words)} means` });
  if (isMachine && parts.length === 0) missing.push({ page: 'machine', text: "the machine's parts" });
  if (upgradeInWords(job) !== null) missing.push({ page: 'machine', text: 'the parts of the planned upgrade' });
  if (supply === null) missing.push({ page: 'supply', text: "the supply's label" });
  else if (supply.label.rails.length === 0) missing.push({ page: 'supply', text: "the rails on the supply's label" });
  else if (hasUsualOutputs(supply.label))
    missing.push({ page: 'supply', text: "what the supply's label says; figures here are what is usual" });
  if (isMachine && sheet.cableBag === null) missing.push({ page: 'case', text: 'whether the cable bag came along' });
  return missing;
}

/** Whoever is led to a page types on at once. */
function useLed() {
  const [led, setLed] = useState<Page | null>(null);
  useEffect(() => {
    if (led !== null) document.querySelector<HTMLElement>(`.${looks.work} [data-entry]`)?.focus();
  }, [led]);
  return setLed;
}

/** A machine, or a supply by itself. */
function WhatCame({ onSupply }: { readonly onSupply: () => void }) {
  const { job, act, locked } = useDesk();
  return (
    <div className={styles.came}>
      <Choice<'machine' | 'supply'>
        label="What came"
        value={job.sheet.bareSupply ? 'supply' : 'machine'}
        disabled={locked}
        options={[
          { value: 'machine', label: 'A machine' },
          { value: 'supply', label: 'A supply by itself' },
        ]}
        onPick={(value) => {
          const changes = { bareSupply: value === 'supply' };
          if (act({ kind: 'edit-sheet', changes, basedOn: job.sheet.version }) === null && changes.bareSupply)
            onSupply();
        }}
      />
    </div>
  );
}

/** The complaint, the machine, the supply, the case: what everything else is computed from. */
export default function Intake() {
  const { job, view, code } = useDesk();
  const bare = job.sheet.bareSupply;
  const navigate = useNavigate();
  const [picked, setPage] = useWay(allPages, 'complaint');
  const setLed = useLed();
  const pages = bare ? allPages.filter(([id]) => id !== 'machine' && id !== 'case') : allPages;
  const page = pages.some(([id]) => id === picked) ? picked : 'supply';
  const missing = missingOf(job, view);
  const isMissing = (id: Page) => missing.some((item) => item.page === id);
  // What is missing on the page in sight is in sight; the way leads on to the next page that misses something, never
  // back: what cannot be read yet holds nobody up.
  const order = pages.map(([id]) => id);
  const next = order.slice(order.indexOf(page) + 1).find(isMissing);
  return (
    <div className={looks.station}>
      <div className={looks.work}>
        {(bare || job.parts.length === 0) && <WhatCame onSupply={() => setPage('supply')} />}
        <div className={looks.wellAbove}>
          <Choice
            label="Parts of the intake"
            value={page}
            options={pages.map(([id, label]) => ({
              value: id,
              label: (
                <>
                  {label}
                  {isMissing(id) && <span aria-label=", something is missing"> ○</span>}
                </>
              ),
            }))}
            onPick={(id) => {
              setPage(id);
              setLed(null);
            }}
          />
        </div>
        {page === 'complaint' && <Complaint />}
        {page === 'machine' && <PartsForm />}
        {page === 'supply' && <SupplyForm />}
        {page === 'case' && <CaseForm />}
        {page === 'counter' && <Counter />}
      </div>
      <aside className={looks.side} aria-label="What it means now">
        <SoFar missing={missing.map(({ text }) => text)} />
        <div className={styles.next}>
          {next !== undefined ? (
            <Primary
              onClick={() => {
                setPage(next);
                setLed(next);
              }}
            >
              {pages.find(([id]) => id === next)?.[1]}
            </Primary>
          ) : (
            <Primary
              onClick={() => {
                void navigate(`/jobs/${code}/${bare ? 'measure' : 'fault'}`);
              }}
            >
              {bare ? 'Measure it' : 'Find the fault'}
            </Primary>
          )}
        </div>
      </aside>
    </div>
  );
}
