import { Suspense, useLayoutEffect } from 'react';
import { ConfigProvider } from 'antd';
import { Navigate, Route, Routes, useParams } from 'react-router';
import { AccessGate } from '../access/access-gate.tsx';
import { JobListPage } from '../jobs/job-list.tsx';
import { looks } from '../looks/looks.ts';
import { pageCode } from './page-code.ts';
import { Guarded } from './trouble.tsx';
import { Shell } from './shell.tsx';
import { useAppSelector } from './store.ts';
import { styleNonce } from './style-nonce.ts';
import { useTitle } from './use-title.ts';
import { antTheme, applyPalette } from './theme.ts';
import { Empty } from '../controls/empty.tsx';
import { Waiting } from '../controls/waiting.tsx';

const JobPage = pageCode.jobs.Drawn;
const SuppliesPage = pageCode.supplies.Drawn;
const CableBagsPage = pageCode['cable-bags'].Drawn;
const GuidePage = pageCode.guide.Drawn;
const RecordPage = pageCode.record.Drawn;
const SettingsPage = pageCode.settings.Drawn;
const PeoplePage = pageCode.people.Drawn;
const HealthPage = pageCode.health.Drawn;
const InstrumentsPage = pageCode.instruments.Drawn;

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
      {...(styleNonce !== undefined && { csp: { nonce: styleNonce } })}
      wave={{ disabled: true }}
      button={{ autoInsertSpace: false, className: looks.button }}
      checkbox={{ className: looks.tickBox }}
      datePicker={{ className: looks.chooser }}
      input={{ classNames: { input: looks.input } }}
      modal={{ className: looks.dialog }}
      radio={{ className: looks.tickBox }}
      select={{ className: looks.chooser }}
      table={{ className: looks.table }}
      textArea={{ classNames: { textarea: looks.input } }}
      renderEmpty={() => <span className={looks.quiet}>Nothing here.</span>}
    >
      <Guarded>
        <AccessGate>
          <Shell>
            <Guarded>
              <Suspense fallback={<Waiting className={looks.page} />}>
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
                      <div className={looks.page}>
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
