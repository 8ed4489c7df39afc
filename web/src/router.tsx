import { createBrowserRouter, Navigate } from 'react-router';
import { NotHere } from './pages/NotHere.tsx';
import { Shell } from './pages/Shell.tsx';

/** Each page and each stage is loaded when it is first opened. */
export const router = createBrowserRouter([
  {
    path: '/',
    element: <Shell />,
    errorElement: <NotHere />,
    hydrateFallbackElement: <p>One moment…</p>,
    children: [
      { index: true, lazy: async () => ({ Component: (await import('./pages/JobList.tsx')).JobList }) },
      {
        path: 'catalogue/:typeId?',
        lazy: async () => ({ Component: (await import('./pages/Catalogue.tsx')).Catalogue }),
      },
      {
        path: 'jobs/:jobId',
        lazy: async () => ({ Component: (await import('./pages/JobPage.tsx')).JobPage }),
        children: [
          { index: true, element: <Navigate to="site" replace /> },
          {
            path: 'site',
            lazy: async () => ({ Component: (await import('./stages/site/SiteStage.tsx')).SiteStage }),
          },
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
            path: 'compare',
            lazy: async () => ({
              Component: (await import('./stages/compare/CompareStage.tsx')).CompareStage,
            }),
          },
          {
            path: 'loads',
            lazy: async () => ({ Component: (await import('./stages/loads/LoadsStage.tsx')).LoadsStage }),
          },
          {
            path: 'partitions',
            lazy: async () => ({
              Component: (await import('./stages/partitions/PartitionsStage.tsx')).PartitionsStage,
            }),
          },
          {
            path: 'stack',
            lazy: async () => ({ Component: (await import('./stages/stack/StackStage.tsx')).StackStage }),
          },
          {
            path: 'limits',
            lazy: async () => ({ Component: (await import('./stages/limits/LimitsStage.tsx')).LimitsStage }),
          },
          {
            path: 'test',
            lazy: async () => ({ Component: (await import('./stages/test/TestStage.tsx')).TestStage }),
          },
        ],
      },
      { path: '*', element: <NotHere /> },
    ],
  },
]);
