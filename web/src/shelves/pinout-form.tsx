import { Button, Checkbox } from 'antd';
import { cableFamilies, familyText, signalText } from '@fairwatt/core';
import { pinoutSchema, type Pinout, type SupplySummary } from '@fairwatt/contract';
import { useCableBagsQuery, useChangePinoutMutation } from '../app/api.ts';
import { DraftFoot, DraftForm, DraftItem, DraftText } from '../controls/draft-form.tsx';
import { TwoStates } from '../controls/two-states.tsx';
import { looks } from '../looks/looks.ts';
import { draftOfPinout, pinoutField, pinoutWords, typedPinout, type PinoutDraft } from './pinout-draft.ts';
import { useDraftForm } from './use-draft-form.ts';
import { signs } from '../controls/signs.tsx';
import styles from './pinout-form.module.css';

const signals = Object.entries(signalText)
  .map(([signal, words]) => `${signal} ${words}`)
  .join(', ');

/** The sockets of a kind of supply, pin by pin, and which of the shop's supplies have them. */
export function PinoutForm({
  was,
  supplies,
  onClose,
}: {
  /** How it stood when it was opened; of version 0 for a new one. */
  readonly was: Pinout;
  readonly supplies: readonly SupplySummary[];
  readonly onClose: () => void;
}) {
  const bags = useCableBagsQuery();
  const [change] = useChangePinoutMutation();
  const { form, told, conflict, isSending, put, save } = useDraftForm<PinoutDraft, Pinout>({
    schema: pinoutSchema,
    typed: (draft) => typedPinout(was, draft),
    fieldOf: pinoutField,
    wordsOf: pinoutWords,
    send: (pinout, seen, by) => change({ by, basedOn: seen?.version ?? 0, pinout }),
    onDone: onClose,
  });
  const standing = conflict === null ? null : (bags.data?.pinouts.find(({ id }) => id === conflict.id) ?? null);
  return (
    <div>
      {conflict !== null && (
        <TwoStates
          what={conflict.name}
          mine={conflict}
          theirs={standing}
          onMine={() => void put(conflict, standing)}
          onTheirs={onClose}
        />
      )}
      <DraftForm
        form={form}
        initial={draftOfPinout(was)}
        label="Sockets of a kind of supply"
        onSend={(draft) => void save(draft, was)}
      >
        <div className={looks.wide}>
          <DraftText name="name" label="Name" />
        </div>
        {cableFamilies.map((family) => (
          <div key={family} className={looks.wide}>
            <DraftText
              name={['sockets', family]}
              label={`Socket for ${familyText[family]} cables, pin 1 first`}
              figure
              inputMode="text"
              maxLength={200}
              placeholder="12 G 12 G ?"
            />
          </div>
        ))}
        <p className={`${looks.quiet} ${looks.wide}`}>
          {signals}; “?” where nobody measured. Leave a socket empty that it does not have.
        </p>
        <div className={looks.wide}>
          <DraftItem name="supplies" label="Supplies with these sockets">
            <Checkbox.Group
              className={styles.supplyTicks ?? ''}
              options={supplies.map(({ id, name }) => ({ value: id, label: name }))}
            />
          </DraftItem>
        </div>
        <DraftFoot told={told} isSending={isSending} />
        <Button icon={signs.previous} type="link" onClick={onClose}>
          back
        </Button>
      </DraftForm>
    </div>
  );
}
