import { lazy, Suspense, useState, type ComponentType } from 'react';
import { createBrowserRouter, Navigate } from 'react-router';
import { RouterProvider } from 'react-router/dom';
import PreparePage from './prepare/PreparePage';
import { useSignedOut } from './shared/access/signedOut';
import { Waiting } from './shared/ui/elements';
import { Broken, NotThere } from './shell/NotThere';
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

// most that is selected in the ledger is compared: by then its page is there
const compare = daily(() => import('./ledger/ComparePage'));
const LedgerPage = lazy(() => {
  // where it does not come, it is asked for again when it is opened
  void compare.fetch().catch(() => undefined);
  return import('./ledger/LedgerPage');
});
const CompareCardPage = lazy(() => import('./ledger/CompareCardPage'));
const ShotCardPage = lazy(() => import('./taste/ShotCardPage'));
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

const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <Broken />,
    children: [
      {
        // a page that breaks leaves the frame round it, and the pull that it shows, as they are
        errorElement: <Broken />,
        children: [
          { index: true, element: <Navigate to={`/${first}${location.search}`} replace /> },
          { path: 'welcome', element: page(<WelcomePage />) },
          { path: 'warm', element: page(withMachine(<pages.warm.Page />)) },
          { path: 'prepare', element: page(withMachine(<pages.prepare.Page />)) },
          { path: 'pull', element: page(withMachine(<pages.pull.Page />)) },
          { path: 'taste', element: page(<pages.taste.Page />) },
          { path: 'taste/:id', element: page(<pages.taste.Page />) },
          { path: 'taste/:id/card', element: page(<ShotCardPage />) },
          { path: 'ledger', element: page(<LedgerPage />) },
          { path: 'ledger/compare', element: page(<compare.Page />) },
          { path: 'ledger/compare/card', element: page(<CompareCardPage />) },
          { path: 'ledger/trends', element: page(<TrendsPage />) },
          { path: 'ledger/arm', element: page(<ArmPage />) },
          { path: 'ledger/exchange', element: page(<ExchangePage />) },
          { path: 'ledger/import', element: page(<ImportPage />) },
          { path: 'ledger/import/logbook', element: page(<LogbookPage />) },
          { path: 'shelf', element: page(<ShelfPage />) },
          { path: 'machines', element: page(<MachinesPage />) },
          { path: 'machines/new', element: page(<NewMachinePage />) },
          { path: 'machines/:id', element: page(<MachinePage />) },
          { path: 'plans', element: page(<PlansPage />) },
          { path: 'plans/:key', element: page(<PlanPage />) },
          { path: 'practice', element: page(<PracticePage />) },
          { path: 'practice/:lesson', element: page(<LessonPage />) },
          { path: 'ladders', element: page(<LaddersPage />) },
          { path: 'ladders/:id', element: page(<LadderPage />) },
          { path: 'guide', element: page(<GuidePage />) },
          { path: 'care', element: page(<CarePage />) },
          { path: 'settings', element: page(<SettingsPage />) },
          { path: 'settings/network', element: page(<NetworkPage />) },
          { path: 'settings/storage', element: page(<StoragePage />) },
          { path: 'terms', element: page(<TermsPage />) },
          { path: '*', element: <NotThere /> },
        ],
      },
    ],
  },
]);

export function App() {
  return useSignedOut() ? page(<SignInPage />) : <RouterProvider router={router} />;
}
