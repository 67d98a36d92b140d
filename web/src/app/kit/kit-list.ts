import { afterRenderEffect, ChangeDetectionStrategy, Component, computed, ElementRef, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { ActivatedRoute } from '@angular/router';
import { KIT_KINDS, KIT_NAMES, oneKit, type KitItem, type KitKind } from '@isometra/contract';
import { daysUntilDue } from '@isometra/work';
import { newId } from '../data/id';
import type { ApiFailure } from '../data/api';
import { Kit } from '../data/kit';
import { Finder } from './finder';
import { KitCard } from './kit-card';
import { today } from '../data/when';
import { dueWords } from './kit-texts';
import { Archive } from '../shell/archive';
import { Notice } from '../ui/notice';
import { Pick } from '../ui/pick';

/** What a new piece of kit begins with. */
const FIRST: Partial<Record<KitKind, Readonly<Record<string, unknown>>>> = { instrument: { kind: 'lever' }, 'shim-stock': { stock: [] } };

/** What the shop measures with: what it is, how far it can be trusted, and what is fine enough for a limit. */
@Component({
  selector: 'iso-kit-list',
  imports: [Archive, KitCard, Finder, Notice, Pick],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <h1>Kit</h1>
      <label class="add"
        ><span class="label">Add</span>
        <iso-pick label="Add to the kit" placeholder="what?" [options]="kinds" [value]="adding()?.kind ?? null" (chosen)="add($event)"
      /></label>
    </header>
    <iso-notice [text]="problem()" />
    @if (overdue().length) {
      <section class="overdue" aria-label="Overdue">
        <h2>Check before use</h2>
        <ul>
          @for (line of overdue(); track $index) {
            <li>{{ line }}</li>
          }
        </ul>
      </section>
    }
    @if (kit().length === 0 && !adding()) {
      <p class="soft">
        Nothing in it yet. Add the indicator you read with: what one division is, and how far you can read between divisions.
      </p>
    }
    @if (adding(); as item) {
      <iso-kit-card [item]="item" (done)="adding.set(null)" />
    }
    @if (kit().length) {
      <iso-finder [kit]="kit()" />
    }
    <div class="groups">
      @for (group of groups(); track group.kind) {
        <section class="plates" [style.--many]="group.items.length" [attr.aria-label]="group.name">
          <h2>{{ group.name }}</h2>
          @for (item of group.items; track item.id) {
            <iso-kit-card [id]="item.id" [item]="item" (done)="adding.set(null)" />
          }
        </section>
      }
    </div>
    @if (archived().length) {
      <section aria-label="In the archive">
        <h2>In the archive</h2>
        @for (item of archived(); track item.id) {
          <p class="gone">
            <b>{{ item.name }}</b>
            <iso-archive [name]="item.name" [archived]="item.archived" (away)="archive(item, $event)" />
          </p>
        }
      </section>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 14px;
      padding: 26px 32px 40px;
    }
    header {
      display: flex;
      gap: 12px;
      align-items: center;
    }
    h1 {
      margin-right: auto;
    }
    section {
      display: grid;
      gap: 8px;
    }
    /* Kinds of which there are few stand side by side. */
    .groups {
      --plate: min(100%, 380px);
      display: flex;
      flex-wrap: wrap;
      gap: 18px 8px;
      align-items: start;
    }
    .plates {
      flex: min(3, var(--many)) 1 min(100%, calc(min(3, var(--many)) * (380px + 8px) - 8px));
      grid-template-columns: repeat(auto-fill, minmax(var(--plate), 1fr));
      align-items: start;
    }
    .plates:has(.open) {
      flex-basis: 100%;
    }
    .plates h2 {
      grid-column: 1 / -1;
    }
    .add {
      display: flex;
      gap: 10px;
      align-items: center;
    }
    .overdue {
      padding: 12px 16px;
      border-left: 6px solid var(--red);
      background: var(--panel);
    }
    .gone {
      display: flex;
      flex-wrap: wrap;
      gap: 12px;
      align-items: center;
      margin: 0;
    }
    ul {
      margin: 0;
      padding-left: 18px;
    }
  `,
})
export class KitList {
  private readonly store = inject(Kit);
  protected readonly kit = toSignal(this.store.inUse$, { initialValue: [] as readonly KitItem[] });
  private readonly all = toSignal(this.store.all$, { initialValue: [] as readonly KitItem[] });
  protected readonly archived = computed(() => this.all().filter(({ archived }) => archived));
  protected readonly adding = signal<KitItem | null>(null);
  protected readonly problem = signal('');
  protected readonly kinds = KIT_KINDS.map((kind) => ({ value: kind, label: oneKit(kind) }));

  constructor() {
    this.store.load().subscribe({ error: (failure: ApiFailure) => this.problem.set(failure.message) });
    // The address may name a piece of kit: it is brought into sight once it is there.
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    const named = toSignal(inject(ActivatedRoute).fragment);
    afterRenderEffect(() => {
      const id = named();
      if (id && this.kit().length) host.querySelector(`[id="${CSS.escape(id)}"]`)?.scrollIntoView({ block: 'center' });
    });
  }

  protected readonly groups = computed(() =>
    KIT_KINDS.map((kind) => ({ kind, name: KIT_NAMES[kind].many, items: this.kit().filter((item) => item.kind === kind) })).filter(
      (group) => group.items.length,
    ),
  );
  /** Bars, squares and the rest whose certificate has run out. */
  protected readonly overdue = computed(() =>
    this.kit()
      .filter((item) => (daysUntilDue(item.care, today()) ?? 0) < 0)
      .map((item) => `${item.name}: ${dueWords(item, today())}`),
  );

  protected archive(item: KitItem, away: boolean): void {
    this.store.archive(item, away).subscribe({
      next: () => this.problem.set(''),
      error: (failure: ApiFailure) => this.problem.set(failure.message),
    });
  }

  protected add(kind: KitKind): void {
    this.adding.set({ id: newId(), kind, name: '', data: FIRST[kind] ?? {}, care: {}, photos: [], version: 0 });
  }
}
