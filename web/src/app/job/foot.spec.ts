import { CHECKS, type Part } from '@isometra/core';
import { deskOfFoot, footUnder, suitsSentence, type FootUnder } from './foot';

const COLUMN = CHECKS.get('column-lean')?.part as Part;
const CARD = { foot: { across: 180, along: 240, dowels: true } };
const under = (quantity = 'leanX', amount = -300) => footUnder(COLUMN, CARD, quantity, amount) as FootUnder;
const size = (um: number) => `${um.toFixed(1)} µm`;
const to = { machineId: 'm', aim: 'column-lean/leanX', high: 'the left side', faces: [] };

describe('the foot under a column', () => {
  it('is as long as its lean goes; of another part, and where the card is silent, there is none', () => {
    expect([under().length, under().wedge]).toEqual([180, 54]);
    expect([under('leanY').length, under('leanY').wedge]).toEqual([240, 72]);
    expect(footUnder(COLUMN, {}, 'leanX', 1)).toBeUndefined();
    expect(footUnder({ name: 'tailstock', faces: '' }, CARD, 'leanX', 1)).toBeUndefined();
  });

  it('its strips lead to a desk that knows size, wedge, high side and lever; to the one that is there, where one is', () => {
    const desk = deskOfFoot(under(), to);
    expect(desk?.link).toEqual(['/machines', 'm', 'scraping', 'new']);
    expect(desk?.params).toEqual({
      ...{ name: 'Base under the column', part: 'column', width: '180 mm', height: '240 mm' },
      ...{ wedge: '54.0', high: 'left', aim: 'column-lean/leanX', lever: '5.56' },
    });
    expect(deskOfFoot(under('leanY'), { ...to, high: 'the rear' })?.params['high']).toBe('far');
    const faces = [{ id: 'f', name: 'Base under the column' }];
    expect(deskOfFoot(under(), { ...to, faces })?.link).toEqual(['/machines', 'm', 'scraping', 'f']);
    expect(deskOfFoot(under(), { ...to, high: undefined }))
      .withContext('rather no desk than the wrong side')
      .toBeNull();
  });

  it('what is too small for a grind or a shim says which means suits, and what it costs', () => {
    expect(suitsSentence('sine-stack', 4, undefined, size)).toBe(
      'Over the foot it is 4.0 µm, and a grind takes 20.0 µm at least: that is the wrong means. Scraping suits: one pass over the high side, about 25 min with blue, besides opening the joint.',
    );
    expect(suitsSentence('shim-leaves', 2, [{ thickness: '0.05 mm', count: 4 }], size)).toContain(
      'leave it, unless the joint is open anyway',
    );
    expect(suitsSentence('shim-leaves', 40, [{ thickness: '0.05 mm', count: 4 }], size)).toBe('');
  });
});
