import './nonce.ts';
import './zod.ts';
import '@fontsource-variable/hanken-grotesk/wght.css';
import '@fontsource-variable/brygada-1918/wght.css';
import { QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router';
import { queryClient } from './api/client.ts';
import { noteFetched } from './api/fetched.ts';
import { makeRouter } from './router.ts';
import { routes } from './routes.tsx';
import { GlobalStyle } from './ui/global.ts';
import { notify } from './ui/Notice.ts';
import { takeOverClosed, whenPutAside } from './ui/typed.ts';

noteFetched();
// Before anything asks for it; and again for a tab that was closed since.
await takeOverClosed();
window.addEventListener('focus', () => void takeOverClosed());
// A screen asks for it while it is drawn, when nothing else may be.
whenPutAside(() =>
  queueMicrotask(() =>
    notify({ text: 'What you entered here earlier can’t be used any more. Please enter it again.' }),
  ),
);
const root = document.getElementById('root');
if (root) {
  createRoot(root).render(
    <StrictMode>
      <GlobalStyle />
      <QueryClientProvider client={queryClient}>
        <RouterProvider router={makeRouter(routes)} />
      </QueryClientProvider>
    </StrictMode>,
  );
}
