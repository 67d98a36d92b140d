import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { of, switchMap } from 'rxjs';
import type { StoredStripDown, StripDown } from '@isometra/contract';
import type { ApiFailure } from '../data/api';
import { newId } from '../data/id';
import { StripDowns } from '../data/strip-downs';
import { MachineStore } from '../machine/machine-store';
import { AtHand } from '../shell/at-hand';
import { Button } from '../ui/controls';
import { Field } from '../ui/field';
import { Notice } from '../ui/notice';
import { NeedsList } from './needs-list';
import { progressWords } from './part-words';

/** What is taken apart of a machine, and what is needed for its parts. */
@Component({
  selector: 'iso-strip-downs',
  imports: [RouterLink, Button, Field, NeedsList, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h1>Strip-down and assembly</h1>
    @if (shown().length === 0 && loaded()) {
      <p>
        Nothing of this machine is taken apart. Write down what comes off, in the order in which it comes off: its number, its marks, its
        shims and its screws. Assembly plays it backwards.
      </p>
    }
    @for (one of shown(); track one.id) {
      <div class="one">
        <a [routerLink]="one.id"
          ><b>{{ one.name }}</b></a
        >
        <span>{{ one.told }}</span>
        <span class="acts">
          <a class="act" [routerLink]="one.id">Parts</a>
          <a class="act" [routerLink]="one.id" [queryParams]="{ way: 'assembly' }">Assembly</a>
          <button pButton type="button" class="plain" [attr.aria-label]="'Archive ' + one.name" (click)="archive(one, true)">
            archive
          </button>
        </span>
      </div>
    }
    <form class="line" (submit)="begin($event)" novalidate>
      <iso-field
        above
        label="What is taken apart"
        example="Headstock"
        [size]="24"
        [most]="60"
        [value]="name()"
        (typed)="name.set($event)"
      />
      <button pButton type="submit" [class.next]="shown().length === 0">Start a strip-down</button>
    </form>
    <iso-notice [text]="problem()" />
    @if (needs().length) {
      <section>
        <h2>What these parts need</h2>
        <iso-needs-list [rows]="needs()" />
        <p><a routerLink="/parts">What all machines need</a></p>
      </section>
    }
    @if (archived().length) {
      <section>
        <h2>In the archive</h2>
        @for (one of archived(); track one.id) {
          <p>
            <a [routerLink]="one.id">{{ one.name }}</a>
            <button pButton type="button" class="plain" [attr.aria-label]="'Restore ' + one.name" (click)="archive(one, false)">
              restore
            </button>
          </p>
        }
      </section>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 16px;
      align-content: start;
      padding: 18px 28px 30px;
    }
    .one {
      display: grid;
      grid-template-columns: minmax(140px, 1fr) minmax(0, 2fr) max-content;
      gap: 6px 18px;
      align-items: center;
      padding: 8px 4px;
      border-top: 1px solid var(--line);
    }
    b {
      font: 600 1.25rem/1.2 var(--narrow);
    }
    .acts,
    .line {
      display: flex;
      flex-wrap: wrap;
      gap: 10px;
      align-items: end;
    }
    .acts {
      align-items: center;
    }
    section {
      display: grid;
      gap: 8px;
    }
    @media (width < 700px) {
      .one {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class StripDownList {
  private readonly desk = inject(MachineStore);
  private readonly store = inject(StripDowns);
  private readonly router = inject(Router);
  protected readonly problem = signal('');
  protected readonly loaded = signal(false);
  protected readonly name = signal('');
  private readonly machineId = computed(() => this.desk.machine()?.id ?? '');
  private readonly all = toSignal(toObservable(this.machineId).pipe(switchMap((id) => (id ? this.store.of(id) : of([])))), {
    initialValue: [] as readonly StoredStripDown[],
  });
  protected readonly archived = computed(() => this.all().filter(({ archived }) => archived));
  protected readonly shown = computed(() =>
    this.all()
      .filter(({ archived }) => !archived)
      .map((one) => ({ ...one, told: progressWords(one.parts) })),
  );
  protected readonly needs = computed(() =>
    this.shown().flatMap(({ name, machineId, parts }) => parts.map((part) => ({ machineId, belongs: name, part }))),
  );

  constructor() {
    inject(AtHand).doing.set('Strip-down and assembly');
    effect(() => {
      const id = this.machineId();
      if (!id) return;
      untracked(() =>
        this.store.load(id).subscribe({
          error: (failure: ApiFailure) => this.problem.set(failure.message),
          complete: () => this.loaded.set(true),
        }),
      );
    });
  }

  protected begin(event: Event): void {
    event.preventDefault();
    const name = this.name().trim();
    if (!name) return this.problem.set('What is taken apart? Example: Headstock');
    this.problem.set('');
    const stripDown = { id: newId(), machineId: this.machineId(), name, version: 0 };
    this.store.save(stripDown).subscribe({
      next: ({ id }) => void this.router.navigate(['/machines', this.machineId(), 'parts', id]),
      error: (failure: ApiFailure) => this.problem.set(failure.message),
    });
  }

  protected archive({ id, machineId, name, version }: StripDown, archived: boolean): void {
    this.store.save({ id, machineId, name, version, archived }).subscribe({
      next: () => this.problem.set(''),
      error: (failure: ApiFailure) => this.problem.set(failure.message),
    });
  }
}
