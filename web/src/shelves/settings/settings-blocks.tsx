import { Checkbox } from 'antd';
import { codePrefixPattern } from '@fairwatt/contract';
import {
  criteria,
  criterionText,
  needs,
  needText,
  schools,
  schoolText,
  type Need,
  type ShopSettings,
} from '@fairwatt/core';
import { SelectField } from '../../controls/fields.tsx';
import { SetFigureField } from '../../controls/set-figure-field.tsx';
import { looks } from '../../looks/looks.ts';
import { localeOptions, zoneOptions } from './manner-options.ts';
import { TextSetting } from './text-setting.tsx';

interface Block {
  readonly settings: ShopSettings;
  /** Only an owner changes anything. */
  readonly owner: boolean;
  readonly save: (changes: Partial<ShopSettings>) => void;
}

/** What a bench may have; the machine running is no possession. */
const possessions = needs.filter((need) => need !== 'running');

/** What a shop may choose for all jobs. */
const choiceText = {
  sharedCardCable: 'Two card plugs may share a cable where the load allows it',
  dropTooLarge: 'Drop a supply of more than four times the lasting load; else it is warned of',
  spareCables: 'Spare cables that are safe on a supply may be planned with',
  adapters: 'Adapters and extensions from the bags may be planned with',
} as const;

/** What the bench has, and whether mains are measured here. */
export function BenchBlock({ settings: { bench }, owner, save }: Block) {
  const has = (need: Need, yes: boolean) =>
    save({ bench: { ...bench, has: yes ? [...bench.has, need] : bench.has.filter((item) => item !== need) } });
  return (
    <section className={looks.block} aria-label="This bench">
      <span className={looks.label}>This bench has</span>
      <p className={looks.quiet}>A check that needs something else is not offered.</p>
      {possessions.map((need) => (
        <Checkbox
          key={need}
          className={looks.tick}
          disabled={!owner}
          checked={bench.has.includes(need)}
          onChange={(event) => has(need, event.target.checked)}
        >
          {needText[need]}
        </Checkbox>
      ))}
      <span className={`${looks.label} ${looks.ownLine} ${looks.wellBelow}`}>Mains</span>
      <Checkbox
        className={looks.tick}
        disabled={!owner}
        checked={bench.mayMeterMains}
        onChange={(event) => save({ bench: { ...bench, mayMeterMains: event.target.checked } })}
      >
        Somebody here is trained and allowed to measure at the outlet
      </Checkbox>
      <p className={`${looks.caution} ${looks.below}`}>
        Local rules go first. Without it the lead and the outlet are swapped, never metered.
      </p>
    </section>
  );
}

/** When a finding is offered, and what the shop is called. */
export function JudgementBlock({ settings, owner, save }: Block) {
  return (
    <section className={looks.block} aria-label="Judgement">
      <span className={looks.label}>Judgement</span>
      <div className={looks.fields}>
        <SetFigureField
          label="Finding offered at"
          unit="%"
          least={50}
          most={99.9}
          value={Math.round(settings.stopProbability * 1000) / 10}
          disabled={!owner}
          onChange={(value) => save({ stopProbability: value / 100 })}
        />
        <SelectField
          label="Sizing rule"
          value={settings.school}
          options={schools.map((school) => ({ value: school, label: schoolText[school] }))}
          disabled={!owner}
          onChange={(school) => save({ school })}
        />
        <SetFigureField
          label="Local mains"
          unit="V"
          least={90}
          most={260}
          value={settings.mainsVolts}
          disabled={!owner}
          onChange={(value) => save({ mainsVolts: value })}
        />
        <TextSetting
          label="Currency"
          value={settings.currency}
          maxLength={3}
          disabled={!owner}
          problem={(value) => (/^[A-Z]{3}$/.test(value) ? null : 'three capital letters, such as EUR')}
          onSave={(currency) => save({ currency })}
        />
        <SelectField
          label="Figures and days written as in"
          value={settings.locale}
          options={localeOptions(settings.locale)}
          disabled={!owner}
          onChange={(locale) => save({ locale })}
        />
        <SelectField
          label="Times by the clock of"
          value={settings.timeZone}
          options={zoneOptions(settings.timeZone)}
          disabled={!owner}
          onChange={(timeZone) => save({ timeZone })}
        />
        <TextSetting
          wide
          label="Name of the shop"
          value={settings.name}
          maxLength={80}
          disabled={!owner}
          problem={(value) => (value.trim() === '' ? 'a name' : null)}
          onSave={(name) => save({ name })}
        />
        <TextSetting
          label="Codes of new jobs begin with"
          value={settings.codePrefix}
          maxLength={2}
          disabled={!owner}
          problem={(value) => (codePrefixPattern.test(value) ? null : 'two capital letters, such as FW')}
          onSave={(codePrefix) => save({ codePrefix })}
        />
      </div>
    </section>
  );
}

/** How supplies are weighed, and what may be planned with. */
export function ChoosingBlock({ settings: { choosing }, owner, save }: Block) {
  const choose = (changes: Partial<typeof choosing>) => save({ choosing: { ...choosing, ...changes } });
  return (
    <section className={looks.block} aria-label="Choosing supplies">
      <span className={looks.label}>Choosing supplies</span>
      <p className={looks.quiet}>Points go by these weights, 0 to 10; what weighs 0 is not counted.</p>
      <div className={`${looks.fields} ${looks.byThree} ${looks.below}`}>
        {criteria.map((name) => (
          <SetFigureField
            key={name}
            label={`Weight of ${criterionText[name]}`}
            most={10}
            value={choosing.weights[name]}
            disabled={!owner}
            onChange={(value) => choose({ weights: { ...choosing.weights, [name]: value } })}
          />
        ))}
      </div>
      {(Object.keys(choiceText) as (keyof typeof choiceText)[]).map((name) => (
        <Checkbox
          key={name}
          className={looks.tick}
          disabled={!owner}
          checked={choosing[name]}
          onChange={(event) => choose({ [name]: event.target.checked })}
        >
          {choiceText[name]}
        </Checkbox>
      ))}
    </section>
  );
}

/** What age takes, what a kilowatt hour costs, and the usual day. */
export function RunningCostBlock({ settings, owner, save }: Block) {
  const { choosing } = settings;
  const choose = (changes: Partial<typeof choosing>) => save({ choosing: { ...choosing, ...changes } });
  return (
    <section className={looks.block} aria-label="Running cost">
      <span className={looks.label}>Age and running cost</span>
      <div className={`${looks.fields} ${looks.below}`}>
        <SetFigureField
          label="A supply loses a year (practice, no standard)"
          unit="%"
          most={5}
          value={choosing.agePercentAYear}
          disabled={!owner}
          onChange={(value) => choose({ agePercentAYear: value })}
        />
        <SetFigureField
          label={`A kilowatt hour costs, in hundredths of ${settings.currency}`}
          most={1000}
          value={choosing.minorPerKilowattHour}
          disabled={!owner}
          onChange={(value) => choose({ minorPerKilowattHour: value })}
        />
        <SetFigureField
          label="Breaker"
          unit="A"
          least={1}
          most={100}
          value={choosing.breakerAmps}
          disabled={!owner}
          onChange={(value) => choose({ breakerAmps: value })}
        />
        <SetFigureField
          label="A supply is kept for"
          unit="years"
          least={0.5}
          most={30}
          value={choosing.keepYears}
          disabled={!owner}
          onChange={(value) => choose({ keepYears: value })}
        />
        {(['idleHours', 'typicalHours', 'fullHours'] as const).map((name) => (
          <SetFigureField
            key={name}
            label={`Usual day: ${{ idleHours: 'idle', typicalHours: 'typical', fullHours: 'full' }[name]}`}
            unit="h"
            most={24 - choosing.day.idleHours - choosing.day.typicalHours - choosing.day.fullHours + choosing.day[name]}
            value={choosing.day[name]}
            disabled={!owner}
            onChange={(value) => choose({ day: { ...choosing.day, [name]: value } })}
          />
        ))}
      </div>
    </section>
  );
}
