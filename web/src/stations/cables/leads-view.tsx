import type { ReactNode } from 'react';
import { Button, Input, Select } from 'antd';
import { Link } from 'react-router';
import {
  copiedLeads,
  guideOfLead,
  leadCaution,
  leadKinds,
  leadKindText,
  leadStates,
  leadStateText,
  likelyLeads,
  openLeads,
  type Lead,
  type LeadKind,
  type LeadState,
} from '@fairwatt/core';
import { Choice } from '../../controls/choice.tsx';
import { Empty } from '../../controls/empty.tsx';
import { Primary } from '../../controls/fields.tsx';
import { Sheet } from '../../controls/sheet.tsx';
import { EarlierJob } from '../../job/earlier-job.tsx';
import { useDesk } from '../../job/job-context.ts';
import { useOtherJob } from '../../job/use-other-job.ts';
import { looks } from '../../looks/looks.ts';
import type { OpenWay } from './cables.tsx';
import { Photos } from '../../pictures/photos.tsx';
import { signs } from '../../controls/signs.tsx';
import styles from './leads-view.module.css';

type LeadDraft = Omit<Lead, 'by' | 'at' | 'version'>;
const draftOf = ({ id, kind, what, place, state }: Lead): LeadDraft => ({ id, kind, what, place, state });

/** Leads that carry no supply power: what they are, where they go, and whether they are out now. */
export function LeadsView({ tabs, onWay }: { readonly tabs: ReactNode; readonly onWay: OpenWay }) {
  const { job, act, locked } = useDesk();
  const { unsaid } = openLeads(job);
  const put = (lead: LeadDraft, basedOn: number) => act({ kind: 'put-lead', lead, basedOn });
  const add = (lead: Omit<LeadDraft, 'id' | 'state'>) =>
    put({ ...lead, id: crypto.randomUUID(), state: 'recorded' }, 0);
  const mark = (leads: readonly Lead[], state: LeadState) =>
    act({ kind: 'mark-leads', leadIds: leads.map(({ id }) => id), state });
  const likely = likelyLeads(job);
  const other = useOtherJob((earlier) => {
    const leads = copiedLeads(earlier, job);
    for (const lead of leads) add(lead);
    return leads.length === 0 ? `${earlier.code} has no lead that is not here already.` : null;
  });
  const copy = <EarlierJob label="Leads as in another job" {...other} />;

  return (
    <>
      <div className={looks.work}>
        {tabs}
        {job.leads.length === 0 ? (
          <Empty title="Which other leads does the work disturb?">
            <p>Front panel, USB, audio, fans, lighting, drive data, riser, clips, aerials: one line each.</p>
            <div className={styles.acts}>
              {likely.length > 0 && (
                <Button type="primary" disabled={locked} onClick={() => likely.forEach((lead) => add(lead))}>
                  Start with {likely.length} that are likely there
                </Button>
              )}
              <Button
                icon={signs.add}
                disabled={locked}
                onClick={() => add({ kind: 'other', what: 'Lead', place: '' })}
              >
                Add a lead
              </Button>
              {copy}
            </div>
          </Empty>
        ) : (
          <>
            <LeadTable put={put} />
            <div className={styles.acts}>
              <Button
                icon={signs.add}
                disabled={locked}
                onClick={() => add({ kind: 'other', what: `Lead ${job.leads.length + 1}`, place: '' })}
              >
                Add a lead
              </Button>
              {copy}
              {unsaid.length > 0 && (
                <Button disabled={locked} onClick={() => mark(unsaid, 'untouched')}>
                  The other {unsaid.length} are not touched
                </Button>
              )}
            </div>
            <Photos />
          </>
        )}
      </div>
      <LeadsSide onWay={onWay} />
    </>
  );
}

function LeadsSide({ onWay }: { readonly onWay: OpenWay }) {
  const { job } = useDesk();
  const { out, unsaid } = openLeads(job);
  return (
    <aside className={looks.side} aria-label="Now at">
      <span className={looks.label}>Other leads</span>
      <div className={looks.decides}>
        {out.length > 0
          ? `${out.length} out now`
          : job.leads.length === 0
            ? 'None written down'
            : unsaid.length > 0
              ? `${unsaid.length} to say`
              : 'All back or untouched'}
      </div>
      {out.length > 0 && (
        <ul aria-label="Out now">
          {out.map((lead) => (
            <li key={lead.id}>
              {lead.what}
              {lead.place === '' ? '' : `: ${lead.place}`}
            </li>
          ))}
        </ul>
      )}
      <Cautions kinds={new Set(job.leads.map(({ kind }) => kind))} />
      <Primary onClick={() => onWay(out.length > 0 ? 'plan' : 'out')}>
        {out.length > 0 ? 'Plan and refit' : 'Take out, step by step'}
      </Primary>
    </aside>
  );
}

/** What bites with these leads. */
function Cautions({ kinds }: { readonly kinds: ReadonlySet<LeadKind> }) {
  // What burns stands first.
  const order = [...kinds].sort((a, b) => Number(b.startsWith('light')) - Number(a.startsWith('light')));
  const lines = new Set(order.map(leadCaution).filter((line) => line !== null));
  return [...lines].map((line) => (
    <p key={line} className={looks.caution}>
      <span>{line}</span>
    </p>
  ));
}

/** What kind of lead it is, and where the guide shows one. */
function KindCell({ lead, onPick }: { readonly lead: Lead; readonly onPick: (kind: LeadKind) => void }) {
  const { job, locked } = useDesk();
  return (
    <>
      <Select<LeadKind>
        className={styles.kind ?? ''}
        aria-label={`Kind of ${lead.what}`}
        value={lead.kind}
        disabled={locked}
        popupMatchSelectWidth={false}
        showSearch={{ optionFilterProp: 'label' }}
        onChange={onPick}
        options={leadKinds.map((value) => ({ value, label: leadKindText[value] }))}
      />
      {guideOfLead[lead.kind] !== undefined && (
        <Link
          className={looks.blockNote}
          aria-label={`What is this: ${lead.what}`}
          to={`/guide?show=${guideOfLead[lead.kind]}&job=${job.code}`}
        >
          what is this?
        </Link>
      )}
    </>
  );
}

function LeadTable({ put }: { readonly put: (lead: LeadDraft, basedOn: number) => void }) {
  const { job, act, locked, offerUndo } = useDesk();
  const change = (lead: Lead, changes: Partial<LeadDraft>) => put({ ...draftOf(lead), ...changes }, lead.version);
  return (
    <Sheet
      label="Other leads"
      rows={job.leads}
      rowKey={({ id }) => id}
      columns={[
        {
          head: 'Lead',
          cell: (lead) => (
            <Input
              className={styles.words}
              aria-label={`Name of ${lead.what}`}
              value={lead.what}
              maxLength={60}
              disabled={locked}
              onChange={(event) => {
                if (event.target.value.trim() !== '') change(lead, { what: event.target.value });
              }}
            />
          ),
        },
        {
          head: 'Kind',
          cell: (lead) => <KindCell lead={lead} onPick={(kind) => change(lead, { kind })} />,
        },
        {
          head: 'Where: header, pin, polarity',
          cell: (lead) => (
            <Input
              className={styles.words}
              aria-label={`Place of ${lead.what}`}
              value={lead.place}
              maxLength={80}
              disabled={locked}
              onChange={(event) => change(lead, { place: event.target.value })}
            />
          ),
        },
        {
          head: 'Now',
          width: 284,
          cell: (lead) => (
            <div className={styles.state}>
              <Choice<LeadState>
                label={`State of ${lead.what}`}
                value={lead.state}
                disabled={locked}
                options={leadStates.map((value) => ({ value, label: leadStateText[value] }))}
                onPick={(state) => act({ kind: 'mark-leads', leadIds: [lead.id], state })}
              />
            </div>
          ),
        },
        {
          head: <span className={looks.visuallyHidden}>Acts</span>,
          cell: (lead) => (
            <Button
              icon={signs.remove}
              type="link"
              disabled={locked}
              aria-label={`Take out ${lead.what} of the record`}
              onClick={() => {
                if (act({ kind: 'drop-lead', leadId: lead.id, basedOn: lead.version }) === null)
                  offerUndo(`${lead.what} is taken out of the record.`);
              }}
            >
              take out
            </Button>
          ),
        },
      ]}
    />
  );
}
