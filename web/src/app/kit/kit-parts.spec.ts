import { Kit } from '../data/kit';
import { TestBed } from '@angular/core/testing';
import type { KitItem } from '@isometra/contract';
import { dial, openShop, show, until, refusal, DIAL } from '../testing/fake-shop';
import { Finder } from './finder';
import { HolderCheck } from './holder-check';
import { KitCard } from './kit-card';
import { KitList } from './kit-list';
import { dueWords, shortOf } from './kit-texts';
import { AtHand } from '../shell/at-hand';
import { smallPhoto } from '../ui/small-photo';

const piece = (kind: KitItem['kind'], data: object, care: KitItem['care'] = {}): KitItem => ({
  ...dial(),
  id: kind,
  kind,
  name: `My ${kind}`,
  data: { ...data },
  care,
});

describe('a piece of kit in a line', () => {
  it('says what matters of each kind', () => {
    expect(shortOf(piece('holder', { sag: '-12 um' }))).toBe('droops 12 µm top to bottom');
    expect(shortOf(piece('holder', {}))).toBe('droop not measured');
    expect(shortOf(piece('test-bar', { diameter: '32 mm', bend: '2 um' }))).toBe('⌀ 32 mm, ground, bend 2 µm');
    expect(shortOf(piece('straightedge', { length: '900 mm', straightness: '4 um' }))).toBe('900 mm, straight within 4 µm');
    expect(shortOf(piece('square', { blade: '300 mm' }))).toBe('300 mm, error not known');
    expect(shortOf(piece('pins', { diameter: '10 mm' }))).toBe('⌀ 10 mm');
    expect(shortOf(piece('blocks', { height: '50 mm', matched: true }))).toBe('50 mm, matched pair');
    expect(shortOf(piece('shim-stock', { stock: [] }))).toBe('empty');
  });

  it('says when it is due, when that is near', () => {
    const due = (day: string) => dueWords({ care: { due: day } }, '2026-03-10');
    expect(due('2026-03-09')).toBe('overdue by 1 day');
    expect(due('2026-03-10')).toBe('due today');
    expect(due('2026-04-01')).toBe('due in 22 days');
    expect(due('2027-01-01')).toBe('');
  });
});

describe('the droop of a holder', () => {
  const open = async () => {
    await openShop();
    const check = await show(HolderCheck);
    const kept: string[] = [];
    check.fixture.componentInstance.measured.subscribe((sag) => kept.push(sag));
    const put = async (label: string, text: string) => {
      const input = check.element.querySelector<HTMLInputElement>(`[aria-label="${label}"]`) as HTMLInputElement;
      input.value = text;
      input.dispatchEvent(new Event('input'));
      await check.fixture.whenStable();
    };
    return { check, kept, put };
  };

  it('is what it reads at the bottom, with the dial’s wandering shared', async () => {
    const { check, kept, put } = await open();
    await put('Reads at the bottom', '-0.021');
    await put('Back at the top', '-2 um');
    await check.press('Keep -20 µm for this holder');
    expect(kept).toEqual(['-20 µm']);
  });

  it('is not taken when something slipped, was read the wrong way or is no reading', async () => {
    const { check, put } = await open();
    await put('Reads at the bottom', '0.02 mm');
    expect(check.text()).toContain('It reads more at the bottom');
    await put('Reads at the bottom', '-0.02 mm');
    await put('Back at the top', '0.01 mm');
    expect(check.text()).toContain('something slipped');
    await put('Reads at the bottom', 'low');
    expect(check.text()).toContain('"low" is not a small distance');
    expect(check.all('button').length).toBe(0);
  });
});

describe('the finder', () => {
  it('puts the finest instrument first and says what repeats would do', async () => {
    await openShop();
    const kit = [
      dial(),
      { ...dial(), id: 'rough', name: 'Rough dial', data: { kind: 'plunger', graduation: '0.01 mm', accuracy: '1 um' } },
    ];
    const finder = await show(Finder, { kit });
    await finder.pick('Quantity', 'Bar between centres: Tailstock sideways');
    const rows = finder.all('li').map((row) => row.textContent?.replace(/\s+/g, ' ').trim());
    expect(rows[0]).toContain('Lever dial');
    expect(rows[0]).toContain('fine enough');
    expect(rows[1]).toContain('with each place read 2 times');
    const width = finder.element.querySelector<HTMLInputElement>('[aria-label="Zone, from end to end"]') as HTMLInputElement;
    expect(width.value).toBe('0.03 mm');
    width.value = 'narrow';
    width.dispatchEvent(new Event('change'));
    await finder.fixture.whenStable();
    expect(finder.text()).toContain('Zone "narrow" is not a small distance');
  });
});

describe('the finder at first', () => {
  it('asks about the check that came next on the machine that was open last, else about a bar between centres', async () => {
    await openShop();
    const first = await show(Finder, { kit: [dial()] });
    expect(first.text()).toContain('Bar between centres: Tailstock sideways');
    TestBed.inject(AtHand).nextCheck.set('bed-twist');
    await first.fixture.whenStable();
    expect(first.text()).toContain('Bed twist');
  });
});

describe('kit with its care', () => {
  it('what is overdue is told first, and kinds stand together', async () => {
    await openShop([], { prepare: ({ kit }) => void kit.push(piece('square', { blade: '300 mm' }, { due: '2020-01-01' })) });
    const list = await show(KitList);
    expect(list.text()).toMatch(/Check before use My square: overdue by \d+ days/);
    expect(list.text()).toContain('Squares My square');
  });

  it('a new piece of any kind asks what it needs', async () => {
    const { server } = await openShop();
    const list = await show(KitList);
    await list.pick('Add to the kit', 'a test bar');
    await list.type('Name', 'Long bar');
    await list.press('Save');
    expect(list.text()).toContain('Diameter is missing');
    await list.type('Diameter', '32');
    await list.type('Due again on', 'soon');
    await list.press('Save');
    expect(list.text()).toContain('must be a date');
    await list.type('Due again on', '2027-01-31');
    await list.press('Save');
    expect(server.sent[0].body).toEqual(
      jasmine.objectContaining({ kind: 'test-bar', data: { diameter: '32 mm' }, care: { due: '2027-01-31' } }),
    );
  });

  it('a note of the last check is put to those before it', async () => {
    const { server } = await openShop();
    const care = { notes: [{ at: '2026-01-01', by: 'RM', text: 'new' }] };
    const card = await show(KitCard, { item: piece('pins', { diameter: '10 mm' }, care) });
    await card.press('Change My pins');
    const note = card.element.querySelector<HTMLInputElement>('[aria-label="Last checked: a note"]') as HTMLInputElement;
    note.value = 'still alike';
    note.dispatchEvent(new Event('input'));
    await card.press('Save');
    const sent = (server.sent[0].body as KitItem).care.notes ?? [];
    expect(sent.map((entry) => [entry.by, entry.text])).toEqual([
      ['RM', 'new'],
      ['HB', 'still alike'],
    ]);
  });

  it('a measured droop is kept with the holder', async () => {
    const { server } = await openShop();
    const card = await show(KitCard, { item: piece('holder', {}) });
    await card.press('Change My holder');
    const bottom = card.element.querySelector<HTMLInputElement>('[aria-label="Reads at the bottom"]') as HTMLInputElement;
    bottom.value = '-0.012 mm';
    bottom.dispatchEvent(new Event('input'));
    await card.fixture.whenStable();
    await card.press('Keep -12 µm for this holder');
    await card.press('Save');
    expect(server.sent[0].body).toEqual(jasmine.objectContaining({ data: { sag: '-12 µm' } }));
    expect((server.sent[0].body as KitItem).care.notes?.[0].text).toBe('Droop measured: -12 µm');
  });

  it('photographs are made small and sent; what is no picture is refused', async () => {
    const { server } = await openShop();
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [3200, 100];
    const large = await new Promise<Blob>((resolve) => canvas.toBlob((blob) => resolve(blob as Blob)));
    const small = await createImageBitmap(await smallPhoto(large));
    expect([small.width, small.height]).toEqual([1600, 50]);
    await expectAsync(smallPhoto(new Blob(['x']))).toBeRejectedWithError(/not a picture/);
    TestBed.inject(Kit).addPhoto(DIAL, large);
    await until(() => server.kit[0].photos.length === 1);
    expect(server.sent[0].path).toMatch(new RegExp(`^/kit/${DIAL}/photos\\?id=[0-9a-f-]{36}&by=HB$`));
    expect(server.sent[0].body).toBeInstanceOf(Blob);
  });

  it('a photograph can be taken off', async () => {
    const id = '0d2ff3bb-9ea9-4c7b-8d14-24f1a3e8b0a2';
    const { server } = await openShop([], { prepare: ({ kit }) => kit[0].photos.push(id) });
    const card = await show(KitCard, { item: server.kit[0] });
    await card.press('Change Lever dial');
    await card.press('Take this photograph off');
    await until(() => server.kit[0].photos.length === 0);
    expect(server.sent[0].path).toBe(`/kit/${DIAL}/photos/${id}?by=HB`);
  });

  it('a photograph taken while the server is away is kept, told, and sent later', async () => {
    const { server } = await openShop();
    server.down = true;
    const [item] = server.kit;
    const card = await show(KitCard, { item });
    await card.press('Change Lever dial');
    TestBed.inject(Kit).addPhoto(DIAL, new Blob(['x'], { type: 'image/png' }));
    await card.fixture.whenStable();
    expect(card.text()).toContain('1 photograph is on the way');
    server.down = false;
    await until(() => server.kit[0].photos.length === 1, 4000);
  });

  it('a photograph that is added leaves what is being typed as it is', async () => {
    await openShop();
    const item = piece('pins', { diameter: '10 mm' });
    const card = await show(KitCard, { item });
    await card.press('Change My pins');
    await card.type('Name', 'Other pins');
    card.fixture.componentRef.setInput('item', { ...item, photos: ['0d2ff3bb-9ea9-4c7b-8d14-24f1a3e8b0a2'] });
    await card.fixture.whenStable();
    expect(card.all('img').length).toBe(1);
    expect((card.all('input')[0] as HTMLInputElement).value).toBe('Other pins');
  });

  it('a refusal is told on the card', async () => {
    const { server } = await openShop();
    const card = await show(KitCard, { item: piece('pins', { diameter: '10 mm' }) });
    await card.press('Change My pins');
    server.refuse = refusal(400, 'is too odd', undefined, 'name');
    await card.press('Save');
    expect(card.text()).toContain('is too odd');
  });
});
