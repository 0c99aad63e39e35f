import { useRef, useState } from 'react';
import { Button, Input, Modal, type InputRef } from 'antd';
import { problemOf, useAddTechnicianMutation } from './api.ts';
import { session } from './session.ts';
import { useAppDispatch } from './store.ts';

/** A new name among the technicians, picked at once. */
export default function NewNameDialog({ onClose }: { readonly onClose: () => void }) {
  const dispatch = useAppDispatch();
  const first = useRef<InputRef>(null);
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
    <Modal
      open
      title="Who works here?"
      onCancel={onClose}
      footer={null}
      destroyOnHidden
      afterOpenChange={(isOpen) => {
        if (isOpen) first.current?.focus();
      }}
    >
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
            ref={first}
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
    </Modal>
  );
}
