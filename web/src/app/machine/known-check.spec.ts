import { ChangeDetectionStrategy, Component } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import { RouterTestingHarness } from '@angular/router/testing';
import { knownCheck } from './known-check';

@Component({ template: '', changeDetection: ChangeDetectionStrategy.OnPush })
class Empty {}

describe('an address with a check', () => {
  it('stays where there is such a check; else it leads to the ways to check of the machine', async () => {
    const children = [
      { path: '', component: Empty, pathMatch: 'full' as const },
      { path: 'rounds/:checkId', canActivate: [knownCheck], component: Empty },
    ];
    TestBed.configureTestingModule({ providers: [provideRouter([{ path: 'machines/:machineId', children }])] });
    const harness = await RouterTestingHarness.create();
    await harness.navigateByUrl('/machines/m1/rounds/bed-twist');
    expect(TestBed.inject(Router).url).toBe('/machines/m1/rounds/bed-twist');
    await harness.navigateByUrl('/machines/m1/rounds/no-such-check');
    expect(TestBed.inject(Router).url).toBe('/machines/m1');
  });
});
