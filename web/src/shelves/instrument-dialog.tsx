import { useState } from 'react';
import { Button, Form } from 'antd';
import { instrumentSchema } from '@fairwatt/contract';
import { instrumentKinds, instrumentKindText, parseFigure, type Instrument } from '@fairwatt/core';
import { useChangeInstrumentMutation, useShopQuery } from '../app/api.ts';
import { TwoStates } from '../controls/two-states.tsx';
import { Dialog } from '../controls/dialog.tsx';
import { DraftDay } from '../controls/draft-day.tsx';
import { DraftFoot, DraftForm, DraftPick, DraftText } from '../controls/draft-form.tsx';
import { looks } from '../looks/looks.ts';
import { useDraftForm } from './use-draft-form.ts';
import { signs } from '../controls/signs.tsx';

interface RangeDraft {
  readonly fullScaleVolts: string;
  readonly percent: string;
  readonly counts: string;
  readonly digitVolts: string;
}
interface Draft {
  readonly name: string;
  readonly kind: Instrument['kind'];
  readonly ownedBy: string;
  readonly calibratedUntil: string;
  readonly powerGoodErrorMilliseconds: string;
  readonly rippleErrorMillivolts: string;
  readonly ranges: readonly RangeDraft[];
}

const emptyRange: RangeDraft = { fullScaleVolts: '', percent: '', counts: '', digitVolts: '' };
const draftOf = (was: Instrument | null): Draft =>
  was === null
    ? {
        name: '',
        kind: 'multimeter',
        ownedBy: '',
        calibratedUntil: '',
        powerGoodErrorMilliseconds: '',
        rippleErrorMillivolts: '',
        ranges: [emptyRange],
      }
    : {
        name: was.name,
        kind: was.kind,
        ownedBy: was.ownedBy,
        calibratedUntil: was.calibratedUntil ?? '',
        powerGoodErrorMilliseconds:
          was.powerGoodErrorMilliseconds === null ? '' : String(was.powerGoodErrorMilliseconds),
        rippleErrorMillivolts: was.rippleErrorMillivolts === null ? '' : String(was.rippleErrorMillivolts),
        ranges: was.ranges.map((range) => ({
          fullScaleVolts: String(range.fullScaleVolts),
          percent: String(range.percent),
          counts: String(range.counts),
          digitVolts: String(range.digitVolts),
        })),
      };
const rangeFields = [
  ['fullScaleVolts', 'To (V)'],
  ['percent', '% of reading'],
  ['counts', '+ counts'],
  ['digitVolts', '× digit (V)'],
] as const;

/** What an instrument may give beside voltages, each with its limit of error. */
const ownErrors = [
  ['powerGoodErrorMilliseconds', 'Times, ± ms (empty: cannot)'],
  ['rippleErrorMillivolts', 'Ripple, ± mV (empty: cannot)'],
] as const;

/** A figure, or the text itself, so that what is no figure is refused at its field. */
const typed = (text: string): unknown => parseFigure(text) ?? text;
const typedOrNull = (text: string): unknown => (text.trim() === '' ? null : typed(text));

/** The whole instrument as it was typed, for its schema to read. */
const typedInstrument = (draft: Draft, id: string): unknown => ({
  id,
  name: draft.name.trim(),
  kind: draft.kind,
  ownedBy: draft.ownedBy.trim(),
  calibratedUntil: draft.calibratedUntil === '' ? null : draft.calibratedUntil,
  powerGoodErrorMilliseconds: typedOrNull(draft.powerGoodErrorMilliseconds),
  rippleErrorMillivolts: typedOrNull(draft.rippleErrorMillivolts),
  ranges: draft.ranges.map((range) => Object.fromEntries(rangeFields.map(([field]) => [field, typed(range[field])]))),
});

const kindOptions = instrumentKinds.map((kind) => ({ value: kind, label: instrumentKindText[kind] }));

/** Sends the instrument as it was typed. */
function useInstrumentForm(was: Instrument | null, onDone: () => void) {
  const [change] = useChangeInstrumentMutation();
  const shop = useShopQuery();
  const [id] = useState(() => was?.id ?? `i-${crypto.randomUUID().slice(0, 8)}`);
  const drafting = useDraftForm<Draft, Instrument>({
    schema: instrumentSchema,
    typed: (draft) => typedInstrument(draft, id),
    send: (instrument, seen, by) => change({ by, was: seen, instrument }),
    onDone,
  });
  const { conflict } = drafting;
  return {
    ...drafting,
    standing: conflict === null ? null : (shop.data?.instruments.find((item) => item.id === conflict.id) ?? null),
  };
}

/** A meter or tester with the error that its maker gives, as it stands in its manual. */
export function InstrumentDialog({ was, onClose }: { readonly was: Instrument | null; readonly onClose: () => void }) {
  const [initial] = useState(() => draftOf(was));
  const { form, conflict, standing, put, save, told, isSending } = useInstrumentForm(was, onClose);
  return (
    <Dialog title={was === null ? 'Add a meter or tester' : was.name} onClose={onClose} width={640}>
      {conflict !== null && (
        <TwoStates
          what={conflict.name}
          mine={conflict}
          theirs={standing}
          onMine={() => void put(conflict, standing)}
          onTheirs={onClose}
        />
      )}
      <DraftForm form={form} initial={initial} onSend={(draft) => void save(draft, was)}>
        <DraftText name="name" label="Name" />
        <DraftPick name="kind" label="It is a" options={kindOptions} />
        <DraftDay name="calibratedUntil" label="Calibrated until" />
        <DraftText name="ownedBy" label="Whose it is (empty: the shop's)" />
        {ownErrors.map(([name, label]) => (
          <DraftText key={name} name={name} label={label} figure />
        ))}
        <RangeFields />
        <DraftFoot told={told} isSending={isSending} />
      </DraftForm>
    </Dialog>
  );
}

/** The limit of error, range by range. */
function RangeFields() {
  return (
    <Form.List name="ranges">
      {(ranges, { add, remove }) => (
        <fieldset className={`${looks.wide} ${looks.ranges}`}>
          <legend className={looks.label}>Limit of error, by range</legend>
          {ranges.map(({ key, name }) => (
            <div key={key} className={looks.rangeRow}>
              {rangeFields.map(([field, label]) => (
                <DraftText key={field} name={[name, field]} label={label} figure />
              ))}
              <Button
                icon={signs.remove}
                type="link"
                disabled={ranges.length === 1}
                aria-label={`Remove range ${name + 1}`}
                onClick={() => remove(name)}
              >
                remove
              </Button>
            </div>
          ))}
          <Button icon={signs.add} type="link" disabled={ranges.length >= 8} onClick={() => add(emptyRange)}>
            another range
          </Button>
        </fieldset>
      )}
    </Form.List>
  );
}
