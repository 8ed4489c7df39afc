import { type StageKey, STAGES } from '@bastion/core';
import type { ComponentType } from 'react';
import { createBrowserRouter, Navigate } from 'react-router';
import { NotHere } from './pages/NotHere.tsx';
import { Shell } from './pages/Shell.tsx';

/** The page of each stage: a stage of the table without one does not compile. */
const STAGE_PAGES: Readonly<Record<StageKey, () => Promise<ComponentType>>> = {
  site: async () => (await import('./stages/site/SiteStage.tsx')).SiteStage,
  loads: async () => (await import('./stages/loads/LoadsStage.tsx')).LoadsStage,
  partitions: async () => (await import('./stages/partitions/PartitionsStage.tsx')).PartitionsStage,
  stack: async () => (await import('./stages/stack/StackStage.tsx')).StackStage,
  wiring: async () => (await import('./stages/wiring/WiringStage.tsx')).WiringStage,
  limits: async () => (await import('./stages/limits/LimitsStage.tsx')).LimitsStage,
  rehearse: async () => (await import('./stages/rehearse/RehearseStage.tsx')).RehearseStage,
  test: async () => (await import('./stages/test/TestStage.tsx')).TestStage,
};

/** Each page and each stage is loaded when it is first opened. */
export const router = createBrowserRouter([
  {
    path: '/',
    element: <Shell />,
    errorElement: <NotHere />,
    hydrateFallbackElement: <p>One moment…</p>,
    children: [
      { index: true, lazy: async () => ({ Component: (await import('./pages/JobList.tsx')).JobList }) },
      { path: 'people', lazy: async () => ({ Component: (await import('./pages/People.tsx')).People }) },
      { path: 'account', lazy: async () => ({ Component: (await import('./pages/Account.tsx')).Account }) },
      { path: 'join/:token', lazy: async () => ({ Component: (await import('./pages/Join.tsx')).Join }) },
      {
        path: 'catalogue/:typeId?',
        lazy: async () => ({ Component: (await import('./pages/Catalogue.tsx')).Catalogue }),
      },
      {
        path: 'jobs/:jobId',
        lazy: async () => ({ Component: (await import('./pages/JobPage.tsx')).JobPage }),
        children: [
          { index: true, element: <Navigate to="site" replace /> },
          ...STAGES.map(({ key }) => ({
            path: key,
            lazy: async () => ({ Component: await STAGE_PAGES[key]() }),
          })),
          {
            path: 'site/wall',
            lazy: async () => ({ Component: (await import('./stages/site/WallStage.tsx')).WallStage }),
          },
          {
            path: 'site/delivery',
            lazy: async () => ({
              Component: (await import('./stages/site/DeliveryStage.tsx')).DeliveryStage,
            }),
          },
          {
            path: 'test/site',
            lazy: async () => ({
              Component: (await import('./stages/test/site/SitePage.tsx')).SitePage,
            }),
          },
          {
            path: 'test/faults',
            lazy: async () => ({
              Component: (await import('./stages/test/faults/FaultPage.tsx')).FaultPage,
            }),
          },
          {
            path: 'test/capture',
            lazy: async () => ({
              Component: (await import('./stages/test/capture/CapturePage.tsx')).CapturePage,
            }),
          },
          {
            path: 'wiring/landing',
            lazy: async () => ({
              Component: (await import('./stages/wiring/onSite/LandingPage.tsx')).LandingPage,
            }),
          },
          {
            path: 'wiring/links',
            lazy: async () => ({
              Component: (await import('./stages/wiring/onSite/LinkPage.tsx')).LinkPage,
            }),
          },
          {
            path: 'wiring/read-back',
            lazy: async () => ({
              Component: (await import('./stages/wiring/onSite/SettingPage.tsx')).SettingPage,
            }),
          },
          {
            path: 'wiring/built',
            lazy: async () => ({
              Component: (await import('./stages/wiring/onSite/AsBuiltPage.tsx')).AsBuiltPage,
            }),
          },
          {
            path: 'wiring/:kind',
            lazy: async () => ({
              Component: (await import('./stages/wiring/schedules/SchedulePage.tsx')).SchedulePage,
            }),
          },
          {
            path: 'revisions',
            lazy: async () => ({
              Component: (await import('./stages/revisions/RevisionsPage.tsx')).RevisionsPage,
            }),
          },
          {
            path: 'compare',
            lazy: async () => ({
              Component: (await import('./stages/compare/CompareStage.tsx')).CompareStage,
            }),
          },
        ],
      },
      { path: '*', element: <NotHere /> },
    ],
  },
]);
