import { piece } from '../controls/beside.tsx';

/** Each page but the list of jobs; by the first word of its address. */
export const pageCode = {
  jobs: piece(() => import('../job/job-page.tsx')),
  supplies: piece(() => import('../shelves/supplies-page.tsx')),
  'cable-bags': piece(() => import('../shelves/cable-bags-page.tsx')),
  guide: piece(() => import('../guide/guide-page.tsx')),
  record: piece(() => import('../shelves/record-page.tsx')),
  settings: piece(() => import('../shelves/settings-page.tsx')),
  people: piece(() => import('../access/people-page.tsx')),
  health: piece(() => import('../shelves/health-page.tsx')),
  instruments: piece(() => import('../shelves/instruments-page.tsx')),
};
