import type { Routes } from '@angular/router';
import { knownCheck } from './machine/known-check';

export const routes: Routes = [
  { path: '', pathMatch: 'full', redirectTo: 'machines' },
  {
    path: 'machines',
    title: 'Machines · Isometra',
    loadComponent: () => import('./machines/machine-list').then((part) => part.MachineList),
  },
  {
    path: 'machines/new',
    title: 'New machine · Isometra',
    loadComponent: () => import('./machines/machine-card').then((part) => part.MachineCardForm),
  },
  {
    path: 'machines/:machineId/card',
    title: 'Machine card · Isometra',
    loadComponent: () => import('./machines/machine-card').then((part) => part.MachineCardForm),
  },
  {
    path: 'machines/:machineId/scraping/:surfaceId',
    pathMatch: 'full',
    canMatch: [(_route: unknown, segments: readonly { readonly path: string }[]) => segments.length === 4 && segments[3].path !== 'new'],
    title: 'Scraping · Isometra',
    loadComponent: () => import('./scraping/scraping-desk').then((part) => part.ScrapingDesk),
  },
  {
    path: 'machines/:machineId',
    loadComponent: () => import('./machine/machine-frame').then((part) => part.MachineFrame),
    children: [
      {
        path: '',
        pathMatch: 'full',
        title: 'Ways to check · Isometra',
        loadComponent: () => import('./machine/methods').then((part) => part.Methods),
      },
      { path: 'survey', title: 'Survey · Isometra', loadComponent: () => import('./survey/survey').then((part) => part.Survey) },
      {
        path: 'campaign',
        title: 'This survey · Isometra',
        loadComponent: () => import('./survey/campaign').then((part) => part.Campaign),
      },
      {
        path: 'by-hand/:stepId',
        title: 'By hand · Isometra',
        loadComponent: () => import('./survey/by-hand').then((part) => part.ByHandStep),
      },
      {
        path: 'to-come',
        title: 'Bearings and planned changes · Isometra',
        loadComponent: () => import('./planned/planned-page').then((part) => part.PlannedPage),
      },
      {
        path: 'castings/:castingId',
        title: 'Faces · Isometra',
        loadComponent: () => import('./supports/seat-plan').then((part) => part.SeatPlan),
      },
      {
        path: 'bench/:checkId',
        canActivate: [knownCheck],
        title: 'Set up a round · Isometra',
        loadComponent: () => import('./bench/begin').then((part) => part.Begin),
      },
      {
        path: 'bench/:checkId/:roundId/table',
        title: 'Readings from a table · Isometra',
        loadComponent: () => import('./table-in/readings-page').then((part) => part.ReadingsPage),
      },
      {
        path: 'bench/:checkId/:roundId',
        title: 'Bench · Isometra',
        loadComponent: () => import('./bench/bench').then((part) => part.Bench),
      },
      {
        path: 'move/:roundId/:quantity',
        title: 'Move · Isometra',
        loadComponent: () => import('./job/job-card').then((part) => part.JobCard),
      },
      { path: 'scraping', title: 'Scraping · Isometra', loadComponent: () => import('./scraping/faces').then((part) => part.Faces) },
      {
        path: 'scraping/new',
        title: 'A face to scrape · Isometra',
        loadComponent: () => import('./scraping/face-form').then((part) => part.FaceForm),
      },
      {
        path: 'scraping/:surfaceId/face',
        title: 'A face to scrape · Isometra',
        loadComponent: () => import('./scraping/face-form').then((part) => part.FaceForm),
      },
      {
        path: 'parts',
        title: 'Strip-down and assembly · Isometra',
        loadComponent: () => import('./stripdown/strip-downs').then((part) => part.StripDownList),
      },
      {
        path: 'parts/:stripDownId',
        title: 'Strip-down · Isometra',
        loadComponent: () => import('./stripdown/strip-down-page').then((part) => part.StripDownPage),
      },
      { path: 'plan', title: 'Plan · Isometra', loadComponent: () => import('./plan/plan-page').then((part) => part.PlanPage) },
      {
        path: 'worth-it',
        title: 'Worth it? · Isometra',
        loadComponent: () => import('./plan/worth-it-page').then((part) => part.WorthItPage),
      },
      { path: 'tonight', title: 'Tonight · Isometra', loadComponent: () => import('./plan/tonight-page').then((part) => part.TonightPage) },
      {
        path: 'compare',
        title: 'Before and after · Isometra',
        loadComponent: () => import('./survey/compare').then((part) => part.Compare),
      },
      { path: 'logbook', title: 'Logbook · Isometra', loadComponent: () => import('./notebook/logbook').then((part) => part.Logbook) },
      {
        path: 'rounds/:checkId',
        canActivate: [knownCheck],
        title: 'Rounds · Isometra',
        loadComponent: () => import('./rounds/history').then((part) => part.History),
      },
    ],
  },
  { path: 'limits', pathMatch: 'full', redirectTo: 'limits/general' },
  {
    path: 'limits/:sheetId',
    title: 'Limits · Isometra',
    loadComponent: () => import('./limits/limit-list').then((part) => part.LimitList),
  },
  { path: 'planner', title: 'Planner · Isometra', loadComponent: () => import('./plan/board-page').then((part) => part.BoardPage) },
  { path: 'due', title: 'What is due · Isometra', loadComponent: () => import('./plan/due-page').then((part) => part.DuePage) },
  { path: 'kit', title: 'Kit · Isometra', loadComponent: () => import('./kit/kit-list').then((part) => part.KitList) },
  { path: 'logbook', title: 'Logbook · Isometra', loadComponent: () => import('./notebook/logbook').then((part) => part.Logbook) },
  { path: 'files', title: 'Files · Isometra', loadComponent: () => import('./files/files-page').then((part) => part.FilesPage) },
  {
    path: 'files/table/:of',
    title: 'From a table · Isometra',
    loadComponent: () => import('./table-in/things-page').then((part) => part.ThingsPage),
  },
  {
    path: 'moves',
    title: 'Work out a move · Isometra',
    loadComponent: () => import('./moves/move-page').then((part) => part.MovePage),
  },
  { path: 'shop', title: 'The shop · Isometra', loadComponent: () => import('./shop/shop-page').then((part) => part.ShopPage) },
  {
    path: 'parts',
    title: 'Parts needed · Isometra',
    loadComponent: () => import('./stripdown/needed-page').then((part) => part.NeededPage),
  },
  { path: '**', redirectTo: 'machines' },
];
