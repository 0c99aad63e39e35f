import { Link } from 'react-router';
import { useState } from 'react';
import { Checkbox, Input } from 'antd';
import { criteria, criterionText, needText, schools, schoolText, type Need, type ShopSettings } from '@fairwatt/core';
import { codePrefixPattern } from '@fairwatt/contract';
import {
  problemOf,
  useChangeSettingsMutation,
  useLabelPrinterQuery,
  useSetLabelPrinterMutation,
  useShopQuery,
} from '../app/api.ts';
import { useMay } from '../access/use-may.ts';
import { useAppSelector } from '../app/store.ts';
import { Empty } from '../controls/empty.tsx';
import { FigureField, SelectField } from '../controls/fields.tsx';
import { TwoStates } from '../controls/two-states.tsx';
import { Waiting } from '../controls/waiting.tsx';

/** What a bench may have; the machine running is no possession. */
const possessions: readonly Need[] = [
  'meter',
  'tester',
  'oscilloscope',
  'spare-supply',
  'second-spare',
  'spare-memory',
  'spare-card',
  'spare-board',
];

/**
 * The shop's settings: what the bench has and may do, when a finding is offered, how supplies are sized. Owners change
 * them.
 */
export default function SettingsPage() {
  const shop = useShopQuery();
  const owner = useMay('own');
  const technician = useAppSelector((state) => state.session.technician);
  const [change, changing] = useChangeSettingsMutation();
  const [told, setTold] = useState<string | null>(null);
  const [conflict, setConflict] = useState<ShopSettings | null>(null);
  if (shop.data === undefined)
    return (
      <div className="page">
        {shop.isError ? <Empty title={problemOf(shop.error).title} /> : <Waiting>Fetching the settings …</Waiting>}
      </div>
    );
  const { settings, settingsVersion } = shop.data;
  async function save(changes: Partial<ShopSettings>): Promise<void> {
    const answer = await change({
      by: technician ?? '',
      basedOn: settingsVersion,
      settings: { ...settings, ...changes },
    });
    if (answer.error === undefined) {
      setConflict(null);
      setTold(answer.data === null ? 'Kept in this browser; sent when the server is back.' : 'Saved.');
      return;
    }
    const problem = problemOf(answer.error);
    setTold([problem.title, ...(problem.errors ?? []).map((error) => `${error.path}: ${error.message}`)].join('. '));
    if (problem.type === '/problems/stale') setConflict({ ...settings, ...changes });
  }
  const { bench, choosing } = settings;
  const choose = (changes: Partial<ShopSettings['choosing']>) => void save({ choosing: { ...choosing, ...changes } });
  const has = (need: Need, yes: boolean) =>
    void save({ bench: { ...bench, has: yes ? [...bench.has, need] : bench.has.filter((item) => item !== need) } });
  return (
    <div className="page settings">
      <div className="page-head">
        <h1>Settings</h1>
        <span className="quiet" role="status">
          {changing.isLoading
            ? 'Saving …'
            : (told ??
              (owner
                ? 'Each change is saved at once.'
                : 'Only an owner changes these; the name at the top right says who works here.'))}
        </span>
        {owner && (
          <span className="push">
            <Link to="/people">People and devices</Link> · <Link to="/health">State of the application</Link>
          </span>
        )}
      </div>
      {conflict !== null && (
        <TwoStates
          what="The settings"
          mine={conflict}
          theirs={settings}
          onMine={() => void save(conflict)}
          onTheirs={() => {
            setConflict(null);
            setTold(null);
          }}
        />
      )}
      <div className="columns">
        <section className="block" aria-label="This bench">
          <span className="label">This bench has</span>
          <p className="quiet">A check that needs something else is not offered.</p>
          {possessions.map((need) => (
            <Checkbox
              key={need}
              className="tick"
              disabled={!owner}
              checked={bench.has.includes(need)}
              onChange={(event) => has(need, event.target.checked)}
            >
              {needText[need]}
            </Checkbox>
          ))}
          <span className="label" style={{ display: 'block', marginTop: 18 }}>
            Mains
          </span>
          <Checkbox
            className="tick"
            disabled={!owner}
            checked={bench.mayMeterMains}
            onChange={(event) => void save({ bench: { ...bench, mayMeterMains: event.target.checked } })}
          >
            Somebody here is trained and allowed to measure at the outlet
          </Checkbox>
          <p className="caution" style={{ marginTop: 8 }}>
            Local rules go first. Without it the lead and the outlet are swapped, never metered.
          </p>
        </section>
        <section className="block" aria-label="Judgement">
          <span className="label">Judgement</span>
          <div className="fields">
            <FigureField
              label="Finding offered at"
              unit="%"
              least={50}
              most={99.9}
              value={Math.round(settings.stopProbability * 1000) / 10}
              disabled={!owner}
              onChange={(value) => {
                if (value !== null) void save({ stopProbability: value / 100 });
              }}
            />
            <SelectField
              label="Sizing rule"
              value={settings.school}
              options={schools.map((school) => ({ value: school, label: schoolText[school] }))}
              disabled={!owner}
              onChange={(school) => void save({ school })}
            />
            <FigureField
              label="Local mains"
              unit="V"
              least={90}
              most={260}
              value={settings.mainsVolts}
              disabled={!owner}
              onChange={(value) => {
                if (value !== null) void save({ mainsVolts: value });
              }}
            />
            <TextSetting
              label="Currency"
              value={settings.currency}
              maxLength={3}
              disabled={!owner}
              problem={(value) => (/^[A-Z]{3}$/.test(value) ? null : 'three capital letters, such as EUR')}
              onSave={(currency) => void save({ currency })}
            />
            <TextSetting
              wide
              label="Name of the shop"
              value={settings.name}
              maxLength={80}
              disabled={!owner}
              problem={(value) => (value.trim() === '' ? 'a name' : null)}
              onSave={(name) => void save({ name })}
            />
            <TextSetting
              label="Codes of new jobs begin with"
              value={settings.codePrefix}
              maxLength={2}
              disabled={!owner}
              problem={(value) => (codePrefixPattern.test(value) ? null : 'two capital letters, such as FW')}
              onSave={(codePrefix) => void save({ codePrefix })}
            />
          </div>
        </section>
        <section className="block" aria-label="Choosing supplies">
          <span className="label">Choosing supplies</span>
          <p className="quiet">Points go by these weights, 0 to 10; what weighs 0 is not counted.</p>
          <div className="fields by-three" style={{ marginTop: 8 }}>
            {criteria.map((name) => (
              <FigureField
                key={name}
                label={`Weight of ${criterionText[name]}`}
                most={10}
                value={choosing.weights[name]}
                disabled={!owner}
                onChange={(value) => {
                  if (value !== null) choose({ weights: { ...choosing.weights, [name]: value } });
                }}
              />
            ))}
          </div>
          <Checkbox
            className="tick"
            disabled={!owner}
            checked={choosing.sharedCardCable}
            onChange={(event) => choose({ sharedCardCable: event.target.checked })}
          >
            Two card plugs may share a cable where the load allows it
          </Checkbox>
          <Checkbox
            className="tick"
            disabled={!owner}
            checked={choosing.dropTooLarge}
            onChange={(event) => choose({ dropTooLarge: event.target.checked })}
          >
            Drop a supply of more than four times the lasting load; else it is warned of
          </Checkbox>
          <Checkbox
            className="tick"
            disabled={!owner}
            checked={choosing.spareCables}
            onChange={(event) => choose({ spareCables: event.target.checked })}
          >
            Spare cables that are safe on a supply may be planned with
          </Checkbox>
          <Checkbox
            className="tick"
            disabled={!owner}
            checked={choosing.adapters}
            onChange={(event) => choose({ adapters: event.target.checked })}
          >
            Adapters and extensions from the bags may be planned with
          </Checkbox>
        </section>
        <LabelPrinter owner={owner} technician={technician} />
        <section className="block" aria-label="Running cost">
          <span className="label">Age and running cost</span>
          <div className="fields" style={{ marginTop: 8 }}>
            <FigureField
              label="A supply loses a year (practice, no standard)"
              unit="%"
              most={5}
              value={choosing.agePercentAYear}
              disabled={!owner}
              onChange={(value) => {
                if (value !== null) choose({ agePercentAYear: value });
              }}
            />
            <FigureField
              label={`A kilowatt hour costs, in hundredths of ${settings.currency}`}
              most={1000}
              value={choosing.minorPerKilowattHour}
              disabled={!owner}
              onChange={(value) => {
                if (value !== null) choose({ minorPerKilowattHour: value });
              }}
            />
            <FigureField
              label="Breaker"
              unit="A"
              least={1}
              most={100}
              value={choosing.breakerAmps}
              disabled={!owner}
              onChange={(value) => {
                if (value !== null) choose({ breakerAmps: value });
              }}
            />
            <FigureField
              label="A supply is kept for"
              unit="years"
              least={0.5}
              most={30}
              value={choosing.keepYears}
              disabled={!owner}
              onChange={(value) => {
                if (value !== null) choose({ keepYears: value });
              }}
            />
            {(['idleHours', 'typicalHours', 'fullHours'] as const).map((name) => (
              <FigureField
                key={name}
                label={`Usual day: ${{ idleHours: 'idle', typicalHours: 'typical', fullHours: 'full' }[name]}`}
                unit="h"
                most={
                  24 - choosing.day.idleHours - choosing.day.typicalHours - choosing.day.fullHours + choosing.day[name]
                }
                value={choosing.day[name]}
                disabled={!owner}
                onChange={(value) => {
                  if (value !== null) choose({ day: { ...choosing.day, [name]: value } });
                }}
              />
            ))}
          </div>
        </section>
      </div>
    </div>
  );
}

/** Where cable tags are printed. */
function LabelPrinter({ owner, technician }: { readonly owner: boolean; readonly technician: string | null }) {
  const printer = useLabelPrinterQuery();
  const [set, setting] = useSetLabelPrinterMutation();
  const problem = setting.isError ? problemOf(setting.error) : null;
  return (
    <section className="block" aria-label="Label printer">
      <span className="label">Label printer</span>
      <div className="fields">
        <TextSetting
          wide
          label="Address that takes a PDF by POST"
          value={printer.data?.url ?? ''}
          maxLength={300}
          disabled={!owner}
          problem={(value) => (URL.canParse(value) ? null : 'an address such as http://192.168.1.9:8080/print')}
          onSave={(url) => void set({ by: technician ?? '', url })}
        />
      </div>
      {problem !== null && (
        <p className="error-text" role="alert">
          {[problem.title, ...(problem.errors ?? []).map((error) => error.message)].join(': ')}
        </p>
      )}
    </section>
  );
}

/** Text that is saved when the field is left or Enter pressed, not at every letter. */
function TextSetting({
  label,
  value,
  maxLength,
  disabled,
  problem,
  onSave,
  wide = false,
}: {
  readonly label: string;
  readonly value: string;
  readonly maxLength: number;
  readonly disabled: boolean;
  readonly problem: (value: string) => string | null;
  readonly onSave: (value: string) => void;
  readonly wide?: boolean;
}) {
  const [draft, setDraft] = useState<string | null>(null);
  const error = draft === null ? null : problem(draft);
  const keep = () => {
    if (draft === null || error !== null) return;
    if (draft !== value) onSave(draft);
    setDraft(null);
  };
  return (
    <label className={`field${wide ? ' wide' : ''}`}>
      <span className="name">{label}</span>
      <Input
        value={draft ?? value}
        maxLength={maxLength}
        disabled={disabled}
        aria-invalid={error !== null}
        autoComplete="off"
        onChange={(event) => setDraft(event.target.value)}
        onBlur={keep}
        onKeyDown={(event) => {
          if (event.key === 'Enter') keep();
        }}
      />
      {error !== null && (
        <span className="error" role="alert">
          {error}
        </span>
      )}
    </label>
  );
}
