import { lazy, Suspense, type ComponentType } from 'react';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { useSignedOut } from './shared/access/signedOut';
import { Waiting } from './shared/ui/elements';
import { Broken, NotThere } from './shell/NotThere';
import { WithMachine } from './shell/WithMachine';
import { Shell } from './shell/Shell';

/** The pages of the daily job, which are fetched before the first of them is drawn. */
const daily: Record<string, () => Promise<{ default: ComponentType }>> = {
  warm: () => import('./warm/WarmPage'),
  prepare: () => import('./prepare/PreparePage'),
  pull: () => import('./pull/PullPage'),
  taste: () => import('./taste/TastePage'),
};
const first = 'prepare';

/** Fetches the page that the address names while the rest begins. */
export const fetchPageOf = (path: string) => void daily[path.split('/')[1] || first]?.();

const WarmPage = lazy(daily.warm!);
const PreparePage = lazy(daily.prepare!);
const PullPage = lazy(daily.pull!);
const TastePage = lazy(daily.taste!);
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
          { path: 'warm', element: page(withMachine(<WarmPage />)) },
          { path: 'prepare', element: page(withMachine(<PreparePage />)) },
          { path: 'pull', element: page(withMachine(<PullPage />)) },
          { path: 'taste', element: page(<TastePage />) },
          { path: 'taste/:id', element: page(<TastePage />) },
          { path: 'taste/:id/card', element: page(<ShotCardPage />) },
          { path: 'ledger', element: page(<LedgerPage />) },
          { path: 'ledger/compare', element: page(<ComparePage />) },
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
