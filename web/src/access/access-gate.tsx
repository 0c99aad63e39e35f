import { lazy, Suspense, useEffect, useState, type ReactNode } from 'react';
import { useLocation } from 'react-router';
import { useAccessQuery } from '../app/api.ts';
import { session } from '../app/session.ts';
import { useAppDispatch, useAppSelector } from '../app/store.ts';
import { forgetAnswers } from '../offline/kept-answer.ts';
import { Waiting } from '../controls/waiting.tsx';
import { looks } from '../looks/looks.ts';

const SignInPage = lazy(() => import('./sign-in-page.tsx'));
const EnrolPage = lazy(() => import('./enrol-page.tsx'));

/**
 * Shows the application to whoever signed in, and the way in to everybody else. Where a session ends in the middle of
 * the work the application stays, so that nothing typed is lost,
 * and says so.
 */
export function AccessGate({ children }: { readonly children: ReactNode }) {
  const dispatch = useAppDispatch();
  const { pathname } = useLocation();
  const technician = useAppSelector((state) => state.session.technician);
  const access = useAccessQuery(undefined, { refetchOnFocus: true });
  const person = access.data?.signing === 'secret' ? access.data.person : null;
  const outside = access.data?.signing === 'secret' && person === null;
  const [entered, setEntered] = useState(false);
  const ready =
    access.data === undefined ? access.isError : access.data.signing === 'picked' || person?.id === technician;
  if (ready && person !== null && !entered) setEntered(true);

  useEffect(() => {
    if (person === null) return;
    dispatch(session.pickTechnician(person.id));
  }, [person, dispatch]);
  useEffect(() => {
    // Whoever uses this browser next sees nothing that was kept.
    if (outside) void forgetAnswers();
  }, [outside]);

  const waiting = <Waiting className={looks.page}>One moment …</Waiting>;
  if (pathname === '/enrol')
    return (
      <Suspense fallback={waiting}>
        <EnrolPage />
      </Suspense>
    );
  if (outside && !entered && access.data !== undefined)
    return (
      <Suspense fallback={waiting}>
        <SignInPage access={access.data} />
      </Suspense>
    );
  if (!ready && !entered) return waiting;
  return children;
}
