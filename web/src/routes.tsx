import { Navigate, type RouteObject } from 'react-router';
import { part } from './api/part.ts';
import { Begin } from './shell/Begin.tsx';
import { NotThere } from './shell/NotThere.tsx';
import { Renamed } from './shell/Renamed.tsx';
import { Shell } from './shell/Shell.tsx';

/** Every address of the application. Stations load when they are first gone to. */
export const routes: RouteObject[] = [
  {
    path: '/',
    element: <Shell />,
    errorElement: <NotThere broken />,
    HydrateFallback: () => null,
    children: [
      {
        // What breaks inside the band leaves the band.
        errorElement: <NotThere broken />,
        children: [
          { index: true, element: <Begin /> },
          { path: 'today', lazy: part(() => import('./today/TodayPage.tsx'), 'TodayPage') },
          {
            path: 'define/faults',
            lazy: part(() => import('./definitions/FaultsPage.tsx'), 'FaultsPage'),
          },
          {
            path: 'define/replace',
            lazy: part(() => import('./definitions/ReplacePage.tsx'), 'ReplacePage'),
          },
          {
            path: 'define/:id?',
            lazy: part(() => import('./definitions/DefinePage.tsx'), 'DefinePage'),
          },
          { path: 'company', lazy: part(() => import('./people/CompanyPage.tsx'), 'CompanyPage') },
          { path: 'set-up', lazy: part(() => import('./people/SetUpPage.tsx'), 'SetUpPage') },
          { path: 'cover/scarce', lazy: part(() => import('./coverage/ScarcePage.tsx'), 'ScarcePage') },
          { path: 'cover/time/:id', lazy: part(() => import('./coverage/TimePage.tsx'), 'TimePage') },
          { path: 'cover', lazy: part(() => import('./coverage/CoverPage.tsx'), 'CoverPage') },
          {
            path: 'orders/customers/:id?',
            lazy: part(() => import('./orders/CustomersPage.tsx'), 'CustomersPage'),
          },
          {
            path: 'orders/:id/papers',
            lazy: part(() => import('./orders/PapersPage.tsx'), 'PapersPage'),
          },
          { path: 'orders/jobs/:tag?', lazy: part(() => import('./jobs/JobsPage.tsx'), 'JobsPage') },
          { path: 'orders/weeks', lazy: part(() => import('./orders/WeeksPage.tsx'), 'WeeksPage') },
          { path: 'orders/:id?', lazy: part(() => import('./orders/OrdersPage.tsx'), 'OrdersPage') },
          { path: 'scanned/:code', lazy: part(() => import('./scan/ScannedPage.tsx'), 'ScannedPage') },
          { path: 'build/board', lazy: part(() => import('./board/BoardPage.tsx'), 'BoardPage') },
          { path: 'build/tasks', lazy: part(() => import('./tasks/TasksPage.tsx'), 'TasksPage') },
          { path: 'build/repairs/:id?', lazy: part(() => import('./repairs/RepairsPage.tsx'), 'RepairsPage') },
          { path: 'build/:id?', lazy: part(() => import('./builds/BuildPage.tsx'), 'BuildPage') },
          {
            path: 'build/:id/finish',
            lazy: part(() => import('./builds/FinishPage.tsx'), 'FinishPage'),
          },
          {
            path: 'pick/orders/:id',
            lazy: part(() => import('./picking/PickPage.tsx'), 'PickOrderPage'),
          },
          { path: 'pick/runs/:id', lazy: part(() => import('./picking/RunPage.tsx'), 'RunPage') },
          { path: 'pick/:id?', lazy: part(() => import('./picking/PickPage.tsx'), 'PickPage') },
          {
            path: 'take-apart',
            lazy: part(() => import('./takeapart/ApartFrame.tsx'), 'ApartFrame'),
            children: [
              { index: true, lazy: part(() => import('./returns/ReturnedPage.tsx'), 'ReturnedPage') },
              { path: 'returns/:id?', lazy: part(() => import('./returns/ReturnsPage.tsx'), 'ReturnsPage') },
              { path: 'stock', lazy: part(() => import('./takeapart/TakeApartPage.tsx'), 'TakeApartPage') },
              { path: 'why', lazy: part(() => import('./returns/WhyPage.tsx'), 'WhyPage') },
            ],
          },
          {
            path: 'stock',
            lazy: part(() => import('./stock/StockPage.tsx'), 'StockPage'),
            children: [
              { index: true, element: <Navigate to="/stock/items" replace /> },
              { path: 'items/:id?', lazy: part(() => import('./items/ItemsPage.tsx'), 'ItemsPage') },
              { path: 'where', lazy: part(() => import('./stock/WherePage.tsx'), 'WherePage') },
              { path: 'lots', lazy: part(() => import('./tracking/LotsPage.tsx'), 'LotsPage') },
              { path: 'serials', lazy: part(() => import('./tracking/SerialsPage.tsx'), 'SerialsPage') },
              { path: 'serials/:id', lazy: part(() => import('./tracking/SerialPage.tsx'), 'SerialPage') },
              { path: 'units/:id?', element: <Renamed from="/stock/units" to="/stock/serials" /> },
              {
                path: 'movements',
                lazy: part(() => import('./ledger/MovementsPage.tsx'), 'MovementsPage'),
              },
              {
                path: 'documents/:id?',
                lazy: part(() => import('./ledger/DocumentsPage.tsx'), 'DocumentsPage'),
              },
              {
                path: 'receive',
                lazy: part(() => import('./buying/ReceivePage.tsx'), 'ReceivePage'),
              },
              {
                path: 'documents/:id/prices',
                lazy: part(() => import('./buying/PricesPage.tsx'), 'PricesPage'),
              },
              { path: 'revalue', lazy: part(() => import('./stock/RevaluePage.tsx'), 'RevaluePage') },
              {
                path: 'put-right',
                lazy: part(() => import('./stock/PutRightPage.tsx'), 'PutRightPage'),
              },
              { path: 'on-a-day', lazy: part(() => import('./stock/ThenPage.tsx'), 'ThenPage') },
              {
                path: 'counts/:id?',
                lazy: part(() => import('./counts/CountsPage.tsx'), 'CountsPage'),
              },
              { path: 'move', lazy: part(() => import('./stock/MovePage.tsx'), 'MovePage') },
              { path: 'adjust', lazy: part(() => import('./stock/AdjustPage.tsx'), 'AdjustPage') },
              { path: 'suppliers', element: <Navigate to="/buying/suppliers" replace /> },
              { path: 'in-out', lazy: part(() => import('./exchange/InOutPage.tsx'), 'InOutPage') },
              { path: 'places', lazy: part(() => import('./places/PlacesPage.tsx'), 'PlacesPage') },
            ],
          },
          {
            path: 'buying',
            lazy: part(() => import('./buying/BuyingPage.tsx'), 'BuyingPage'),
            children: [
              { index: true, lazy: part(() => import('./buying/BuyListPage.tsx'), 'BuyListPage') },
              { path: 'reorder', lazy: part(() => import('./buying/ReorderPage.tsx'), 'ReorderPage') },
              {
                path: 'orders/:id/receive',
                lazy: part(() => import('./buying/ReceiveOrderPage.tsx'), 'ReceiveOrderPage'),
              },
              {
                path: 'orders/:id?',
                lazy: part(() => import('./buying/OrdersPage.tsx'), 'OrdersPage'),
              },
              {
                path: 'suppliers/:id?',
                lazy: part(() => import('./buying/SuppliersPage.tsx'), 'SuppliersPage'),
              },
            ],
          },
          {
            path: 'devices',
            lazy: part(() => import('./devices/DevicesPage.tsx'), 'DevicesPage'),
            children: [
              { index: true, element: <Navigate to="/devices/printer" replace /> },
              {
                path: 'printer',
                lazy: part(() => import('./devices/PrinterPage.tsx'), 'PrinterPage'),
              },
              {
                path: 'scanner',
                lazy: part(() => import('./devices/ScannerPage.tsx'), 'ScannerPage'),
              },
              { path: 'scale', lazy: part(() => import('./devices/ScalePage.tsx'), 'ScalePage') },
              { path: 'shop', lazy: part(() => import('./devices/ShopPage.tsx'), 'ShopPage') },
              {
                path: 'mailbox',
                lazy: part(() => import('./devices/MailboxPage.tsx'), 'MailboxPage'),
              },
            ],
          },
          {
            path: 'print/:sheet/:id',
            lazy: part(() => import('./print/PrintPage.tsx'), 'PrintPage'),
          },
          { path: '*', element: <NotThere /> },
        ],
      },
    ],
  },
];
