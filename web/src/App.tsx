import { lazy, Suspense, useState, type ComponentType } from 'react';
import { BrowserRouter, Navigate, Route, Routes, useLocation } from 'react-router';
import PreparePage from './prepare/PreparePage';
import { useSignedOut } from './shared/access/signedOut';
import { Waiting } from './shared/ui/elements';
import { Boundary } from './shell/Boundary';
import { NotThere } from './shell/NotThere';
import { WithMachine } from './shell/WithMachine';
import { Shell } from './shell/Shell';

/** A page that is drawn with the first of the frame if it was fetched by then, and comes when it is opened if not. */
function daily(load: () => Promise<{ default: ComponentType }>) {
  const Later = lazy(load);
  let fetched: ComponentType | undefined;
  return {
    fetch: async () => void (fetched = (await load()).default),
    Page: function Daily() {
      const [Page] = useState(() => fetched ?? Later);
      return <Page />;
    },
  };
}

const pages = {
  warm: daily(() => import('./warm/WarmPage')),
  // most days begin here: it comes with the frame
  prepare: { fetch: () => undefined, Page: PreparePage },
  pull: daily(() => import('./pull/PullPage')),
  taste: daily(() => import('./taste/TastePage')),
};
const first = 'prepare';

// the first page is opened under its own address: a redirect would draw the frame twice
if (location.pathname === '/') history.replaceState(null, '', `/${first}${location.search}`);

/** Fetches the page that the address names, unless it came with the frame or comes later. */
export const fetchPage = () => pages[location.pathname.split('/')[1] as keyof typeof pages]?.fetch();

const LedgerPage = lazy(() => import('./ledger/LedgerPage'));
const CompareCardPage = lazy(() => import('./ledger/CompareCardPage'));
const ShotCardPage = lazy(() => import('./taste/ShotCardPage'));
const ComparePage = lazy(() => import('./ledger/ComparePage'));
const TrendsPage = lazy(() => import('./trends/TrendsPage'));
const ArmPage = lazy(() => import('./trends/ArmPage'));
const ExchangePage = lazy(() => import('./exchange/ExchangePage'));
const LogbookPage = lazy(() => import('./exchange/LogbookPage'));
const ImportPage = lazy(() => import('./exchange/ImportPage'));
const ShelfPage = lazy(() => import('./shelf/ShelfPage'));
const MachinesPage = lazy(() => import('./machines/MachinesPage'));
const NewMachinePage = lazy(() => import('./machines/NewMachinePage'));
const MachinePage = lazy(() => import('./machines/MachinePage'));
const PlansPage = lazy(() => import('./plans/PlansPage'));
const PlanPage = lazy(() => import('./plans/PlanPage'));
const PracticePage = lazy(() => import('./practice/PracticePage'));
const LessonPage = lazy(() => import('./practice/LessonPage'));
const WelcomePage = lazy(() => import('./welcome/WelcomePage'));
const LaddersPage = lazy(() => import('./ladders/LaddersPage'));
const LadderPage = lazy(() => import('./ladders/LadderPage'));
const TermsPage = lazy(() => import('./terms/TermsPage'));
const SettingsPage = lazy(() => import('./settings/SettingsPage'));
const CarePage = lazy(() => import('./care/CarePage'));
const GuidePage = lazy(() => import('./guide/GuidePage'));
const NetworkPage = lazy(() => import('./settings/NetworkPage'));
const SignInPage = lazy(() => import('./signin/SignInPage'));
const StoragePage = lazy(() => import('./settings/StoragePage'));

const page = (element: React.ReactNode) => <Suspense fallback={<Waiting />}>{element}</Suspense>;

/** The daily pages begin with a machine: without one, the first morning comes first. */
const withMachine = (element: React.ReactNode) => <WithMachine>{element}</WithMachine>;

/** The pages under their addresses, each within the frame. */
const routes = (
  <Route element={<Shell />}>
    <Route index element={<Navigate to={`/${first}${location.search}`} replace />} />
    <Route path="welcome" element={page(<WelcomePage />)} />
    <Route path="warm" element={page(withMachine(<pages.warm.Page />))} />
    <Route path="prepare" element={page(withMachine(<pages.prepare.Page />))} />
    <Route path="pull" element={page(withMachine(<pages.pull.Page />))} />
    <Route path="taste" element={page(<pages.taste.Page />)} />
    <Route path="taste/:id" element={page(<pages.taste.Page />)} />
    <Route path="taste/:id/card" element={page(<ShotCardPage />)} />
    <Route path="ledger" element={page(<LedgerPage />)} />
    <Route path="ledger/compare" element={page(<ComparePage />)} />
    <Route path="ledger/compare/card" element={page(<CompareCardPage />)} />
    <Route path="ledger/trends" element={page(<TrendsPage />)} />
    <Route path="ledger/arm" element={page(<ArmPage />)} />
    <Route path="ledger/exchange" element={page(<ExchangePage />)} />
    <Route path="ledger/import" element={page(<ImportPage />)} />
    <Route path="ledger/import/logbook" element={page(<LogbookPage />)} />
    <Route path="shelf" element={page(<ShelfPage />)} />
    <Route path="machines" element={page(<MachinesPage />)} />
    <Route path="machines/new" element={page(<NewMachinePage />)} />
    <Route path="machines/:id" element={page(<MachinePage />)} />
    <Route path="plans" element={page(<PlansPage />)} />
    <Route path="plans/:key" element={page(<PlanPage />)} />
    <Route path="practice" element={page(<PracticePage />)} />
    <Route path="practice/:lesson" element={page(<LessonPage />)} />
    <Route path="ladders" element={page(<LaddersPage />)} />
    <Route path="ladders/:id" element={page(<LadderPage />)} />
    <Route path="guide" element={page(<GuidePage />)} />
    <Route path="care" element={page(<CarePage />)} />
    <Route path="settings" element={page(<SettingsPage />)} />
    <Route path="settings/network" element={page(<NetworkPage />)} />
    <Route path="settings/storage" element={page(<StoragePage />)} />
    <Route path="terms" element={page(<TermsPage />)} />
    <Route path="*" element={<NotThere />} />
  </Route>
);

function Pages() {
  return (
    <Boundary at={useLocation().key}>
      <Routes>{routes}</Routes>
    </Boundary>
  );
}

export function App() {
  if (useSignedOut()) return page(<SignInPage />);
  return (
    <BrowserRouter>
      <Pages />
    </BrowserRouter>
  );
}
