import { lazy, Suspense, useState } from 'react';
import { Button } from 'antd';
import type { Access } from '@fairwatt/contract';
import { useAccessQuery } from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { looks } from '../looks/looks.ts';

const SignInAgain = lazy(() => import('./sign-in-again.tsx'));

/**
 * Where a session ends in the middle of the work: the work stays, and nothing takes the keys from whoever types. What
 * is typed waits until its person is in again.
 */
export function SignedOutNotice() {
  const access = useAccessQuery().data;
  return access?.signing === 'secret' && access.person === null ? <SignedOut access={access} /> : null;
}

/** Gone once somebody is in, at this tab or at another; the next time begins with the notice alone. */
function SignedOut({ access }: { readonly access: Access }) {
  const technician = useAppSelector((state) => state.session.technician);
  const [asked, setAsked] = useState(false);
  return (
    <div className={`${looks.notice} ${looks.bad}`} role="alert">
      <span className={looks.mark}>You were signed out</span>
      <span className={looks.fills}>What you type is kept in this browser and sent when you are in again.</span>
      <Button onClick={() => setAsked(true)}>Sign in again</Button>
      {asked && (
        <Suspense fallback={null}>
          <SignInAgain access={access} chosenFirst={technician} onClose={() => setAsked(false)} />
        </Suspense>
      )}
    </div>
  );
}
