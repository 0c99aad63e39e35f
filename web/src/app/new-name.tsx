import { useState } from 'react';
import { Button, Input } from 'antd';
import { problemOf, useAddTechnicianMutation } from './api.ts';
import { session } from './session.ts';
import { useAppDispatch } from './store.ts';
import { Dialog } from '../controls/dialog.tsx';

/** A new name among the technicians, picked at once, where names are picked. */
export default function NewNameDialog({ onClose }: { readonly onClose: () => void }) {
  const dispatch = useAppDispatch();
  const [name, setName] = useState('');
  const [told, setTold] = useState<string | null>(null);
  const [add, { isLoading }] = useAddTechnicianMutation();

  async function save(): Promise<void> {
    if (name.trim() === '') {
      setTold('Write a name.');
      return;
    }
    const answer = await add({ name });
    if (answer.data === undefined) {
      setTold(problemOf(answer.error).title);
      return;
    }
    dispatch(session.pickTechnician(answer.data.id));
    onClose();
  }
  return (
    <Dialog title="Who works here?" onClose={onClose}>
      <form
        className="fields"
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <label className="field wide">
          <span className="name">Name</span>
          <Input
            value={name}
            maxLength={60}
            placeholder="As it shall stand under what you do"
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        {told !== null && (
          <div className="error-text wide" role="alert">
            {told}
          </div>
        )}
        <Button type="primary" className="primary wide" htmlType="submit" disabled={isLoading}>
          <span>Add the name</span>
          <kbd aria-hidden="true">↵</kbd>
        </Button>
      </form>
    </Dialog>
  );
}
