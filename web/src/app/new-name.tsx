import { Input } from 'antd';
import { personName } from '../access/words.ts';
import { problemOf, useAddTechnicianMutation } from './api.ts';
import { session } from './session.ts';
import { useAppDispatch } from './store.ts';
import { Dialog } from '../controls/dialog.tsx';
import { FormField, SheetForm } from '../controls/form.tsx';

/** A new name among the technicians, picked at once, where names are picked. */
export default function NewNameDialog({ onClose }: { readonly onClose: () => void }) {
  const dispatch = useAppDispatch();
  const [add, { isLoading }] = useAddTechnicianMutation();
  return (
    <Dialog title="Who works here?" onClose={onClose}>
      <SheetForm
        initial={{ name: '' }}
        act="Add the name"
        busy={isLoading}
        onSend={async ({ name }) => {
          const answer = await add({ name });
          if (answer.error !== undefined) return problemOf(answer.error);
          dispatch(session.pickTechnician(answer.data.id));
          onClose();
          return null;
        }}
      >
        <FormField name="name" label="Name" schema={personName}>
          <Input maxLength={60} placeholder="As it shall stand under what you do" />
        </FormField>
      </SheetForm>
    </Dialog>
  );
}
