import { lazy, Suspense, useLayoutEffect } from 'react';
import { ConfigProvider } from 'antd';
import { Navigate, Route, Routes, useParams } from 'react-router';
import { AccessGate } from '../access/access-gate.tsx';
import { JobListPage } from '../jobs/job-list.tsx';
import { Guarded } from './trouble.tsx';
import { Shell } from './shell.tsx';
import { useAppSelector } from './store.ts';
import { useTitle } from './use-title.ts';
import { antTheme, applyPalette } from './theme.ts';
import { Empty } from '../controls/empty.tsx';
import { Waiting } from '../controls/waiting.tsx';

const JobPage = lazy(() => import('../job/job-page.tsx'));
const SuppliesPage = lazy(() => import('../shelves/supplies-page.tsx'));
const CableBagsPage = lazy(() => import('../shelves/cable-bags-page.tsx'));
const GuidePage = lazy(() => import('../guide/guide-page.tsx'));
const RecordPage = lazy(() => import('../shelves/record-page.tsx'));
const SettingsPage = lazy(() => import('../shelves/settings-page.tsx'));
const PeoplePage = lazy(() => import('../access/people-page.tsx'));
const HealthPage = lazy(() => import('../shelves/health-page.tsx'));
const InstrumentsPage = lazy(() => import('../shelves/instruments-page.tsx'));

/** What the code on a cable's tag opens: the record of that cable. */
function Tag() {
  const { code = '', cable = '' } = useParams();
  return (
    <Navigate to={`/jobs/${encodeURIComponent(code)}/cables?way=plan&cable=${encodeURIComponent(cable)}`} replace />
  );
}

/** Theme and routes. Each station has its own address. */
export function Root() {
  const theme = useAppSelector((state) => state.session.theme);
  useTitle();
  useLayoutEffect(() => applyPalette(theme), [theme]);
  return (
    <ConfigProvider
      theme={antTheme(theme)}
      wave={{ disabled: true }}
      button={{ autoInsertSpace: false }}
      renderEmpty={() => <span className="quiet">Nothing here.</span>}
    >
      <Guarded>
        <AccessGate>
          <Shell>
            <Guarded>
              <Suspense fallback={<Waiting className="page" />}>
                <Routes>
                  <Route path="/" element={<Navigate to="/jobs" replace />} />
                  <Route path="/jobs" element={<JobListPage />} />
                  <Route path="/jobs/:code/*" element={<JobPage />} />
                  <Route path="/tags/:code/:cable" element={<Tag />} />
                  <Route path="/supplies" element={<SuppliesPage />} />
                  <Route path="/cable-bags" element={<CableBagsPage />} />
                  <Route path="/guide" element={<GuidePage />} />
                  <Route path="/record" element={<RecordPage />} />
                  <Route path="/settings" element={<SettingsPage />} />
                  <Route path="/people" element={<PeoplePage />} />
                  <Route path="/health" element={<HealthPage />} />
                  <Route path="/instruments" element={<InstrumentsPage />} />
                  <Route
                    path="*"
                    element={
                      <div className="page">
                        <Empty title="There is nothing at this address">
                          Go back to the <a href="/jobs">jobs</a>.
                        </Empty>
                      </div>
                    }
                  />
                </Routes>
              </Suspense>
            </Guarded>
          </Shell>
        </AccessGate>
      </Guarded>
    </ConfigProvider>
  );
}
