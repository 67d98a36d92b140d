import { Injectable, computed, inject, signal } from '@angular/core';
import { forkJoin, tap, type Observable } from 'rxjs';
import { gainOf, judgedMoves, nextRung, rungsOf, type KitItem, type Machine, type Round } from '@isometra/contract';
import { Kit, stockOf } from '../data/kit';
import { Machines } from '../data/machines';
import { Rounds } from '../data/rounds';

/** Everything about the machine being worked on, for the screens inside its frame. */
@Injectable()
export class Desk {
  private readonly machines = inject(Machines);
  private readonly rounds = inject(Rounds);
  private readonly kitStore = inject(Kit);

  readonly machine = signal<Machine | null>(null);
  readonly kit = signal<readonly KitItem[]>([]);
  readonly all = signal<readonly Round[]>([]);
  /** A screen with a next thing of its own is open: the ladder's yellow steps back. */
  readonly inHand = signal(false);
  readonly stock = computed(() => stockOf(this.kit()));
  readonly rungs = computed(() => {
    const machine = this.machine();
    return machine ? rungsOf(String(machine.card.kind), this.all()) : [];
  });
  readonly next = computed(() => nextRung(this.rungs()));

  load(machineId: string): Observable<[Machine, readonly Round[], readonly KitItem[]]> {
    return forkJoin([this.machines.one(machineId), this.rounds.list(machineId), this.kitStore.load()]).pipe(
      tap(([machine, rounds, kit]) => {
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
