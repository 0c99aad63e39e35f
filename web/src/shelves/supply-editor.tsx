import { useState } from 'react';
import { Button, Form } from 'antd';
import { supplyModelSchema } from '@fairwatt/contract';
import { labelProblems, problemOfLabel, type SupplyModel } from '@fairwatt/core';
import {
  problemOf,
  useChangeSupplyMutation,
  useRemoveSupplyMutation,
  useShopQuery,
  useSuppliesQuery,
} from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { Dialog } from '../controls/dialog.tsx';
import { DraftForm, DraftTold } from '../controls/draft-form.tsx';
import { RemoveButton } from '../controls/remove-button.tsx';
import { TwoStates } from '../controls/two-states.tsx';
import { fieldOfSupply, modelFrom, wholeOf, type Whole } from './supply-draft.ts';
import { ProtectionFields, SupplyFields } from './supply-fields.tsx';
import { KitFields } from './supply-kit-fields.tsx';
import { OutputsFields } from './supply-outputs-fields.tsx';
import { SocketsFields } from './supply-sockets-fields.tsx';
import { useDraftForm } from './use-draft-form.ts';
import styles from './supply-editor.module.css';

/** Sends a supply as it was drafted, or takes it out of the shop. */
function useSupplyForm(was: SupplyModel | null, onDone: () => void) {
  const technician = useAppSelector((state) => state.session.technician);
  const supplies = useSuppliesQuery();
  const [change] = useChangeSupplyMutation();
  const [remove, removing] = useRemoveSupplyMutation();
  const { setTold, ...drafting } = useDraftForm<Whole, SupplyModel>({
    schema: supplyModelSchema,
    typed: (whole) => modelFrom(whole, was?.onShelf ?? 0),
    fieldOf: fieldOfSupply,
    send: (model, seen, by) => change({ by, was: seen, model }),
    onDone,
  });
  const { conflict } = drafting;
  async function takeOut(model: SupplyModel): Promise<void> {
    const answer = await remove({ id: model.id, by: technician ?? '' });
    if (answer.error === undefined) onDone();
    else setTold(problemOf(answer.error).title);
  }
  return {
    ...drafting,
    /** What stands on the server where somebody else has changed it meanwhile. */
    standing: conflict === null ? null : (supplies.data?.find((model) => model.id === conflict.id) ?? null),
    mayTakeOut: technician !== null && !removing.isLoading,
    takeOut,
  };
}

/** A supply's whole data: label, outputs, sockets and the cable kit piece by piece. */
export default function SupplyEditor({
  was,
  start,
  onClose,
}: {
  readonly was: SupplyModel | null;
  readonly start: SupplyModel | null;
  readonly onClose: () => void;
}) {
  const shop = useShopQuery();
  const [initial] = useState<Whole>(() => {
    const first = wholeOf(start, was === null);
    const currency = first.fields.currency === '' ? (shop.data?.settings.currency ?? 'EUR') : first.fields.currency;
    return { ...first, fields: { ...first.fields, currency } };
  });
  const saving = useSupplyForm(was, onClose);
  const { form, conflict, standing } = saving;
  return (
    <Dialog title={was === null ? 'Enter a supply' : was.name} onClose={onClose} width={980} high>
      {conflict !== null && (
        <TwoStates
          what={conflict.name}
          mine={conflict}
          theirs={standing}
          onMine={() => void saving.put(conflict, standing)}
          onTheirs={onClose}
        />
      )}
      <DraftForm
        form={form}
        initial={initial}
        className={styles.supplyEditor ?? ''}
        onSend={(whole) => void saving.save(whole, was)}
      >
        <SupplyFields />
        <ProtectionFields />
        <div className="columns">
          <OutputsFields />
          <SocketsFields />
        </div>
        <KitFields />
        <LabelDoubts />
        <DraftTold text={saving.told} />
        <EditorActs saving={saving} was={was} />
      </DraftForm>
    </Dialog>
  );
}

/** What on the label does not go together, as long as it can be read at all. */
function LabelDoubts() {
  const form = Form.useFormInstance<Whole>();
  // The whole of it: also what is not shown just now.
  const whole = Form.useWatch((values: Partial<Whole>) => values, { form, preserve: true });
  if (whole?.fields === undefined) return null;
  const checked = supplyModelSchema.safeParse(modelFrom(whole as Whole, 0));
  const doubts = checked.success ? labelProblems(checked.data.label) : [];
  return doubts.map((problem) => (
    <p key={problem.code} className="caution" role="status">
      <span>{problemOfLabel(problem)}</span>
    </p>
  ));
}

function EditorActs({
  saving,
  was,
}: {
  readonly saving: ReturnType<typeof useSupplyForm>;
  readonly was: SupplyModel | null;
}) {
  return (
    <div className={`row-actions ${styles.editorSave}`}>
      <Button type="primary" className="primary" htmlType="submit" style={{ width: 260 }} disabled={saving.isSending}>
        <span>{saving.isSending ? 'Saving …' : 'Save'}</span>
        <kbd aria-hidden="true">↵</kbd>
      </Button>
      {was !== null && (
        <RemoveButton
          what={was.name}
          text="Take it out of the shop"
          disabled={!saving.mayTakeOut}
          onRemove={() => void saving.takeOut(was)}
        />
      )}
    </div>
  );
}
