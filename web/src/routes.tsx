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
        lazy: async () => ({ Component: (await import('./definitions/FaultsPage.tsx')).FaultsPage }),
      },
      {
        path: 'define/replace',
        lazy: async () => ({ Component: (await import('./definitions/ReplacePage.tsx')).ReplacePage }),
      },
      {
        path: 'define/:id?',
        lazy: async () => ({ Component: (await import('./definitions/DefinePage.tsx')).DefinePage }),
      },
      { path: 'cover', lazy: async () => ({ Component: (await import('./coverage/CoverPage.tsx')).CoverPage }) },
      {
        path: 'orders/customers/:id?',
        lazy: async () => ({ Component: (await import('./orders/CustomersPage.tsx')).CustomersPage }),
      },
      {
        path: 'orders/:id/papers',
        lazy: async () => ({ Component: (await import('./orders/PapersPage.tsx')).PapersPage }),
      },
      { path: 'orders/weeks', lazy: async () => ({ Component: (await import('./orders/WeeksPage.tsx')).WeeksPage }) },
      { path: 'orders/:id?', lazy: async () => ({ Component: (await import('./orders/OrdersPage.tsx')).OrdersPage }) },
      { path: 'build/:id?', lazy: async () => ({ Component: (await import('./builds/BuildPage.tsx')).BuildPage }) },
      {
        path: 'build/:id/finish',
        lazy: async () => ({ Component: (await import('./builds/FinishPage.tsx')).FinishPage }),
      },
      {
        path: 'pick/orders/:id',
        lazy: async () => ({ Component: (await import('./picking/PickPage.tsx')).PickOrderPage }),
      },
      { path: 'pick/:id?', lazy: async () => ({ Component: (await import('./picking/PickPage.tsx')).PickPage }) },
      {
        path: 'take-apart',
        lazy: async () => ({ Component: (await import('./takeapart/TakeApartPage.tsx')).TakeApartPage }),
      },
      {
        path: 'stock',
        lazy: async () => ({ Component: (await import('./stock/StockPage.tsx')).StockPage }),
        children: [
          { index: true, element: <Navigate to="/stock/items" replace /> },
          { path: 'items/:id?', lazy: async () => ({ Component: (await import('./items/ItemsPage.tsx')).ItemsPage }) },
          { path: 'where', lazy: async () => ({ Component: (await import('./stock/WherePage.tsx')).WherePage }) },
          { path: 'lots', lazy: async () => ({ Component: (await import('./tracking/LotsPage.tsx')).LotsPage }) },
          {
            path: 'movements',
            lazy: async () => ({ Component: (await import('./ledger/MovementsPage.tsx')).MovementsPage }),
          },
          {
            path: 'documents/:id?',
            lazy: async () => ({ Component: (await import('./ledger/DocumentsPage.tsx')).DocumentsPage }),
          },
          {
            path: 'receive',
            lazy: async () => ({ Component: (await import('./buying/ReceivePage.tsx')).ReceivePage }),
          },
          {
            path: 'documents/:id/prices',
            lazy: async () => ({ Component: (await import('./buying/PricesPage.tsx')).PricesPage }),
          },
          { path: 'revalue', lazy: async () => ({ Component: (await import('./stock/RevaluePage.tsx')).RevaluePage }) },
          {
            path: 'put-right',
            lazy: async () => ({ Component: (await import('./stock/PutRightPage.tsx')).PutRightPage }),
          },
          { path: 'on-a-day', lazy: async () => ({ Component: (await import('./stock/ThenPage.tsx')).ThenPage }) },
          {
            path: 'counts/:id?',
            lazy: async () => ({ Component: (await import('./counts/CountsPage.tsx')).CountsPage }),
          },
          { path: 'move', lazy: async () => ({ Component: (await import('./stock/MovePage.tsx')).MovePage }) },
          { path: 'adjust', lazy: async () => ({ Component: (await import('./stock/AdjustPage.tsx')).AdjustPage }) },
          { path: 'suppliers', element: <Navigate to="/buying/suppliers" replace /> },
          { path: 'in-out', lazy: async () => ({ Component: (await import('./exchange/InOutPage.tsx')).InOutPage }) },
          { path: 'places', lazy: async () => ({ Component: (await import('./places/PlacesPage.tsx')).PlacesPage }) },
        ],
      },
      {
        path: 'buying',
        lazy: async () => ({ Component: (await import('./buying/BuyingPage.tsx')).BuyingPage }),
        children: [
          { index: true, lazy: async () => ({ Component: (await import('./buying/BuyListPage.tsx')).BuyListPage }) },
          {
            path: 'orders/:id/receive',
            lazy: async () => ({ Component: (await import('./buying/ReceiveOrderPage.tsx')).ReceiveOrderPage }),
          },
          {
            path: 'orders/:id?',
            lazy: async () => ({ Component: (await import('./buying/OrdersPage.tsx')).OrdersPage }),
          },
          {
            path: 'suppliers/:id?',
            lazy: async () => ({ Component: (await import('./buying/SuppliersPage.tsx')).SuppliersPage }),
          },
        ],
      },
      {
        path: 'devices',
        lazy: async () => ({ Component: (await import('./devices/DevicesPage.tsx')).DevicesPage }),
        children: [
          { index: true, element: <Navigate to="/devices/printer" replace /> },
          {
            path: 'printer',
            lazy: async () => ({ Component: (await import('./devices/PrinterPage.tsx')).PrinterPage }),
          },
          {
            path: 'scanner',
            lazy: async () => ({ Component: (await import('./devices/ScannerPage.tsx')).ScannerPage }),
          },
          { path: 'shop', lazy: async () => ({ Component: (await import('./devices/ShopPage.tsx')).ShopPage }) },
          {
            path: 'mailbox',
            lazy: async () => ({ Component: (await import('./devices/MailboxPage.tsx')).MailboxPage }),
          },
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
