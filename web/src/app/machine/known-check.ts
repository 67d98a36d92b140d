import { inject } from '@angular/core';
import { Router, type ActivatedRouteSnapshot, type CanActivateFn } from '@angular/router';

/** An address with a check that there is not, typed or out of another version, leads to the ways to check of its machine. */
export const knownCheck: CanActivateFn = async (route: ActivatedRouteSnapshot) => {
  const router = inject(Router);
  const { CHECKS } = await import('@isometra/core');
  const machineId = String(route.parent?.params['machineId'] ?? '');
  return CHECKS.has(String(route.params['checkId'])) || router.createUrlTree(['/machines', machineId]);
};
