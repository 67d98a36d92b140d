import { DOCUMENT } from '@angular/common';
import { inject, provideEnvironmentInitializer, type EnvironmentProviders } from '@angular/core';

/** How far a pointer may stray, in CSS pixels, and still mean the button it went down on. */
const STRAY = 12;

/**
 * A press belongs to the button it began on. A field that is left settles what was typed, a fault that is no longer
 * true goes, and the button moves away under the finger: without this the browser drops the press, and what was typed
 * looks kept and is not. Dragging off a button still lets it go.
 */
export function providePressThatHolds(): EnvironmentProviders {
  return provideEnvironmentInitializer(() => holdPresses(inject(DOCUMENT)));
}

/** Listens on the whole page; returns what ends it. */
export function holdPresses(page: Document): () => void {
  let held: { target: Element; pointer: number; x: number; y: number } | null = null;

  const down = (event: PointerEvent): void => {
    const target = (event.target as Element | null)?.closest('button, a[href], [role="tab"]');
    held = null;
    if (!target || event.button !== 0 || !event.isPrimary) return;
    held = { target, pointer: event.pointerId, x: event.clientX, y: event.clientY };
    try {
      target.setPointerCapture(event.pointerId);
    } catch {
      held = null; // a pointer that is no longer there
    }
  };
  const move = (event: PointerEvent): void => {
    if (!held || event.pointerId !== held.pointer) return;
    if (Math.hypot(event.clientX - held.x, event.clientY - held.y) <= STRAY) return;
    if (held.target.hasPointerCapture(held.pointer)) held.target.releasePointerCapture(held.pointer);
    held = null;
  };

  page.addEventListener('pointerdown', down, true);
  page.addEventListener('pointermove', move, true);
  return () => {
    page.removeEventListener('pointerdown', down, true);
    page.removeEventListener('pointermove', move, true);
  };
}
