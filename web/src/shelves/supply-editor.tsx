import { useState } from 'react';
import { skipToken } from '@reduxjs/toolkit/query/react';
import { Button, Form } from 'antd';
import { supplyModelSchema } from '@fairwatt/contract';
import { labelProblems, problemOfLabel, type SupplyModel } from '@fairwatt/core';
import {
  problemOf,
  useChangeSupplyMutation,
  useRemoveSupplyMutation,
  useShopQuery,
  useSupplyQuery,
} from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { Dialog } from '../controls/dialog.tsx';
import { DraftForm, DraftTold } from '../controls/draft-form.tsx';
import { RemoveButton } from '../controls/remove-button.tsx';
import { TwoStates } from '../controls/two-states.tsx';
import { Waiting } from '../controls/waiting.tsx';
import { looks } from '../looks/looks.ts';
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
  const standing = useSupplyQuery(was?.id ?? skipToken);
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
    standing: conflict === null ? null : (standing.data ?? null),
    mayTakeOut: technician !== null && !removing.isLoading,
    takeOut,
  };
}

export interface Edited {
  /** The supply to begin with, by its id. */
  readonly from: string | null;
  readonly isNew: boolean;
}

/** Fetches a supply with its kit, and opens it as it stands now. */
export default function SupplyEditor({ from, isNew, onClose }: Edited & { readonly onClose: () => void }) {
  const { data: start, error } = useSupplyQuery(from ?? skipToken);
  if (from === null) return <OpenedSupply was={null} start={null} onClose={onClose} />;
  if (start !== undefined) return <OpenedSupply was={isNew ? null : start} start={start} onClose={onClose} />;
  return (
    <Dialog title="A supply" onClose={onClose} width={980} high>
      {error === undefined ? <Waiting>Fetching it …</Waiting> : <p role="alert">{problemOf(error).title}</p>}
    </Dialog>
  );
}

interface Opened {
  readonly was: SupplyModel | null;
  readonly start: SupplyModel | null;
  readonly onClose: () => void;
}

/** A supply's whole data: label, outputs, sockets and the cable kit piece by piece. */
function OpenedSupply({ was: seen, start, onClose }: Opened) {
  // What somebody else changes meanwhile is no part of what was seen here.
  const [was] = useState(seen);
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
        <div className={looks.columns}>
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
    <p key={problem.code} className={looks.caution} role="status">
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
    <div className={`${looks.rowActions} ${styles.editorSave}`}>
      <Button
        type="primary"
        className={`${looks.primary} ${styles.name}`}
        htmlType="submit"

        disabled={saving.isSending}
      >
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
