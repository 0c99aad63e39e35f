import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { hasUsualOutputs, outcomeLabel, partsAt, wattsText } from '@fairwatt/core';
import { Primary } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { CaseForm } from './case-form.tsx';
import { Complaint } from './complaint.tsx';
import { Counter } from './counter.tsx';
import { PartsForm } from './parts-form.tsx';
import { SupplyForm } from './supply-form.tsx';
import styles from './intake.module.css';
import { WorthReading } from './worth-reading.tsx';
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

/** The complaint, the machine, the supply, the case: what everything else is computed from. */
export default function Intake() {
  const { job, view, knowledge, code, act, locked } = useDesk();
  const bare = job.sheet.bareSupply;
  const navigate = useNavigate();
  const [picked, setPage] = useWay(allPages, 'complaint');
  const pages = bare ? allPages.filter(([id]) => id !== 'machine' && id !== 'case') : allPages;
  const page = pages.some(([id]) => id === picked) ? picked : 'supply';
  const missing: { page: Page; text: string }[] = [];
  if (!bare && job.sheet.button === null) missing.push({ page: 'complaint', text: 'what pressing the button does' });
  if (!bare && job.parts.length === 0) missing.push({ page: 'machine', text: "the machine's parts" });
  if (job.supply === null) missing.push({ page: 'supply', text: "the supply's label" });
  else if (job.supply.label.rails.length === 0)
    missing.push({ page: 'supply', text: "the rails on the supply's label" });
  else if (hasUsualOutputs(job.supply.label))
    missing.push({ page: 'supply', text: "the amps on the supply's label; those here are what is usual" });
  if (!bare && job.sheet.cableBag === null) missing.push({ page: 'case', text: 'whether the cable bag came along' });
  // What is missing on the page in sight is in sight; the way leads on to the next page that misses something, never
  // back: what cannot be read yet holds nobody up.
  const order = pages.map(([id]) => id);
  const next = order.slice(order.indexOf(page) + 1).find((id) => missing.some((item) => item.page === id));
  // Whoever is led to a page types on at once.
  const [led, setLed] = useState<Page | null>(null);
  useEffect(() => {
    if (led !== null) document.querySelector<HTMLElement>('.work [data-entry]')?.focus();
  }, [led]);
  const inlets = partsAt(job.parts, 'planned').flatMap((part) => part.inlets).length;
  return (
    <div className="station">
      <div className="work">
        {(bare || job.parts.length === 0) && (
          <div className={styles.came}>
            <Choice<'machine' | 'supply'>
              label="What came"
              value={bare ? 'supply' : 'machine'}
              disabled={locked}
              options={[
                { value: 'machine', label: 'A machine' },
                { value: 'supply', label: 'A supply by itself' },
              ]}
              onPick={(value) => {
                const changes = { bareSupply: value === 'supply' };
                if (act({ kind: 'edit-sheet', changes, basedOn: job.sheet.version }) === null && changes.bareSupply)
                  setPage('supply');
              }}
            />
          </div>
        )}
        <div style={{ marginBottom: 18 }}>
          <Choice
            label="Parts of the intake"
            value={page}
            options={pages.map(([id, label]) => ({
              value: id,
              label: (
                <>
                  {label}
                  {missing.some((item) => item.page === id) && <span aria-label=", something is missing"> ○</span>}
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
      <aside className="side" aria-label="What it means now">
        <span className="label">So far</span>
        <div className="decides">
          {bare
            ? (job.supply?.name ?? '') || 'A supply by itself'
            : job.sheet.button === null
              ? 'What does pressing the button do?'
              : outcomeLabel(knowledge, 'told-button', job.sheet.button)}
        </div>
        <dl className="facts-list">
          {!bare && (
            <>
              <div>
                <dt>parts</dt>
                <dd>{job.parts.length}</dd>
              </div>
              <div>
                <dt>inlets</dt>
                <dd>{inlets}</dd>
              </div>
              <div>
                <dt>lasting load, planned</dt>
                <dd>{wattsText(view.load.planned.sustainedWatts)}</dd>
              </div>
            </>
          )}
          <div>
            <dt>supply</dt>
            <dd>{job.supply === null ? 'not entered' : wattsText(job.supply.label.ratingWatts)}</dd>
          </div>
        </dl>
        {missing.length > 0 && (
          <div>
            <span className="label">Still missing</span>
            <ul>
              {missing.map((item) => (
                <li key={item.text}>○ {item.text}</li>
              ))}
            </ul>
          </div>
        )}
        {job.parts.length > 0 && (job.supply?.label.rails.length ?? 0) > 0 && <WorthReading />}
        {job.sheet.cableBag === 'missing' && (
          <div className="caution">The cable bag did not come along. Ask for it before anything is fitted.</div>
        )}
        <div className="next">
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
