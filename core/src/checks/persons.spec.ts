import { spotOf, toYou } from './persons.js';
import { CHECKS } from './registry.js';

/** Every direction a check can say of any of its quantities. */
const directions = [...CHECKS.values()].flatMap((check) =>
  Object.entries(check.quantities).flatMap(([name, { words }]) =>
    words ? [words.plus, words.minus, words.movePlus, words.moveMinus].map((direction) => ({ of: `${check.id}/${name}`, direction })) : [],
  ),
);

describe('whoever stands at the machine', () => {
  it('is the operator in files, and "you" on a screen: of every direction, and of nothing else', () => {
    expect(directions.filter(({ direction }) => direction.includes('operator')).length).toBeGreaterThan(20);
    for (const { of, direction } of directions) {
      const screen = toYou(direction);
      expect(screen).withContext(of).not.toContain('operator');
      if (!direction.includes('operator')) expect(screen).withContext(of).toBe(direction);
      else
        expect(screen)
          .withContext(of)
          .toMatch(/\b(you|your)\b/);
    }
  });

  it('is spoken to in whole sentences', () => {
    expect(toYou('away from the operator')).toBe('away from you');
    expect(toYou('raising the operator’s side at the tailstock end')).toBe('raising your side at the tailstock end');
    expect(toYou('with its operator’s end toward the headstock')).toBe('with the end near you toward the headstock');
    expect(toYou('operator’s side high')).toBe('your side high');
  });

  it('is told where the needle is watched, and whether it is zeroed there', () => {
    expect(spotOf("on the quill, operator's side, zeroed")).toEqual({ place: 'on the quill, your side', zeroed: true });
    expect(spotOf("on the operator's side, the table left alone")).toEqual({ place: 'on your side, the table left alone', zeroed: false });
    expect(spotOf('on the right')).toEqual({ place: 'on the right', zeroed: false });
  });
});
