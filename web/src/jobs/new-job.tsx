import { useState, type KeyboardEvent } from 'react';
import { Input } from 'antd';
import { useNavigate } from 'react-router';
import { z } from 'zod';
import { problemOf, useCreateJobMutation } from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { Dialog } from '../controls/dialog.tsx';
import { FormField, SheetForm } from '../controls/form.tsx';

const machine = z.string().refine((title) => title.trim() !== '', 'Say which machine it is.');

/** Enter makes the job from the client's words as well; with Shift it begins a new line in them. */
function sendOnEnter(event: KeyboardEvent<HTMLTextAreaElement>): void {
  if (event.shiftKey || event.nativeEvent.isComposing) return;
  event.preventDefault();
  event.currentTarget.form?.requestSubmit();
}

/** A new job in three fields. */
export default function NewJobDialog({ onClose }: { readonly onClose: () => void }) {
  const navigate = useNavigate();
  const technician = useAppSelector((state) => state.session.technician);
  const [id] = useState(() => crypto.randomUUID());
  const [kept, setKept] = useState(false);
  const [create, { isLoading }] = useCreateJobMutation();
  return (
    <Dialog title="New job" onClose={onClose}>
      <SheetForm
        initial={{ title: '', client: '', words: '' }}
        act={isLoading ? 'Making it …' : 'Make the job'}
        busy={isLoading}
        done={kept}
        onSend={async (fields) => {
          if (technician === null) return 'Pick your name at the top right first.';
          const answer = await create({ id, by: technician, ...fields });
          if (answer.error !== undefined) return problemOf(answer.error);
          if (answer.data === null) {
            setKept(true);
            return 'The server is away. The job is kept in this browser and made as soon as it is back.';
          }
          onClose();
          await navigate(`/jobs/${answer.data.code}/intake`);
          return null;
        }}
      >
        <FormField name="title" label="Machine" schema={machine}>
          <Input maxLength={80} placeholder="Radio playout machine" />
        </FormField>
        <FormField name="client" label="Client">
          <Input maxLength={80} placeholder="Who brought it" />
        </FormField>
        <FormField name="words" label="In the client's words">
          <Input.TextArea
            rows={3}
            maxLength={1000}
            placeholder="What it does, or does not"
            onPressEnter={sendOnEnter}
          />
        </FormField>
      </SheetForm>
    </Dialog>
  );
}
