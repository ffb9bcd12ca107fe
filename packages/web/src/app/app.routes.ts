import type { Routes } from '@angular/router';

/** The address names what is shown: screen, job, step, fate, row, sort and filter. */
export const routes: Routes = [
  { path: '', pathMatch: 'full', redirectTo: 'desk' },
  {
    path: 'desk',
    title: 'Desk · Crisp Sieve',
    loadComponent: () => import('./features/desk/desk').then((m) => m.Desk),
  },
  {
    path: 'jobs',
    title: 'Jobs · Crisp Sieve',
    loadComponent: () => import('./features/jobs/jobs').then((m) => m.Jobs),
  },
  {
    path: 'bring',
    title: 'Bring in · Crisp Sieve',
    loadComponent: () => import('./features/bring/bring').then((m) => m.Bring),
  },
  {
    path: 'jobs/:id/bring',
    title: 'Bring in · Crisp Sieve',
    loadComponent: () => import('./features/bring/bring').then((m) => m.Bring),
  },
  {
    path: 'bring/page',
    title: 'Bring in a page · Crisp Sieve',
    loadComponent: () => import('./features/harvest/harvest').then((m) => m.Harvest),
  },
  {
    path: 'jobs/:id/page',
    title: 'Bring in a page · Crisp Sieve',
    loadComponent: () => import('./features/harvest/harvest').then((m) => m.Harvest),
  },
  {
    path: 'jobs/:id/export',
    title: 'Export · Crisp Sieve',
    loadComponent: () => import('./features/export/export').then((m) => m.Export),
  },
  {
    path: 'jobs/:id/judge',
    title: 'Judge pairs · Crisp Sieve',
    loadComponent: () => import('./features/judge/judge').then((m) => m.Judge),
  },
  {
    path: 'jobs/:id',
    title: 'Job · Crisp Sieve',
    loadComponent: () => import('./features/job/job').then((m) => m.JobScreen),
  },
  {
    path: 'look-up',
    title: 'Look up · Crisp Sieve',
    loadComponent: () => import('./features/look-up/look-up').then((m) => m.LookUp),
  },
  {
    path: 'search',
    title: 'Searches · Crisp Sieve',
    loadComponent: () => import('./features/searches/searches').then((m) => m.Searches),
  },
  {
    path: 'search/:id',
    title: 'Search · Crisp Sieve',
    loadComponent: () => import('./features/search/search').then((m) => m.SearchScreen),
  },
  {
    path: 'pick-lists/:id',
    title: 'Pick list · Crisp Sieve',
    loadComponent: () => import('./features/picks/picks').then((m) => m.Picks),
  },
  {
    path: 'ledger',
    title: 'Ledger · Crisp Sieve',
    loadComponent: () => import('./features/ledger/ledger').then((m) => m.Ledger),
  },
  {
    path: 'runs',
    title: 'Runs · Crisp Sieve',
    loadComponent: () => import('./features/runs/runs').then((m) => m.Runs),
  },
  {
    path: 'settings',
    title: 'Settings · Crisp Sieve',
    loadComponent: () => import('./features/settings/settings').then((m) => m.SettingsScreen),
  },
  { path: '**', redirectTo: 'desk' },
];
