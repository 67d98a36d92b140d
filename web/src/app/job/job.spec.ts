import { TestBed } from '@angular/core/testing';
import { planLeavesWords, readInstrument, type Instrument } from '@isometra/core';
import { needleWords, targetOf, targetsOfDials } from './job-texts';
import { ShimTemplates, boltsOf } from './shim-templates';

const words = { size: (um: number) => `${(um / 1000).toFixed(3)} mm`, landsIn: (um: number) => um < 100 };

describe('job card texts', () => {
  it('name the leaves, or the nearest below and above', () => {
    expect(planLeavesWords({ leaves: [100, 20] }, words)).toBe('0.100 mm + 0.020 mm');
    const near = { below: { leaves: [50], total: 50, error: -70 }, above: { leaves: [200], total: 200, error: 80 } };
    expect(planLeavesWords({ leaves: null, ...near }, words)).toBe(
      'nothing in the drawer fits; nearest 0.050 mm (0.050 mm, too thin, within limits) or 0.200 mm (0.200 mm, too thick, still out)',
    );
    expect(planLeavesWords({ leaves: null, below: null, above: null }, words)).toBe('nothing in the drawer fits');
    expect(planLeavesWords({}, words)).toBeUndefined();
  });
  it('give the needle what can be read on it', () => {
    const dial = { kind: 'lever', graduation: 2, leverAngle: 0, sense: -1, readTo: 0.5 } as Instrument;
    expect(targetOf({ now: 0, target: 10.4, unit: 'div' }, dial)).toEqual({ now: 0, target: 10.5 });
    expect(targetOf({ now: 0, target: 21, unit: 'um' }, dial)).toEqual(jasmine.objectContaining({ target: -10.5 }));
    expect(targetOf({ now: 0, target: 21, unit: 'um' }, { ...dial, kind: 'micrometer' })).toBeNull();
    expect(needleWords({ now: 0, target: -10.5 })).toBe('10.5 div from zero, counting down');
    expect(needleWords({ now: 30, target: 15 })).toBe('from 30 to 15 div, counting down');
  });
});

describe('shim templates', () => {
  const base = { length: 160, width: 90, bolt: 12, bolts: 2 };
  it('put the bolts in a row along the middle', () => {
    expect(boltsOf(base).map(({ x, y }) => [Math.round(x), y])).toEqual([
      [53, 45],
      [107, 45],
    ]);
    expect(boltsOf({ length: 160, width: 90 })).toEqual([]);
  });
  it('offer the file of what is drawn', async () => {
    const fixture = TestBed.createComponent(ShimTemplates);
    fixture.componentRef.setInput('base', base);
    await fixture.whenStable();
    const element = fixture.nativeElement as HTMLElement;
    expect(element.querySelectorAll('circle').length).toBe(2);
    let blob: Blob | undefined;
    spyOn(URL, 'createObjectURL').and.callFake((made) => ((blob = made as Blob), 'blob:x'));
    spyOn(HTMLAnchorElement.prototype, 'click');
    element.querySelector('button')?.click();
    const svg = new DOMParser().parseFromString((await blob?.text()) ?? '', 'image/svg+xml').documentElement;
    expect(svg.getAttribute('width')).toBe('160mm');
    expect(svg.querySelectorAll('circle').length).toBe(2);
  });
  it('say what is missing', async () => {
    const fixture = TestBed.createComponent(ShimTemplates);
    fixture.componentRef.setInput('base', { length: 10, width: 10, bolt: 12 });
    await fixture.whenStable();
    expect((fixture.nativeElement as HTMLElement).textContent).toContain('does not lie within the base');
  });
});

describe('a way pulled over at two ends', () => {
  it('has a target for each dial', () => {
    const { instrument } = readInstrument({ kind: 'lever', graduation: 2, sense: -1 });
    expect(targetsOfDials('pull', { near: 0, far: -30 }, instrument)).toEqual([
      { where: 'Dial at the near end', now: 0, target: 0 },
      { where: 'Dial at the far end', now: 0, target: 15 },
    ]);
    expect(targetsOfDials('adjuster', { turns: 1 }, instrument)).toEqual([]);
    expect(targetsOfDials('pull', { near: 1, far: 2 }, undefined)).toEqual([]);
  });
});
