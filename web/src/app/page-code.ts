/** The code of each page but the list of jobs, fetched once it is asked for; by the first word of its address. */
export const pageCode = {
  jobs: () => import('../job/job-page.tsx'),
  supplies: () => import('../shelves/supplies-page.tsx'),
  'cable-bags': () => import('../shelves/cable-bags-page.tsx'),
  guide: () => import('../guide/guide-page.tsx'),
  record: () => import('../shelves/record-page.tsx'),
  settings: () => import('../shelves/settings-page.tsx'),
  people: () => import('../access/people-page.tsx'),
  health: () => import('../shelves/health-page.tsx'),
  instruments: () => import('../shelves/instruments-page.tsx'),
};
