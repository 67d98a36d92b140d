import { inject } from '@angular/core';
import { Router } from '@angular/router';

/** What the address does not say is nothing: for inputs that are taken from it. */
export const orNothing = (value: string | undefined): string => value ?? '';

/** Change what is asked for: the address says it, what is empty is left out of it. Called where it may inject. */
export function asking(): (change: Readonly<Record<string, string | undefined>>) => void {
  const router = inject(Router);
  return (change) => {
    const queryParams = Object.fromEntries(Object.entries(change).map(([name, value]) => [name, value || null]));
    void router.navigate([], { queryParams, queryParamsHandling: 'merge', replaceUrl: true });
  };
}
