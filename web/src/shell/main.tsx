import '@fontsource-variable/atkinson-hyperlegible-mono';
import '@fontsource-variable/atkinson-hyperlegible-next';
import '@mantine/core/styles.css';
import '@mantine/spotlight/styles.css';
import './base.css';
import './frame.css';
import { localStorageColorSchemeManager, MantineProvider } from '@mantine/core';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { Bench } from '../steps/bench/bench.js';
import { Kit } from '../steps/kit/kit.js';
import { PowerRoom } from '../steps/power/power.js';
import { Proof } from '../steps/proof/proof.js';
import { Merge } from '../steps/merge/merge.js';
import { Rigs } from '../steps/rigs/rigs.js';
import { Routing } from '../steps/routing/routing.js';
import { Program } from '../steps/program/program.js';
import { SetRoom } from '../steps/set/set.js';
import { Drill } from '../steps/drill/drill.js';
import { Stage } from '../steps/stage/stage.js';
import { Sounds } from '../steps/sounds/sounds.js';
import { Broken } from './broken.js';
import { Frame } from './frame.js';
import { theme } from './theme.js';
import { surely } from '@yunta/core/known/the';

const router = createBrowserRouter([
  { path: '/', Component: Rigs, ErrorBoundary: Broken },
  {
    path: '/rig/:rigId',
    Component: Frame,
    ErrorBoundary: Broken,
    children: [
      { index: true, element: <Navigate to="sounds" replace /> },
      { path: 'kit', Component: Kit },
      { path: 'power', Component: PowerRoom },
      { path: 'routing', Component: Routing },
      { path: 'sounds', Component: Sounds },
      { path: 'levels', lazy: async () => ({ Component: (await import('../steps/levels/levels.js')).LevelsRoom }) },
      { path: 'set', Component: SetRoom },
      { path: 'program', Component: Program },
      { path: 'proof', Component: Proof },
      { path: 'bench', Component: Bench },
      { path: 'build', lazy: async () => ({ Component: (await import('../steps/build/build.js')).Build }) },
      { path: 'road', lazy: async () => ({ Component: (await import('../steps/road/road.js')).Road }) },
      { path: 'merge', Component: Merge },
    ],
  },
  { path: '/rig/:rigId/stage', Component: Stage, ErrorBoundary: Broken },
  { path: '/rig/:rigId/drill', Component: Drill, ErrorBoundary: Broken },
  { path: '*', element: <Navigate to="/" replace /> },
]);

const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false } } });

/** A page that was just opened goes on with the newer application that has come; one that is in use is left alone. */
const JUST_OPENED_MS = 10_000;
const { serviceWorker } = navigator as Partial<Navigator>;
if (serviceWorker?.controller)
  serviceWorker.addEventListener('controllerchange', () => {
    if (performance.now() < JUST_OPENED_MS) location.reload();
  });

createRoot(surely(document.getElementById('root'))).render(
  <StrictMode>
    <MantineProvider
      theme={theme}
      defaultColorScheme="auto"
      colorSchemeManager={localStorageColorSchemeManager({ key: 'yunta-theme' })}
    >
      <QueryClientProvider client={queries}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </MantineProvider>
  </StrictMode>,
);
