import { ChangeDetectionStrategy, Component } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Again } from './again';

@Component({ imports: [Again], changeDetection: ChangeDetectionStrategy.OnPush, template: '<img isoAgain alt="" />' })
class Host {}

describe('a picture that is not there yet', () => {
  it('is asked for again a while later, at its address of then, and not for ever', async () => {
    jasmine.clock().install();
    try {
      const fixture = TestBed.createComponent(Host);
      await fixture.whenStable();
      const image = (fixture.nativeElement as HTMLElement).querySelector('img') as HTMLImageElement;
      const asked: string[] = [];
      let address = 'http://here/picture';
      Object.defineProperty(image, 'src', { get: () => address, set: (next: string) => asked.push(next) });
      for (let i = 0; i < 9; i++) {
        image.dispatchEvent(new Event('error'));
        jasmine.clock().tick(100_000);
      }
      expect(asked.length).toBe(6);
      // One that loaded may fail anew; one that got another address meanwhile is left alone.
      image.dispatchEvent(new Event('load'));
      image.dispatchEvent(new Event('error'));
      address = 'blob:http://here/own';
      jasmine.clock().tick(100_000);
      expect(asked.length).toBe(6);
    } finally {
      jasmine.clock().uninstall();
    }
  });
});
