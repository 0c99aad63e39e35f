import {
  lazy,
  Suspense,
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  type ReactNode,
  type RefObject,
} from 'react';
import { Button, Select, type InputRef } from 'antd';
import { NavLink, useLocation, useMatch, useNavigate } from 'react-router';
import { stationIds } from '@fairwatt/core';
import { SignedOutNotice } from '../access/signed-out-notice.tsx';
import { Waiting } from '../controls/waiting.tsx';
import { looks } from '../looks/looks.ts';
import { useAccessQuery, useShopQuery } from './api.ts';
import { FindForm } from './find-form.tsx';
import { useKeys } from './keys.ts';
import { session } from './session.ts';
import { useAppDispatch, useAppSelector } from './store.ts';
import { SweepWatch } from './sweep-watch.tsx';
import { UnsentNotice } from './unsent-notice.tsx';
import styles from './shell.module.css';

const loadNewJob = () => import('../jobs/new-job.tsx');
const NewJobDialog = lazy(loadNewJob);
const PersonDialog = lazy(() => import('../access/person-dialog.tsx'));
const KeysDialog = lazy(() => import('./keys-dialog.tsx'));

/** Those who may work here, and whether whoever is picked is one of them. */
function usePeople() {
  const technician = useAppSelector((state) => state.session.technician);
  const shop = useShopQuery().data;
  const people = (shop?.technicians ?? []).filter(({ role }) => role !== 'none');
  return { people, known: people.some((person) => person.id === technician), fetched: shop !== undefined };
}

/** The name that changes are signed with, where names need no secret. */
function TechnicianPick() {
  const dispatch = useAppDispatch();
  const technician = useAppSelector((state) => state.session.technician);
  const { people, known } = usePeople();
  return (
    <label>
      <span className={looks.visuallyHidden}>Technician</span>
      <Select
        aria-label="Technician"
        className={known ? '' : (styles.unset ?? '')}
        value={known ? technician : null}
        placeholder="Who works here?"
        popupMatchSelectWidth={false}
        onChange={(picked: string) => dispatch(session.pickTechnician(picked))}
        options={people.map((person) => ({ value: person.id, label: person.name }))}
      />
    </label>
  );
}

/** The bar across the top. */
function Bar({
  search,
  onDialog,
}: {
  readonly search: RefObject<InputRef | null>;
  readonly onDialog: (dialog: 'keys' | 'person') => void;
}) {
  const dispatch = useAppDispatch();
  const theme = useAppSelector((state) => state.session.theme);
  const access = useAccessQuery().data;
  // From a job the guide leads back into it.
  const job = useMatch('/jobs/:code/*')?.params.code;
  return (
    <header className={styles.bar}>
      <NavLink to="/jobs" className={styles.brand ?? ''} aria-label="Fair Watt, jobs">
        <svg width="22" height="18" viewBox="0 0 22 18" aria-hidden="true">
          <path d="M0 16h22M4 16V9h4v7M14 16V9h4v7M11 8V1" fill="none" stroke="#E4C88B" strokeWidth="3" />
        </svg>
        <span className={styles.brandName}>Fair Watt</span>
      </NavLink>
      <nav aria-label="Main" className={styles.links}>
        <NavLink to="/jobs">Jobs</NavLink>
        <NavLink to="/supplies">Supplies</NavLink>
        <NavLink to="/cable-bags">Cable bags</NavLink>
        <NavLink to={job === undefined ? '/guide' : `/guide?job=${encodeURIComponent(job)}`}>Guide</NavLink>
        <NavLink to="/instruments">Instruments</NavLink>
        <NavLink to="/record">Record</NavLink>
        <NavLink to="/settings">Settings</NavLink>
      </nav>
      <FindForm field={search} />
      <Button
        type="text"
        className={looks.barButton}
        onClick={() => dispatch(session.setTheme(theme === 'dark' ? 'light' : 'dark'))}
      >
        {theme === 'dark' ? 'Light' : 'Dark'}
      </Button>
      <Button
        type="text"
        className={`${looks.barButton} ${styles.keysButton}`}
        aria-label="Show the keys"
        onClick={() => onDialog('keys')}
      >
        ?
      </Button>
      {access?.signing === 'secret' && access.person !== null ? (
        <Button type="text" className={looks.barButton} aria-haspopup="dialog" onClick={() => onDialog('person')}>
          {access.person.name}
        </Button>
      ) : (
        <TechnicianPick />
      )}
    </header>
  );
}

/** Asks who works here, where nobody has said so. */
function WhoWorksHere() {
  const { known, fetched } = usePeople();
  const access = useAccessQuery().data;
  if (!fetched || known || access?.signing !== 'picked') return null;
  return (
    <div className={looks.notice} role="status">
      <span className={looks.mark}>Who works here?</span>
      <span>Pick your name at the top right; every change is signed with it.</span>
    </div>
  );
}

/** The bar across the top, the notices that concern the whole application, and the keyboard. */
export function Shell({ children }: { readonly children: ReactNode }) {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const location = useLocation();
  const search = useRef<InputRef>(null);
  const [dialog, setDialog] = useState<'none' | 'keys' | 'person'>('none');
  const { newJobAsked, singleKeys } = useAppSelector((state) => state.session);
  const shopIsComing = useShopQuery().isLoading;
  const code = /^\/jobs\/([^/]+)/.exec(location.pathname)?.[1];

  const goStation = useCallback(
    (digit: number) => {
      const station = stationIds[digit - 1];
      if (code !== undefined && station !== undefined) void navigate(`/jobs/${code}/${station}`);
    },
    [code, navigate],
  );
  useKeys(
    useMemo(
      () => ({
        station: goStation,
        newJob: () => dispatch(session.askNewJob()),
        search: () => search.current?.focus(),
        help: () => setDialog('keys'),
        single: singleKeys,
      }),
      [goStation, dispatch, singleKeys],
    ),
  );

  // A client stands at the counter: the dialog is fetched before it is asked for, so that nothing typed runs ahead of
  // it.
  useEffect(() => {
    const idle = requestIdleCallback(() => void loadNewJob());
    return () => cancelIdleCallback(idle);
  }, []);

  return (
    <div className={styles.frame}>
      <a className={styles.skip} href="#main">
        Skip to the work
      </a>
      <Bar search={search} onDialog={setDialog} />
      <main className={styles.content} id="main" tabIndex={-1}>
        <SignedOutNotice />
        <UnsentNotice />
        <WhoWorksHere />
        {/* Figures are written as the shop does: it is heard first, unless it does not answer. */}
        {shopIsComing ? <Waiting className={looks.page} /> : children}
      </main>
      <SweepWatch />
      <Suspense fallback={null}>
        {newJobAsked && <NewJobDialog onClose={() => dispatch(session.newJobAnswered())} />}
        {dialog === 'person' && <PersonDialog onClose={() => setDialog('none')} />}
        {dialog === 'keys' && <KeysDialog onClose={() => setDialog('none')} />}
      </Suspense>
    </div>
  );
}
