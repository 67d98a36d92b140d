import { TestBed } from '@angular/core/testing';
import { firstValueFrom } from 'rxjs';
import type { Mark, MarkedPicture as Picture, Remark } from '@isometra/contract';
import { Remarks } from '../data/remarks';
import { Undo } from '../data/undo';
import { openShop, refusal, show, until, type FakeServer, type Shown } from '../testing/fake-shop';
import { MarkEditor } from './mark-editor';
import { NoteDialog, type Where } from './note-dialog';
import { arrowPath, drawn, linePath } from './stroke';

const PATH = '/machines/m/bench/tailstock-traverse/r';
const where: Where = { machineId: null, part: 'tailstock-traverse', place: { path: PATH, words: 'L-1, Bar between centres, at 420 mm' } };

async function photograph(colour = '#778'): Promise<File> {
  const canvas = new OffscreenCanvas(80, 60);
  const pen = canvas.getContext('2d') as OffscreenCanvasRenderingContext2D;
  pen.fillStyle = colour;
  pen.fillRect(0, 0, 80, 60);
  return new File([await canvas.convertToBlob({ type: 'image/png' })], 'photo.png', { type: 'image/png' });
}

describe('a note', () => {
  let server: FakeServer;
  beforeEach(async () => ({ server } = await openShop()));
  const page = document;
  const field = (): HTMLTextAreaElement => page.querySelector('iso-note-dialog textarea, .p-dialog textarea') as HTMLTextAreaElement;
  const button = (name: string): HTMLElement =>
    [...page.querySelectorAll<HTMLElement>('.p-dialog button')].find((entry) => entry.textContent?.trim().startsWith(name)) as HTMLElement;
  async function type(note: Shown<NoteDialog>, text: string): Promise<void> {
    field().value = text;
    field().dispatchEvent(new Event('input'));
    await note.fixture.whenStable();
  }

  it('is written where one is, with its machine and its check, and closes', async () => {
    const note = await show(NoteDialog, { where });
    let closed = 0;
    note.fixture.componentInstance.closed.subscribe(() => closed++);
    expect(page.querySelector('.p-dialog')?.textContent).toContain('L-1, Bar between centres, at 420 mm');
    expect(document.activeElement).toBe(field());
    await type(note, ' Felt torn ');
    button('Save').click();
    await until(() => server.remarks.length === 1);
    expect(server.remarks[0]).toEqual(jasmine.objectContaining({ ...where, text: 'Felt torn', pictures: [], supersedes: null, by: 'HB' }));
    expect(closed).toBe(1);
  });

  it('that is empty is not saved, and says so', async () => {
    const note = await show(NoteDialog, { where });
    button('Save').click();
    await note.fixture.whenStable();
    expect(page.querySelector('.p-dialog')?.textContent).toContain('Write something, or add a photograph.');
    expect(server.remarks).toEqual([]);
  });

  it('stays as a draft of its screen until it is saved', async () => {
    const note = await show(NoteDialog, { where });
    await type(note, 'Half of it');
    note.fixture.destroy();
    const other = await show(NoteDialog, { where: { ...where, place: { ...where.place, path: '/kit' } } });
    expect(field().value).toBe('');
    other.fixture.destroy();
    await show(NoteDialog, { where });
    expect(field().value).toBe('Half of it');
    button('Save').click();
    await until(() => server.remarks.length === 1);
    expect(localStorage.getItem(`isometra-draft:note ${PATH}`)).toBeNull();
  });

  it('makes a thing to do of the line on which the hand is', async () => {
    const note = await show(NoteDialog, { where });
    await type(note, 'Felt torn\norder felt');
    field().setSelectionRange(12, 12);
    button('A thing to do').click();
    await note.fixture.whenStable();
    expect(field().value).toBe('Felt torn\n[ ] order felt');
  });

  it('carries photographs with what is drawn on them', async () => {
    const note = await show(NoteDialog, { where });
    const screen = note.fixture.componentInstance as unknown as {
      add(file: Blob): Promise<void>;
      show(pictures: readonly Picture[]): void;
    };
    const file = await photograph();
    await screen.add(file);
    // The same one twice is there once.
    await screen.add(file);
    await note.fixture.whenStable();
    expect(page.querySelectorAll('.p-dialog figure').length).toBe(1);
    expect(page.querySelector('.p-dialog figure img')?.getAttribute('src')).toMatch(/^blob:/);
    const arrow: Mark = { kind: 'arrow', from: [0, 0], to: [0.5, 0.5] };
    const [kept] = (note.fixture.componentInstance as unknown as { taken(): Picture[] }).taken();
    screen.show([{ ...kept, marks: [arrow] }]);
    button('Save').click();
    await until(() => server.remarks.length === 1);
    expect(server.remarks[0].pictures).toEqual([{ hash: kept.hash, marks: [arrow] }]);
  });

  it('carries every one of several photographs that are chosen at once', async () => {
    const note = await show(NoteDialog, { where });
    const screen = note.fixture.componentInstance as unknown as { add(file: Blob): Promise<void>; taken(): Picture[] };
    await Promise.all([screen.add(await photograph('#345')), screen.add(await photograph('#678')), screen.add(await photograph('#9ab'))]);
    expect(screen.taken().length).toBe(3);
  });

  it('that is no picture is refused in words', async () => {
    const note = await show(NoteDialog, { where });
    const screen = note.fixture.componentInstance as unknown as { add(file: Blob): Promise<void> };
    await screen.add(new Blob(['no picture'], { type: 'image/png' }));
    await note.fixture.whenStable();
    expect(page.querySelector('.p-dialog iso-notice')?.textContent?.trim()).not.toBe('');
    expect(page.querySelectorAll('.p-dialog figure').length).toBe(0);
  });

  it('is changed, ticked and taken back by another; each step can be undone', async () => {
    const remarks = TestBed.inject(Remarks);
    const first = remarks.write({ ...where, text: 'Felt torn\n[ ] order felt', pictures: [] });
    await until(() => server.remarks.length === 1);
    const note = await show(NoteDialog, { where });
    const stand = async (): Promise<readonly Remark[]> => firstValueFrom(remarks.on(PATH));
    (page.querySelector('.p-dialog iso-tick input') as HTMLInputElement).click();
    await until(() => server.remarks.length === 2);
    expect(server.remarks[1]).toEqual(jasmine.objectContaining({ supersedes: first.id, text: 'Felt torn\n[x] order felt' }));
    expect((await stand()).length).toBe(1);
    button('take back').click();
    await until(() => server.remarks.length === 3);
    expect(await stand()).toEqual([]);
    TestBed.inject(Undo).handle(new KeyboardEvent('keydown', { key: 'z', ctrlKey: true }));
    await until(() => server.remarks.length === 4);
    expect((await stand()).map(({ text }) => text)).toEqual(['Felt torn\n[x] order felt']);
    note.fixture.destroy();
  });

  it('that the server does not take is not lost: it is shown with the reason, and written again or given up', async () => {
    const remarks = TestBed.inject(Remarks);
    server.refuse = refusal(409, 'the note was changed meanwhile');
    remarks.write({ ...where, text: 'Mine was late', pictures: [] });
    const note = await show(NoteDialog, { where });
    const dialog = () => page.querySelector('.p-dialog')?.textContent ?? '';
    await until(() => dialog().includes('Not taken'));
    expect(dialog()).toContain('the note was changed meanwhile');
    await type(note, 'Something else');
    button('write it again').click();
    await note.fixture.whenStable();
    expect(field().value).toBe('Something else\nMine was late');
    await until(() => !dialog().includes('Not taken'));
    button('Save').click();
    await until(() => server.remarks.length === 1);
    expect(server.remarks[0].text).toBe('Something else\nMine was late');
  });

  it('is there at once without the server, and goes out when it is back', async () => {
    server.down = true;
    const remarks = TestBed.inject(Remarks);
    remarks.write({ ...where, text: 'No network here', pictures: [] });
    const stand = async (): Promise<readonly Remark[]> => firstValueFrom(remarks.on(PATH));
    await until(async () => (await stand()).length === 1);
    expect(server.remarks).toEqual([]);
    server.down = false;
    dispatchEvent(new Event('online'));
    await until(() => server.remarks.length === 1);
    expect((await stand()).length).toBe(1);
  });
});

describe('drawing on a photograph', () => {
  beforeEach(() => openShop());

  async function open(marks: Mark[] = []) {
    const editor = await show(MarkEditor, { picture: { hash: 'a'.repeat(64), marks } });
    const told: Picture[] = [];
    editor.fixture.componentInstance.changed.subscribe((picture) => told.push(picture));
    const sheet = editor.all('.sheet')[0];
    Object.assign(sheet.style, { width: '400px', height: '300px' });
    // A pointer that a spec makes up cannot be held.
    spyOn(sheet, 'setPointerCapture');
    const at = (name: string, x: number, y: number): void => {
      const box = sheet.getBoundingClientRect();
      sheet.dispatchEvent(new PointerEvent(name, { clientX: box.left + x * box.width, clientY: box.top + y * box.height, button: 0 }));
    };
    return { editor, told, at };
  }

  it('an arrow goes from where it was begun to what it shows, wherever the pointer went between', async () => {
    const { told, at } = await open();
    at('pointerdown', 0.1, 0.2);
    at('pointermove', 0.9, 0.9);
    at('pointermove', 0.5, 0.4);
    at('pointerup', 0.5, 0.4);
    const [{ marks }] = told;
    expect(marks.length).toBe(1);
    const [arrow] = marks as Extract<Mark, { kind: 'arrow' }>[];
    expect(arrow.kind).toBe('arrow');
    [...arrow.from, ...arrow.to].forEach((part, i) => expect(part).toBeCloseTo([0.1, 0.2, 0.5, 0.4][i], 2));
  });

  it('a touch draws no arrow, and nothing lies outside the photograph', async () => {
    const { told, at } = await open();
    at('pointerdown', 0.5, 0.5);
    at('pointermove', 0.501, 0.5);
    at('pointerup', 0.501, 0.5);
    expect(told).toEqual([]);
    at('pointerdown', 0.5, 0.5);
    at('pointermove', 1.7, -2);
    at('pointerup', 1.7, -2);
    expect((told[0].marks[0] as Extract<Mark, { kind: 'arrow' }>).to).toEqual([1, 0]);
  });

  it('numbers count on by themselves, words are put where the touch was, each can be taken off', async () => {
    const { editor, told, at } = await open([{ kind: 'words', at: [0, 0], text: '4' }]);
    await editor.choose('Number or words');
    at('pointerdown', 0.5, 0.5);
    at('pointerup', 0.5, 0.5);
    expect(told[0].marks[1]).toEqual({ kind: 'words', at: [0.5, 0.5], text: '5' });
    editor.named(/Take “4” off/).click();
    expect(told[1].marks).toEqual([]);
  });

  it('a long line is kept in few points, its end among them', async () => {
    const { editor, told, at } = await open();
    await editor.choose('Line');
    at('pointerdown', 0, 0);
    for (let i = 1; i <= 1000; i++) at('pointermove', i / 1000, 0.5);
    at('pointerup', 1, 0.5);
    const [line] = told[0].marks as Extract<Mark, { kind: 'line' }>[];
    expect(line.points.length).toBe(400);
    expect(line.points.at(-1)?.[0]).toBeCloseTo(1, 3);
  });
});

describe('a mark', () => {
  it('lies where it was put, whatever the shape of the photograph', () => {
    expect(arrowPath([0, 0], [0.5, 1], 750)).toContain('M0.0 0.0L500.0 750.0');
    expect(drawn({ kind: 'words', at: [0.5, 0.5], text: 'here' }, 600)).toEqual(jasmine.objectContaining({ text: 'here', x: 500, y: 300 }));
    expect(
      linePath(
        [
          [0, 0],
          [0.5, 0.5],
          [1, 1],
        ],
        1000,
      ),
    ).toMatch(/^M.*Z$/);
  });
});
