import { Modal } from 'antd';
import type { Access } from '@fairwatt/contract';
import { useAppSelector } from '../app/store.ts';
import { SignInForm } from './sign-in-form.tsx';

/** Above the work, when the session is over in the middle of it; what was typed stays where it is. */
export default function SignInAgain({ access }: { readonly access: Access }) {
  const technician = useAppSelector((state) => state.session.technician);
  return (
    <Modal open title="You were signed out" footer={null} closable={false} mask={{ closable: false }} keyboard={false}>
      <p className="quiet">What you typed is kept, and is sent when you are in again.</p>
      <SignInForm access={access} chosenFirst={technician} />
    </Modal>
  );
}
