import { Router } from '@angular/router';
import { TestBed } from '@angular/core/testing';
import { Keys } from '../data/keys';
import { Settings } from '../data/settings';
import { cardFieldsFor, MACHINE_KINDS, type SurveyWrite } from '@isometra/contract';
import { barRound, openShop, show, showAtOnce, refusal, until, LATHE } from '../testing/fake-shop';
import { MachineCardForm } from './machine-card';
import { MachineList } from './machine-list';
import { shapesOf } from './machine-shapes';

describe('the machines', () => {
  it('are plates with what matters of each', async () => {
    await openShop();
    const list = await show(MachineList);
    expect(list.text()).toContain('L-14');
    expect(list.text()).toContain('engine lathe');
    expect(list.text()).toContain('1500 mm between centres');
    expect(list.text()).toContain('adjuster 1.5 mm pitch');
  });

  it('stand on the board as their ladders say, and a digit leads to the yellow thing', async () => {
    const round = barRound(-40, 9);
    await openShop([round]);
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const list = await show(MachineList);
    await until(() => list.all('.strip li').length > 15);
    const out = list.all('.strip li').filter((rung) => rung.querySelector('svg')?.getAttribute('aria-label') === 'out');
    expect(out.map((rung) => rung.getAttribute('title'))).toEqual(['Bar between centres']);
    expect(list.all('.yellow').length).toBe(1);
    expect(list.text()).toMatch(/1 Bar between centres It is out: do the move\./);
    expect(list.text()).toContain('EK: Bar between centres: round begun');
    expect(list.text()).toContain('Old bar (by 3 days)');
    await until(() => list.all('iso-bent svg[data-family=lathe]').length === 1);
    TestBed.inject(Keys).handle(new KeyboardEvent('keydown', { key: '1' }));
    // What is out leads to the round whose move is to be made.
    expect(navigate.calls.mostRecent().args[0]).toEqual(['/machines', LATHE, 'bench', 'tailstock-traverse', round.id]);
    navigate.calls.reset();
    TestBed.inject(Keys).handle(new KeyboardEvent('keydown', { key: '2' }));
    expect(navigate).not.toHaveBeenCalled();
  });

  it('in the archive are not on the board, and come out again with one press', async () => {
    const { server } = await openShop();
    server.machines[0].archived = { at: '2026-03-01T08:00:00.000Z', by: 'EK' };
    const list = await show(MachineList);
    expect(list.all('.plate').length).toBe(0);
    expect(list.text()).not.toContain('No machine here yet');
    expect(list.text()).toContain('In the archive since 1 Mar 2026, EK.');
    await list.press('Restore L-14');
    await until(() => list.all('.plate').length === 1);
    expect(server.sent[0]).toEqual(jasmine.objectContaining({ path: `/machines/${LATHE}/archive`, body: { away: false, by: 'HB' } }));
  });

  it('an empty shop says what to do first and offers the demo', async () => {
    const { server } = await openShop();
    server.machines = [];
    const list = await show(MachineList);
    expect(list.text()).toContain('No machine here yet');
    expect(list.named('Add a machine').classList).toContain('next');
    await list.press('Fill in the demo shop');
    expect(server.sent.map((write) => write.path)).toEqual(['/demo']);
    expect(list.text()).toContain('L-15');
  });

  it('a silent server can be asked again', async () => {
    const { server } = await openShop();
    server.down = true;
    const list = await show(MachineList);
    expect(list.text()).toContain('The server cannot be reached');
    server.down = false;
    server.machines = [];
    await list.press('Try again');
    expect(list.text()).toContain('No machine here yet');
  });
});

describe('a machine card', () => {
  const numbered = (card: Awaited<ReturnType<typeof show<MachineCardForm>>>) =>
    card.all('[role=alert]').map((alert) => (alert.textContent ?? '').trim());

  it('a new one names what is missing and sends what was typed with its unit', async () => {
    const { server } = await openShop();
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const card = await show(MachineCardForm);
    await card.press('Add this machine');
    expect(numbered(card).join()).toContain('Shop number is missing');
    await card.type('Shop number', 'L-9');
    // What a machine has is asked once it is known what it is; a choice is named as it is shown.
    expect(card.text()).not.toMatch(/swing over bed|base length|feet/i);
    await card.press('Add this machine');
    expect(numbered(card).join()).toContain('Kind is missing: choose what kind of machine it is. Example: engine lathe');
    (card.fixture.componentInstance as unknown as { type: (value: object) => void }).type({
      number: 'L-9',
      swing: '300 mm',
      kind: 'engine-lathe',
    });
    await card.press('Add this machine');
    expect(server.sent[0]).toEqual(jasmine.objectContaining({ method: 'POST', path: '/machines' }));
    expect(server.sent[0].body).toEqual(
      jasmine.objectContaining({ card: { number: 'L-9', swing: '300 mm', kind: 'engine-lathe' }, by: 'HB' }),
    );
    expect(navigate).toHaveBeenCalled();
  });

  it('is looked at as it stood once, while what was typed waits, and put back as a new state', async () => {
    const { server } = await openShop([], {
      prepare: (shop) => {
        const [machine] = shop.machines;
        const was = { ...machine.card, notes: 'ridge at the saddle' };
        shop.states = [
          {
            version: 2,
            by: 'SD',
            at: '2026-05-12T16:00:00.000Z',
            changes: [{ field: 'Notes', from: was.notes, to: null }],
            state: machine.card,
          },
          { version: 1, by: null, at: null, changes: [], state: was },
        ];
      },
    });
    spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const card = await show(MachineCardForm, { machineId: LATHE });
    await until(() => card.text().includes('Earlier states'));
    await card.type('Notes', 'typed just now');
    const details = [...card.element.querySelectorAll('details')].find((one) => one.textContent?.includes('Earlier states'));
    if (details) details.open = true;
    await until(() => card.text().includes('Notes: ridge at the saddle taken out'));
    await card.press('Look at it as it stood at first');
    await until(() => card.text().includes('This is how it stood before its first change.'));
    expect(card.field('Notes').value).toBe('ridge at the saddle');
    await card.press('Back to how it stands now');
    expect(card.field('Notes').value).withContext('what was typed has waited').toBe('typed just now');
    await card.press('Look at it as it stood at first');
    await until(() => card.text().includes('Put this back'));
    await card.press('Put this back');
    await until(() => server.sent.length === 1);
    expect(server.sent[0].body).toEqual(jasmine.objectContaining({ card: jasmine.objectContaining({ notes: 'ridge at the saddle' }) }));
  });

  it('asks a mill nothing of a lathe, and leaves behind what it was told as one and cannot read', async () => {
    const { server } = await openShop();
    spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const card = await show(MachineCardForm);
    const put = (value: object) => (card.fixture.componentInstance as unknown as { type: (value: object) => void }).type(value);
    const readAgain = [{ check: 'table-level', days: '90' }];
    put({ number: 'M-9', swing: 'wide', centreDistance: '700 mm', kind: 'turret-mill', readAgain });
    await card.fixture.whenStable();
    expect(card.text()).not.toMatch(/swing|centres|tailstock|spindle nose|jacks/i);
    await card.press('Add this machine');
    expect(server.sent[0].body).toEqual(
      jasmine.objectContaining({ card: { number: 'M-9', centreDistance: '700 mm', kind: 'turret-mill', readAgain } }),
    );
  });

  it('shows no field before the card has come: nothing typed is overwritten by it', async () => {
    const { server } = await openShop();
    server.holds = (method, path) => method === 'GET' && path.startsWith('/machines/');
    const card = showAtOnce(MachineCardForm, { machineId: LATHE });
    await until(() => card.text().includes('Loading the card'));
    expect(card.all('input').length).toBe(0);
    expect((card.named('Save the card') as HTMLButtonElement).disabled).toBeTrue();
    server.letGo();
    await until(() => card.all('input').length > 0);
    expect(card.field('Shop number').value).toBe('L-14');
  });

  it('what a file gave as a bare text stays in the unit of the file, also on a screen in inches', async () => {
    const { server } = await openShop([], {
      prepare: (shop) => {
        shop.machines = shop.machines.map((machine) => ({ ...machine, card: { ...machine.card, centreDistance: '1500' } }));
      },
    });
    TestBed.inject(Settings).system.set('inch');
    spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const card = await show(MachineCardForm, { machineId: LATHE });
    await card.type('Shop number', 'L-15');
    await card.press('Save the card');
    await until(() => server.sent.length === 1);
    expect((server.sent[0].body as { card: unknown }).card).toEqual(
      jasmine.objectContaining({ number: 'L-15', centreDistance: '1500 mm' }),
    );
  });

  it('what was typed comes back after leaving, until it is kept', async () => {
    await openShop();
    const first = await show(MachineCardForm);
    await first.type('Shop number', 'L-33');
    first.fixture.destroy();
    const again = await show(MachineCardForm);
    expect(again.all('input').map((input) => (input as HTMLInputElement).value)).toContain('L-33');
  });

  it('its kind is chosen by its drawing; the part that the field in hand is about is marked', async () => {
    await openShop();
    const card = await show(MachineCardForm);
    expect(card.all('iso-kind-plates svg').length).toBe(MACHINE_KINDS.length);
    await card.press('engine lathe');
    await card.fixture.whenStable();
    expect(card.all('iso-kind-plates').length).toBe(0);
    expect(document.activeElement?.getAttribute('role')).withContext('the hand goes on from the kind').toBe('combobox');
    const marked = () => card.all('figure .marked').length;
    expect([marked(), card.element.querySelector('figcaption')?.textContent]).toEqual([0, 'engine lathe']);
    card.element.querySelector<HTMLElement>('[data-field="base.length"] input')?.focus();
    await card.fixture.whenStable();
    expect([marked(), card.element.querySelector('figcaption')?.textContent]).toEqual([1, 'Tailstock base']);
    card.element.querySelector<HTMLElement>('[data-field="nickname"] input')?.focus();
    await card.fixture.whenStable();
    expect(marked()).toBe(0);
  });

  it('every kind has a drawing of its own, and every mark belongs to a field of its card', () => {
    const drawn = MACHINE_KINDS.map(({ value }) => shapesOf(value));
    expect(new Set(drawn.map((shapes) => JSON.stringify(shapes))).size).toBe(MACHINE_KINDS.length);
    for (const { value } of MACHINE_KINDS) {
      const fields = Object.keys(cardFieldsFor(value).shape);
      const marks = [...new Set(shapesOf(value).flatMap((shape) => shape.fields ?? []))];
      expect(marks.length).withContext(value).toBeGreaterThan(2);
      expect(marks.filter((mark) => fields.includes(mark)).length)
        .withContext(value)
        .toBeGreaterThan(2);
    }
    const all = new Set(MACHINE_KINDS.flatMap(({ value }) => Object.keys(cardFieldsFor(value).shape)));
    expect(drawn.flatMap((shapes) => shapes.flatMap(({ fields = [] }) => fields)).filter((field) => !all.has(field))).toEqual([]);
  });

  it('whose kind is put right asks what becomes of the survey that runs', async () => {
    const { server } = await openShop();
    spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const card = await show(MachineCardForm, { machineId: LATHE });
    const put = async (kind: string) => {
      const form = card.fixture.componentInstance as unknown as { type: (value: object) => void; card: () => object };
      form.type({ ...form.card(), kind });
      await card.fixture.whenStable();
    };
    expect(card.text()).not.toContain('The current survey');
    await put('turret-mill');
    await card.press('Save the card');
    expect(card.text()).toContain('Say what becomes of the survey that runs');
    expect(server.sent).toEqual([]);
    await card.choose(/^uses the order and limits of a turret mill/);
    await card.press('Save the card');
    await until(() => server.sent.length === 2);
    const survey = server.sent[1].body as SurveyWrite;
    expect(server.sent.map(({ path }) => path.split('/')[1])).toEqual(['machines', 'surveys']);
    expect(survey.order).toContain('head-tram');
    expect(survey.order).not.toContain('tailstock-traverse');
  });

  it('goes into the archive and out of it again', async () => {
    const { server } = await openShop();
    const card = await show(MachineCardForm, { machineId: LATHE });
    await card.press('Archive L-14');
    await until(() => card.text().includes('In the archive since'));
    expect(server.machines[0].archived?.by).toBe('HB');
    await card.press('Restore L-14');
    await until(() => !card.text().includes('In the archive since'));
    expect(server.machines[0].archived).toBeUndefined();
  });

  it('somebody else’s change is told, and a second try goes over it', async () => {
    const { server } = await openShop();
    spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const card = await show(MachineCardForm, { machineId: LATHE });
    await card.type('Swing over bed', '430 mm');
    server.refuse = refusal(409, 'changed', { ...server.machines[0], version: 8 }, 'version');
    await card.press('Save the card');
    expect(card.text()).toContain('Somebody else has changed this card');
    await card.press('Save the card');
    expect(server.sent[0].body).toEqual(jasmine.objectContaining({ version: 8 }));
  });

  it('a refusal of the server is shown at its field', async () => {
    const { server } = await openShop();
    const card = await show(MachineCardForm, { machineId: LATHE });
    server.refuse = refusal(409, 'is already the number of another machine', undefined, 'card.number');
    await card.press('Save the card');
    expect(numbered(card).join()).toContain('Shop number is already the number of another machine');
  });
});
