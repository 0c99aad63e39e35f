import { useState } from 'react';
import { Button, Input } from 'antd';
import { useNavigate } from 'react-router';
import { problemOf, useCreateJobMutation } from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { Dialog } from '../controls/dialog.tsx';

/** A new job in three fields. */
export default function NewJobDialog({ onClose }: { readonly onClose: () => void }) {
  const navigate = useNavigate();
  const technician = useAppSelector((state) => state.session.technician);
  const [id] = useState(() => crypto.randomUUID());
  const [fields, setFields] = useState({ title: '', client: '', words: '' });
  const [kept, setKept] = useState(false);
  const [told, setTold] = useState<string | null>(null);
  const [create, { isLoading }] = useCreateJobMutation();
  async function save(): Promise<void> {
    if (technician === null) {
      setTold('Pick your name at the top right first.');
      return;
    }
    if (fields.title.trim() === '') {
      setTold('Say which machine it is.');
      return;
    }
    const answer = await create({ id, by: technician, ...fields });
    if (answer.data === null) {
      setTold('The server is away. The job is kept in this browser and made as soon as it is back.');
      setKept(true);
      return;
    }
    if (answer.data !== undefined) {
      onClose();
      void navigate(`/jobs/${answer.data.code}/intake`);
      return;
    }
    const problem = problemOf(answer.error);
    setTold([problem.title, ...(problem.errors ?? []).map((error) => `${error.path}: ${error.message}`)].join(' · '));
  }
  const field = (name: keyof typeof fields, label: string, max: number, hint: string) => (
    <label className="field wide">
      <span className="name">{label}</span>
      <Input
        value={fields[name]}
        maxLength={max}
        placeholder={hint}
        onChange={(event) => {
          setFields({ ...fields, [name]: event.target.value });
          setTold(null);
        }}
      />
    </label>
  );
  return (
    <Dialog title="New job" onClose={onClose}>
      <form
        className="fields"
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        {field('title', 'Machine', 80, 'Radio playout machine')}
        {field('client', 'Client', 80, 'Who brought it')}
        {field('words', "In the client's words", 1000, 'What it does, or does not')}
        {told !== null && (
          <div className="error-text wide" role="alert">
            {told}
          </div>
        )}
        <Button type="primary" className="primary wide" htmlType="submit" disabled={isLoading || kept}>
          <span>{isLoading ? 'Making it …' : 'Make the job'}</span>
          <kbd aria-hidden="true">↵</kbd>
        </Button>
      </form>
    </Dialog>
  );
}
