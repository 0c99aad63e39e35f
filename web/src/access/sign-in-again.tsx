import type { Access } from '@fairwatt/contract';
import { Dialog } from '../controls/dialog.tsx';
import { SignInForm } from './sign-in-form.tsx';

interface Props {
  readonly access: Access;
  /** Whose name is picked at first, by id. */
  readonly chosenFirst: string | null;
  readonly onClose: () => void;
}

/** The way in over the work, which stays. */
export default function SignInAgain({ access, chosenFirst, onClose }: Props) {
  return (
    <Dialog title="Who works here?" onClose={onClose}>
      <SignInForm access={access} chosenFirst={chosenFirst} />
    </Dialog>
  );
}
