import { effect, signal, untracked, type Signal, type Type } from '@angular/core';
import type { Drawing, Picture } from '@isometra/core';

/** Drawings by the name that a check asks for, loaded when they are first drawn. */
export const DRAWINGS: Readonly<Record<Drawing, () => Promise<Type<unknown>>>> = {
  'bar-between-centres': () => import('./bar-between-centres').then((part) => part.BarBetweenCentres),
  'turned-bar': () => import('./turned-bar').then((part) => part.TurnedBar),
  'bed-in-plan': () => import('./bed-in-plan').then((part) => part.BedInPlan),
  'way-from-the-side': () => import('./way-from-the-side').then((part) => part.WayFromTheSide),
  'table-in-plan': () => import('./table-in-plan').then((part) => part.TableInPlan),
  'turret-flat': () => import('./turret-flat').then((part) => part.TurretFlat),
  'tailstock-way': () => import('./tailstock-way').then((part) => part.TailstockWay),
  quill: () => import('./quill').then((part) => part.Quill),
  'column-in-elevation': () => import('./column-in-elevation').then((part) => part.ColumnInElevation),
  'faced-disc': () => import('./faced-disc').then((part) => part.FacedDisc),
  'bar-in-vees': () => import('./bar-in-vees').then((part) => part.BarInVees),
  'push-pull': () => import('./push-pull').then((part) => part.PushPull),
  'bar-in-spindle': () => import('./bar-in-spindle').then((part) => part.BarInSpindle),
  'head-over-table': () => import('./head-over-table').then((part) => part.HeadOverTable),
  'headstock-side': () => import('./headstock-side').then((part) => part.HeadstockSide),
  'seat-corners': () => import('./seat-corners').then((part) => part.SeatCorners),
  'square-in-plan': () => import('./square-in-plan').then((part) => part.SquareInPlan),
  'swept-circle': () => import('./swept-circle').then((part) => part.SweptCircle),
  places: () => import('./places').then((part) => part.Places),
};

/** The drawing that a check asks for. */
export const drawingOf = ({ drawing }: Picture): Promise<Type<unknown>> => DRAWINGS[drawing]();

/** The drawing of what is on the screen, null until it is loaded. */
export function loadedDrawing(picture: () => Picture | undefined): Signal<Type<unknown> | null> {
  const drawing = signal<Type<unknown> | null>(null);
  effect(() => {
    const wanted = picture();
    untracked(() => drawing.set(null));
    if (wanted) void drawingOf(wanted).then((type) => drawing.set(type));
  });
  return drawing.asReadonly();
}
