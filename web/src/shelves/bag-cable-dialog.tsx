import { useState } from 'react';
import { Button, Form } from 'antd';
import { bagCableSchema, type BagCable } from '@fairwatt/contract';
import { cableFamilies, codedWatts, mayHaveTwoEnds } from '@fairwatt/core';
import { useCableBagsQuery, useChangeBagCableMutation } from '../app/api.ts';
import { Dialog } from '../controls/dialog.tsx';
import { DraftFoot, DraftForm, DraftPick, DraftText, DraftTick } from '../controls/draft-form.tsx';
import { TwoStates } from '../controls/two-states.tsx';
import { looks } from '../looks/looks.ts';
import { draftOfCable, firstPlug, typedCable, type BagCableDraft } from './bag-cable-draft.ts';
import { BagPlugFields } from './bag-plug-fields.tsx';
import { useDraftForm } from './use-draft-form.ts';
import { signs } from '../controls/signs.tsx';

/** Sends the cable as it was typed. */
function useCableForm(was: BagCable | null, onDone: () => void) {
  const [change] = useChangeBagCableMutation();
  const bags = useCableBagsQuery();
  const [id] = useState(() => was?.id ?? crypto.randomUUID());
  const drafting = useDraftForm<BagCableDraft, BagCable>({
    schema: bagCableSchema,
    typed: (draft) => typedCable(draft, id, was?.version ?? 0),
    send: (cable, seen, by) => change({ by, basedOn: seen?.version ?? 0, cable }),
    onDone,
  });
  const { conflict } = drafting;
  return {
    ...drafting,
    standing: conflict === null ? null : (bags.data?.cables.find((cable) => cable.id === conflict.id) ?? null),
  };
}

/** A spare cable: label, place, plugs, and for each device pin where its wire leads at the supply end. */
export function BagCableDialog({ was, onClose }: { readonly was: BagCable | null; readonly onClose: () => void }) {
  const [initial] = useState(() => draftOfCable(was));
  const { form, conflict, standing, put, save, told, isSending } = useCableForm(was, onClose);
  return (
    <Dialog title={was === null ? 'Enter a spare cable' : was.label} onClose={onClose} width={680}>
      {conflict !== null && (
        <TwoStates
          what={`Cable ${conflict.label}`}
          mine={conflict}
          theirs={standing}
          onMine={() => void put(conflict, standing)}
          onTheirs={onClose}
        />
      )}
      <DraftForm form={form} initial={initial} onSend={(draft) => void save(draft, was)}>
        <CableFields />
        <Form.List name="plugs">
          {(plugs, { add, remove }) => (
            <>
              {plugs.map(({ key, name }) => (
                <BagPlugFields key={key} index={name} isOnly={plugs.length === 1} onDrop={() => remove(name)} />
              ))}
              <div className={looks.wide}>
                <Button
                  icon={signs.add}
                  type="link"
                  onClick={() => add((form.getFieldValue('plugs') as BagCableDraft['plugs']).at(-1) ?? firstPlug)}
                >
                  another plug
                </Button>
              </div>
            </>
          )}
        </Form.List>
        <DraftFoot told={told} isSending={isSending}>
          {was !== null && (
            <p className={`${looks.quiet} ${looks.wide}`}>
              When plugs or wires change, what was proved of this cable no longer counts.
            </p>
          )}
        </DraftFoot>
      </DraftForm>
    </Dialog>
  );
}

const familyOptions = cableFamilies.map((family) => ({ value: family, label: family }));
const gaugeOptions = [
  { value: '', label: 'not known: the thinnest is reckoned' },
  ...[16, 18, 20, 22].map((gauge) => ({ value: String(gauge), label: `${gauge} AWG` })),
];
const codedOptions = [
  { value: '', label: 'not known: look before it is used' },
  ...codedWatts.map((watts) => ({ value: String(watts), label: `${watts} W` })),
];

/** What is known of the whole cable. */
function CableFields() {
  const family = Form.useWatch<BagCableDraft['family'] | undefined>('family');
  return (
    <>
      <DraftText name="label" label="Label on its bag" maxLength={20} />
      <DraftText name="place" label="Place" maxLength={40} />
      <DraftPick name="family" label="Made for the socket of" options={familyOptions} />
      {family !== undefined && mayHaveTwoEnds(family) && (
        <DraftTick
          name="twoEnded"
          label="Two plugs at the supply; the second one’s pins are counted on from the first"
        />
      )}
      <DraftText name="cameWith" label="Came with" />
      <DraftPick name="gauge" label="Wire, as printed on it" options={gaugeOptions} />
      {family === 'card-16' && (
        <DraftPick name="codedWatts" label="Coded for, as printed on it" options={codedOptions} />
      )}
    </>
  );
}
