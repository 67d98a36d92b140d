import { Injectable, computed, inject, signal } from '@angular/core';
import { forkJoin, tap, type Observable } from 'rxjs';
import {
  gainOf,
  handRungsOf,
  judgedMoves,
  nextByHand,
  nextRung,
  pendingOf,
  rungsOf,
  type KitItem,
  type Machine,
  type Round,
  type ShopFacts,
  type Survey,
} from '@isometra/contract';
import { Kit, stockOf } from '../data/kit';
import { Machines } from '../data/machines';
import { Rounds } from '../data/rounds';
import { Surveys, running } from '../data/surveys';

/** Everything about the machine being worked on, for the screens inside its frame. */
@Injectable()
export class Desk {
  private readonly machines = inject(Machines);
  private readonly rounds = inject(Rounds);
  private readonly kitStore = inject(Kit);
  private readonly surveyStore = inject(Surveys);

  readonly machine = signal<Machine | null>(null);
  readonly kit = signal<readonly KitItem[]>([]);
  /** Rounds of all surveys, oldest first. */
  readonly all = signal<readonly Round[]>([]);
  readonly surveys = signal<readonly Survey[]>([]);
  /** The survey being worked on. */
  readonly survey = computed(() => running(this.surveys()));
  /** Rounds of that survey. */
  readonly current = computed(() => this.all().filter((round) => round.surveyId === this.survey()?.id));
  /** A screen with a next thing of its own is open: the ladder's yellow steps back. */
  readonly inHand = signal(false);
  readonly stock = computed(() => stockOf(this.kit()));
  readonly rungs = computed(() => {
    const machine = this.machine();
    return machine ? rungsOf(String(machine.card.kind), this.current(), this.survey()) : [];
  });
  /** What is done by hand at the ends of the ladder. */
  readonly byHand = computed(() => {
    const machine = this.machine();
    return machine ? handRungsOf(String(machine.card.kind), this.current(), this.survey()?.byHand ?? []) : [];
  });
  /** The step by hand that comes next; then no rung is. */
  readonly nextStep = computed(() => nextByHand(this.byHand(), this.rungs()));
  readonly next = computed(() => (this.nextStep() ? undefined : nextRung(this.rungs())));

  load(machineId: string): Observable<unknown> {
    return forkJoin([
      this.machines.one(machineId),
      this.rounds.list(machineId),
      this.kitStore.load(),
      this.surveyStore.list(machineId),
    ]).pipe(
      tap(([machine, rounds, kit, surveys]) => {
        this.surveys.set(surveys);
        this.machine.set(machine);
        this.all.set(rounds);
        this.kit.set(kit);
      }),
    );
  }

  /** Read the rounds again, after one has changed. */
  refresh(): void {
    const machine = this.machine();
    if (machine) this.rounds.list(machine.id).subscribe({ next: (rounds) => this.all.set(rounds), error: () => undefined });
  }

  /** A round as it stands on the bench, before the server has worked it out. */
  show(round: Round): void {
    this.all.update((all) =>
      all.some((entry) => entry.id === round.id) ? all.map((entry) => (entry.id === round.id ? round : entry)) : [...all, round],
    );
  }

  /** A survey that has been changed or begun. */
  keep(survey: Survey): void {
    this.surveys.update((all) => {
      const at = all.findIndex((entry) => entry.id === survey.id);
      if (at >= 0) return all.map((entry) => (entry.id === survey.id ? survey : entry));
      return [...all.map((entry) => ({ ...entry, endedAt: entry.endedAt ?? survey.startedAt })), survey];
    });
  }

  /** By what a round is judged: the limit sheet of its survey, and what changes are still to come. */
  judging(round: Pick<Round, 'surveyId'>): Pick<ShopFacts, 'limits' | 'pending'> {
    const survey = this.surveys().find((entry) => entry.id === round.surveyId) ?? this.survey();
    return survey ? { limits: survey.judge, pending: pendingOf(survey) } : {};
  }

  of(checkId: string): readonly Round[] {
    return this.all().filter((round) => round.check === checkId);
  }

  /** Gain learned on this machine for a kind of move, over all its checks. */
  gain(kind: string): number | null {
    const checks = [...new Set(this.all().map((round) => round.check))];
    const learned = gainOf(
      checks.flatMap((check) => judgedMoves(this.of(check))),
      kind,
    );
    // What moves as it should needs no reckoning with.
    return learned !== null && Math.abs(learned - 1) > 0.1 ? learned : null;
  }
}
