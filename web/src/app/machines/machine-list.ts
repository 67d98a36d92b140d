import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { forkJoin, switchMap } from 'rxjs';
import type { Machine } from '@isometra/contract';
import type { BoardPlate } from '@isometra/contract/board';
import { MACHINE_KINDS } from '@isometra/contract/machine-kinds';
import { folded } from '@isometra/work/folded';
import type { ApiFailure } from '../data/api';
import { Board } from '../data/board';
import { useKeys } from '../data/keys';
import { Machines } from '../data/machines';
import { Settings } from '../data/settings';
import { Archive } from '../shell/archive';
import { boardGroups, STANDINGS, STANDING_WORDS, standingOf, type Standing } from './board-groups';
import { asking, orNothing } from '../ui/asking';
import { askedText } from '../ui/asked-text';
import { Choices } from '../ui/choices';
import { Button, TextField } from '../ui/controls';
import { Glyph } from '../ui/glyph';
import { Notice } from '../ui/notice';
import { PlatePicture } from './plate-picture';
import { Phones } from './phones';
import { dateWords } from '../data/when';

/** Where the next thing of a machine is done: at its bench, or at the round whose move is to be made. */
const nextPath = ({ at, id, round }: NonNullable<BoardPlate['next']>): string[] => [at, id, ...(round === null ? [] : [round])];

/** Up to so many machines are seen at a glance. */
const FEW = 6;

/** The shop board: every machine as a plate, how it stands, and its one next thing; and a way in when there are none. */
@Component({
  selector: 'iso-machine-list',
  imports: [Archive, Choices, RouterLink, Button, TextField, Glyph, Notice, Phones, PlatePicture],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './machine-list.html',
  styleUrl: './machine-list.css',
})
export class MachineList {
  private readonly store = inject(Machines);
  protected readonly state = signal<'reading' | 'read' | 'failed'>('reading');
  protected readonly problem = signal('');
  protected readonly filling = signal(false);

  protected readonly path = nextPath;
  protected readonly dateWords = dateWords;
  private readonly board = inject(Board);
  private readonly router = inject(Router);
  private readonly shop = toSignal(this.board.all$, { requireSync: true });
  protected readonly all = toSignal(this.store.all$, { requireSync: true });
  protected readonly machines = computed(() => this.all().filter(({ archived }) => !archived));
  private readonly who = inject(Settings).who;
  private readonly standing = (machine: Machine): Standing => standingOf(this.plates().get(machine.id), this.who());
  /** What is shown of many machines: how they stand, and a part of their number or name. */
  readonly show = input('', { transform: orNothing });
  readonly name = input('', { transform: orNothing });
  protected readonly called = askedText(this.name);
  /** So few that none need be looked for. */
  protected readonly few = computed(() => this.machines().length <= FEW);
  protected readonly choices = computed(() => [
    { value: '', label: `All ${this.machines().length}` },
    ...STANDINGS.flatMap((value) => {
      const many = this.machines().filter((machine) => this.standing(machine) === value).length;
      return many ? [{ value: value as string, label: `${STANDING_WORDS[value]} ${many}` }] : [];
    }),
  ]);
  private readonly chosen = computed(() => {
    const [show, words] = [this.show(), folded(this.name().trim()).split(/\s+/)];
    if (this.few()) return this.machines();
    return this.machines().filter((machine) => {
      const called = folded(`${machine.card.number} ${machine.card.nickname ?? ''}`);
      return (show === '' || this.standing(machine) === show) && words.every((word) => called.includes(word));
    });
  });
  protected readonly groups = computed(() => boardGroups(this.chosen(), this.standing));
  private readonly inOrder = computed(() => this.groups().flatMap(({ rows }) => rows.map(({ machine }) => machine)));
  protected readonly none = computed(() => this.machines().length > 0 && this.inOrder().length === 0);

  protected readonly ask = asking();

  protected readonly archived = computed(() => this.all().filter(({ archived }) => archived));
  protected readonly plates = computed(() => new Map(this.shop().plates.map((plate) => [plate.machineId, plate])));
  protected readonly kitOverdue = computed(() =>
    this.shop()
      .kit.map(({ name, days }) => `${name} (by ${days} ${days === 1 ? 'day' : 'days'})`)
      .join(', '),
  );

  constructor() {
    this.load();
    useKeys([
      {
        shown: '1 … 9',
        does: 'the next thing on that machine',
        keys: ['1', '2', '3', '4', '5', '6', '7', '8', '9'],
        run: (event) => this.goOn(Number(event.key)),
      },
      { shown: 'A', does: 'add a machine', keys: ['a'], run: () => void this.router.navigate(['/machines/new']) },
    ]);
  }

  /** To the yellow thing of the machine that has this number on the board. */
  private goOn(place: number): boolean {
    const machine = this.inOrder()[place - 1];
    const next = machine && this.plates().get(machine.id)?.next;
    if (!next) return false;
    void this.router.navigate(['/machines', machine.id, ...nextPath(next)]);
    return true;
  }

  protected dueText(due: BoardPlate['due']): string {
    const [first, ...rest] = due;
    return `${first.title}, ${first.days} ${first.days === 1 ? 'day' : 'days'} over${rest.length ? `, and ${rest.length} more` : ''}`;
  }

  protected load(): void {
    this.state.set('reading');
    forkJoin([this.store.load(), this.board.load()]).subscribe({
      next: () => this.state.set('read'),
      error: (failure: ApiFailure) => {
        this.problem.set(failure.message);
        this.state.set('failed');
      },
    });
  }

  protected archive(machine: Machine, away: boolean): void {
    this.store
      .archive(machine, away)
      .pipe(switchMap(() => this.board.load()))
      .subscribe({ error: (failure: ApiFailure) => this.problem.set(failure.message) });
  }

  protected fillDemo(): void {
    this.filling.set(true);
    this.store
      .fillDemo()
      .pipe(switchMap(() => this.board.load()))
      .subscribe({
        error: (failure: ApiFailure) => {
          this.filling.set(false);
          this.problem.set(failure.message);
        },
      });
  }

  protected kind(machine: Machine): string {
    return MACHINE_KINDS.find((kind) => kind.value === machine.card.kind)?.label ?? '';
  }

  protected facts(machine: Machine): string[] {
    const { swing, centreDistance, adjuster } = machine.card;
    const pitch = (adjuster as { pitch?: unknown } | undefined)?.pitch;
    return [
      swing && `swings ${withMm(swing)}`,
      centreDistance && `${withMm(centreDistance)} between centres`,
      pitch && `adjuster ${withMm(pitch)} pitch`,
    ].filter((fact): fact is string => !!fact);
  }
}

const withMm = (value: unknown): string => (/[a-z"]/i.test(String(value)) ? String(value) : `${String(value)} mm`);
