import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  Injector,
  computed,
  effect,
  inject,
  signal,
  untracked,
} from '@angular/core';
import { CdkDrag, CdkDragHandle, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { NgTemplateOutlet } from '@angular/common';
import { Router, RouterLink } from '@angular/router';
import type { PlanItem } from '@isometra/contract';
import { everyWords } from '@isometra/work';
import { Keys, useKeys } from '../data/keys';
import { dayWords, timeWords } from '../data/when';
import { AtHand } from '../shell/at-hand';
import { MachineStore } from '../machine/machine-store';
import { Button } from '../ui/controls';
import { Choices } from '../ui/choices';
import { leadHand } from '../ui/lead-hand';
import { meantFor } from '../ui/meant-for';
import { Notice } from '../ui/notice';
import { Progress } from '../ui/progress';
import { OwnItemForm, type OwnTyped } from './own-item-form';
import { PlanDate } from './plan-date';
import { PlanDraws } from './plan-draws';
import { PlanEdit, type PlanEdited } from './plan-edit';
import { WhatHappened } from './what-happened';
import { PlanState } from './plan-state';
import { fromWords, helpWords, KIND_WORDS, namedWords, peopleWords, rangeWords, roomWords, takesWords } from './plan-words';

const SHARE = 0.05;
/** So many things that are waited for are told of. */
const MOST_ROOMS = 8;

/** What is left to do on a machine, when it is done, what decides that and what would help. */
@Component({
  selector: 'iso-plan-page',
  imports: [
    NgTemplateOutlet,
    RouterLink,
    Button,
    CdkDrag,
    CdkDragHandle,
    CdkDropList,
    Choices,
    Notice,
    OwnItemForm,
    PlanEdit,
    Progress,
    WhatHappened,
  ],
  providers: [PlanState, PlanDate, PlanDraws],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './plan-page.html',
  styleUrl: './plan-page.css',
  host: { '(document:keydown.alt.arrowup)': 'shiftBy($event, -1)', '(document:keydown.alt.arrowdown)': 'shiftBy($event, 1)' },
})
export class PlanPage {
  protected readonly state = inject(PlanState);
  protected readonly date = inject(PlanDate);
  protected readonly machineStore = inject(MachineStore);
  protected readonly machineId = computed(() => this.machineStore.machine()?.id ?? '');
  private readonly router = inject(Router);
  private readonly injector = inject(Injector);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  protected readonly day = dayWords;
  protected readonly when = timeWords;
  protected readonly editing = signal<string | null>(null);
  private readonly keys = inject(Keys);
  protected readonly adding = signal(false);
  protected readonly alone = [
    { value: false, label: 'Only this machine' },
    { value: true, label: 'With the other jobs' },
  ];
  /** Something happened to the machine, and is being written down. */
  protected readonly happened = signal(false);
  /** The row that the hand is on, by key. */
  private readonly chosenKey = signal<string | null>(null);
  /** Why an item stays where it is. */
  protected readonly barred = signal('');

  protected readonly percent = computed(() => {
    const done = this.date.progress();
    return done === null ? null : Math.round(100 * done);
  });
  private readonly dates = computed(() => {
    const { schedule, refs } = this.date.drawn();
    const own = (id: string): boolean => refs[Number(id)]?.machineId === this.machineId();
    return new Map(schedule?.items.filter(({ id }) => own(id)).map((item) => [refs[Number(item.id)]?.key ?? '', item]) ?? []);
  });
  protected readonly chosen = computed(() => this.chosenKey() ?? this.next()?.key ?? null);
  /** The first thing that can be begun. */
  protected readonly next = computed((): PlanItem | undefined => {
    const { schedule, refs } = this.date.drawn();
    const own = schedule?.first.filter((id) => refs[Number(id)]?.machineId === this.machineId()) ?? [];
    const first = new Set(own.map((id) => refs[Number(id)]?.key));
    return this.state.items().find(({ key, wait }) => wait === null && first.has(key));
  });
  protected readonly rows = computed(() => {
    const [dates, next, chosen] = [this.dates(), this.next(), this.chosen()];
    return this.state.items().map((item) => {
      const told = dates.get(item.key);
      return {
        item,
        kind: KIND_WORDS[item.kind],
        takes: takesWords(item),
        from: [rangeWords(item), fromWords(item)].filter(Boolean).join(', '),
        people: item.wait === null && item.people > 1 ? `${item.people} people` : item.who.join(', '),
        begins: told ? dayWords(told.start.p50) : '',
        decides: told && told.decides >= SHARE ? `decides in ${Math.round(100 * told.decides)} %` : '',
        next: item === next,
        chosen: item.key === chosen,
        own: item.kind === 'own' ? item.key.slice('own '.length) : null,
      };
    });
  });
  /** What comes round again: how often, when next, when last; whether it stands in the list now. */
  protected readonly recurring = computed(() => {
    const keys = new Set(this.state.items().map(({ key }) => key));
    return this.state.recurring().map((item) => {
      const { id, every, notBefore, lastAt } = item;
      const here = keys.has(`own ${id}`);
      const words = [
        every === undefined ? '' : everyWords(every),
        here ? 'it has its turn: it stands above' : notBefore && `next on ${dayWords(notBefore)}`,
        lastAt && `last done ${timeWords(lastAt)}`,
      ];
      return { item, here, words: words.filter(Boolean).join('; ') };
    });
  });
  /** What was planned as if somebody came to help. */
  protected readonly helped = computed(() => {
    const keys = new Set(this.date.drawn().helped.map(({ key }) => key));
    const items = this.state.items().filter(({ key }) => keys.has(key));
    if (items.length === 0) return '';
    const [first] = items;
    const what = items.length === 1 ? `“${first.title}” needs` : `“${first.title}” and ${items.length - 1} more need`;
    return `${what} more hands than work here on one day. It is planned as if somebody came to help.`;
  });
  /** What decides the end, in order. */
  protected readonly chain = computed(() => {
    const { schedule, refs } = this.date.drawn();
    const items = new Map(this.state.items().map((item) => [item.key, item]));
    const chain = (schedule?.chain ?? []).flatMap((id) => {
      const ref = refs[Number(id)];
      if (!ref) return [];
      if (ref.machineId !== this.machineId()) return [{ key: id, title: 'Work on another machine' }];
      const item = items.get(ref.key);
      return item ? [item] : [];
    });
    return chain.filter(({ title }, i) => title !== chain[i - 1]?.title);
  });
  /** What is waited for, and how much later it may come without moving the date; what has least of that first. */
  protected readonly rooms = computed(() => {
    const room = this.date.room();
    return this.state
      .items()
      .flatMap(({ key, title }) => {
        const days = room?.get(key);
        return days === undefined ? [] : [{ key, title, days, words: roomWords(days) }];
      })
      .sort((one, other) => one.days - other.days)
      .slice(0, MOST_ROOMS);
  });
  protected readonly helps = computed(() => this.date.saved()?.map(({ code, days }) => helpWords(code, days)) ?? null);
  protected readonly with = computed(() => peopleWords(this.state.shop()?.people ?? []));
  protected readonly good = computed(() => namedWords(this.state.shop()?.named ?? [], this.state.shop()?.widen ?? 1));

  constructor() {
    effect(() => {
      const id = this.machineId();
      if (id) untracked(() => this.state.load(id));
    });
    inject(AtHand).doing.set('Plan');
    // What is yellow stands in the plan: the ladder's steps back.
    this.machineStore.inHand.set(true);
    inject(DestroyRef).onDestroy(() => this.machineStore.inHand.set(false));
    useKeys([
      {
        shown: '↑ ↓',
        does: 'another item',
        keys: ['ArrowUp', 'ArrowDown'],
        repeats: true,
        run: (event) => this.go(event.key === 'ArrowUp' ? -1 : 1),
      },
      { shown: 'Alt ↑ ↓', does: 'change the order', keys: [], run: () => false },
      { shown: 'Enter', does: 'do it', keys: ['Enter'], run: () => this.open() },
      { shown: 'E', does: 'settle it otherwise', keys: ['e'], run: () => this.edit(this.chosen()) },
      { shown: 'A', does: 'add an item', keys: ['a'], run: () => this.addAnother() },
      { shown: 'X', does: 'something happened', keys: ['x'], run: () => this.happened.set(true) },
      { shown: 'T', does: 'tonight', keys: ['t'], run: () => void this.router.navigate(['/machines', this.machineId(), 'tonight']) },
    ]);
  }

  /** The form comes with the next drawing: a hand that types on types into it. */
  private addAnother(): void {
    if (!this.adding()) this.keys.awaitField();
    this.adding.set(true);
  }

  protected choose(key: string): void {
    this.chosenKey.set(key);
  }

  private go(by: number): boolean | void {
    const items = this.state.items();
    const at = items.findIndex(({ key }) => key === this.chosen());
    const to = items.at(Math.min(items.length - 1, Math.max(0, at + by)));
    if (!to || this.editing()) return false;
    this.chosenKey.set(to.key);
    this.barred.set('');
    leadHand(this.injector, () => this.host.nativeElement.querySelector<HTMLElement>('li.chosen .title'));
  }

  protected shiftBy(event: Event, by: 1 | -1): void {
    const key = this.chosen();
    if (key === null || !meantFor(this.host.nativeElement, event)) return;
    event.preventDefault();
    this.shift(key, by);
  }

  protected drop({ previousIndex, currentIndex }: Pick<CdkDragDrop<unknown>, 'previousIndex' | 'currentIndex'>): void {
    const item = this.state.items().at(previousIndex);
    if (item && previousIndex !== currentIndex) this.shift(item.key, currentIndex - previousIndex);
  }

  protected shift(key: string, by: number): void {
    this.chosenKey.set(key);
    const barred = this.state.move(key, by);
    this.barred.set(barred ? `“${barred.before.title}” comes first: “${barred.after.title}” cannot be done before it.` : '');
    leadHand(this.injector, () => this.host.nativeElement.querySelector<HTMLElement>('li.chosen .title'));
  }

  private open(): boolean | void {
    const item = this.state.items().find(({ key }) => key === this.chosen());
    if (!item?.path) return false;
    void this.router.navigate([...item.path]);
  }

  protected edit(key: string | null): void {
    this.editing.set(key);
    if (key !== null) this.chosenKey.set(key);
  }

  protected readonly closeEdit = (): void => this.editing.set(null);

  protected keep(edited: PlanEdited): void {
    this.state.edit(edited, this.closeEdit);
  }

  protected clear(key: string): void {
    this.editing.set(null);
    this.state.clear(key);
  }

  protected add({ item, before }: { readonly item: OwnTyped; readonly before: string | null }): void {
    this.state.add(item, before, () => this.adding.set(false));
  }
}
