import { cardSince } from './cardSince.js';

describe('what of a machine card was changed since a round', () => {
  const card = { number: 'L-14', kind: 'engine-lathe', nickname: 'long', adjuster: { pitch: '1.5 mm' } };

  it('tells what its moves are planned from, in the words of the card, and nothing else', () => {
    const now = { ...card, nickname: 'the long one', adjuster: { pitch: '2 mm' } };
    const told = cardSince('tailstock-traverse', card, now);
    expect(told.map(({ from, to }) => [from, to])).toEqual([['1.5 mm', '2 mm']]);
    expect(told[0].field).toMatch(/pitch/i);
  });

  it('what another check plans its moves from is nothing to this one', () => {
    expect(cardSince('spindle-run', card, { ...card, adjuster: { pitch: '2 mm' } })).toEqual([]);
    expect(cardSince('tailstock-traverse', card, { ...card, nickname: 'other' })).toEqual([]);
  });

  it('what was not given then, or is no longer, is told as that', () => {
    const { adjuster: _gone, ...bare } = card;
    expect(cardSince('tailstock-traverse', bare, card).map(({ from, to }) => [from, to])).toEqual([[null, '1.5 mm']]);
    expect(cardSince('tailstock-traverse', card, bare).map(({ from, to }) => [from, to])).toEqual([['1.5 mm', null]]);
  });
});
