import { createBrowserRouter, Navigate } from 'react-router';
import { NotThere } from './shell/NotThere.tsx';
import { Shell } from './shell/Shell.tsx';

/** Every address of the application. Stations load when they are first gone to. */
export const router = createBrowserRouter([
  {
    path: '/',
    element: <Shell />,
    errorElement: <NotThere broken />,
    HydrateFallback: () => null,
    children: [
      { index: true, element: <Navigate to="/today" replace /> },
      { path: 'today', lazy: async () => ({ Component: (await import('./today/TodayPage.tsx')).TodayPage }) },
      {
        path: 'define/faults',
        lazy: async () => ({ Component: (await import('./define/FaultsPage.tsx')).FaultsPage }),
      },
      {
        path: 'define/replace',
        lazy: async () => ({ Component: (await import('./define/ReplacePage.tsx')).ReplacePage }),
      },
      { path: 'define/:id?', lazy: async () => ({ Component: (await import('./define/DefinePage.tsx')).DefinePage }) },
      { path: 'cover', lazy: async () => ({ Component: (await import('./cover/CoverPage.tsx')).CoverPage }) },
      { path: 'build/:id?', lazy: async () => ({ Component: (await import('./build/BuildPage.tsx')).BuildPage }) },
      {
        path: 'build/:id/finish',
        lazy: async () => ({ Component: (await import('./build/FinishPage.tsx')).FinishPage }),
      },
      { path: 'pick/:id?', lazy: async () => ({ Component: (await import('./pick/PickPage.tsx')).PickPage }) },
      {
        path: 'take-apart',
        lazy: async () => ({ Component: (await import('./apart/TakeApartPage.tsx')).TakeApartPage }),
      },
      {
        path: 'stock',
        lazy: async () => ({ Component: (await import('./stock/StockPage.tsx')).StockPage }),
        children: [
          { index: true, element: <Navigate to="/stock/items" replace /> },
          { path: 'items/:id?', lazy: async () => ({ Component: (await import('./stock/ItemsPage.tsx')).ItemsPage }) },
          { path: 'lots', lazy: async () => ({ Component: (await import('./stock/LotsPage.tsx')).LotsPage }) },
          {
            path: 'movements',
            lazy: async () => ({ Component: (await import('./stock/MovementsPage.tsx')).MovementsPage }),
          },
          {
            path: 'documents/:id?',
            lazy: async () => ({ Component: (await import('./stock/DocumentsPage.tsx')).DocumentsPage }),
          },
          { path: 'receive', lazy: async () => ({ Component: (await import('./stock/ReceivePage.tsx')).ReceivePage }) },
          { path: 'on-a-day', lazy: async () => ({ Component: (await import('./stock/ThenPage.tsx')).ThenPage }) },
          {
            path: 'counts/:id?',
            lazy: async () => ({ Component: (await import('./stock/CountsPage.tsx')).CountsPage }),
          },
          { path: 'move', lazy: async () => ({ Component: (await import('./stock/MovePage.tsx')).MovePage }) },
          { path: 'adjust', lazy: async () => ({ Component: (await import('./stock/AdjustPage.tsx')).AdjustPage }) },
          {
            path: 'suppliers',
            lazy: async () => ({ Component: (await import('./stock/SuppliersPage.tsx')).SuppliersPage }),
          },
          { path: 'in-out', lazy: async () => ({ Component: (await import('./exchange/InOutPage.tsx')).InOutPage }) },
          { path: 'places', lazy: async () => ({ Component: (await import('./stock/PlacesPage.tsx')).PlacesPage }) },
        ],
      },
      {
        path: 'print/:sheet/:id',
        lazy: async () => ({ Component: (await import('./print/PrintPage.tsx')).PrintPage }),
      },
      { path: '*', element: <NotThere /> },
    ],
  },
]);
