import { ChangeDetectionStrategy, Component, ElementRef, afterRenderEffect, computed, inject } from '@angular/core';
import { NgTemplateOutlet } from '@angular/common';
import { RouterLink, RouterLinkActive } from '@angular/router';
import { machineFamily } from '@isometra/contract';
import { handStaleWords, leftWords, staleWords, waitWords, type Rung, wayOfFinding } from '@isometra/work';
import { Settings } from '../data/settings';
import { Glyph } from '../ui/glyph';
import { bothUnits, counted, inWords, isZero } from '../ui/say';
import { MachineStore } from './machine-store';

/** The rungs of this machine between two rails; the yellow one is next. */
@Component({
  selector: 'iso-ladder',
  imports: [NgTemplateOutlet, RouterLink, RouterLinkActive, Glyph],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>Checks in order</h2>
    <p class="survey">
      {{ store.survey()?.title }} <span class="soft">judged by “{{ store.survey()?.judge?.name }}”</span>
    </p>
    <ol>
      @for (step of byHand(); track step.id) {
        @if (step.first) {
          <ng-container [ngTemplateOutlet]="hand" [ngTemplateOutletContext]="{ $implicit: step }" />
        }
      }
      @for (rung of rungs(); track rung.id) {
        <li [class.next]="rung.next">
          <a [routerLink]="rung.link" routerLinkActive="on">
            <iso-glyph [state]="rung.state" [way]="rung.way" />
            <span class="name">{{ rung.title }}</span>
            <span class="told" [attr.title]="rung.told">
              @if (rung.reason) {
                <span class="last">{{ rung.reason }}</span>
              }
              @for (line of rung.lines; track $index) {
                <span class="last">{{ line }}</span>
              }
            </span>
            @if (rung.next) {
              <span class="why">{{ rung.next }}</span>
            }
          </a>
          @if (rung.scraped; as face) {
            <a class="see" [routerLink]="['/machines', store.machine()!.id, 'scraping', face.id]">scraped: {{ face.name }}</a>
          }
        </li>
      }
      @for (step of byHand(); track step.id) {
        @if (!step.first) {
          <ng-container [ngTemplateOutlet]="hand" [ngTemplateOutletContext]="{ $implicit: step }" />
        }
      }
    </ol>
    <ng-template #hand let-step>
      <li [class.next]="step.next">
        <a [routerLink]="['/machines', store.machine()!.id, 'by-hand', step.id]" routerLinkActive="on">
          <iso-glyph [state]="step.state" />
          <span class="name">{{ step.title }}</span>
          <span class="told" [attr.title]="step.line">
            @if (step.line) {
              <span class="last">{{ step.line }}</span>
            }
          </span>
          @if (step.next) {
            <span class="why">{{ step.next }}</span>
          }
        </a>
      </li>
    </ng-template>
    <nav aria-label="More of this machine">
      <a [routerLink]="['/machines', store.machine()!.id, 'campaign']">Order and limits</a>
      @if (tailstock()) {
        <a [routerLink]="['/machines', store.machine()!.id]">Tailstock: ways to check</a>
      }
      @if (castings() === 'headstock') {
        <a [routerLink]="['/machines', store.machine()!.id, 'to-come']">{{
          registers() ? 'Registers, planned changes' : 'Bearings, planned changes'
        }}</a>
      } @else if (column()) {
        <a [routerLink]="['/machines', store.machine()!.id, 'to-come']">Planned changes</a>
      }
      <a [routerLink]="['/machines', store.machine()!.id, 'castings', castings()]">Castings</a>
      <a [routerLink]="['/machines', store.machine()!.id, 'card']">Machine card</a>
    </nav>
  `,
  styleUrl: './ladder.css',
})
export class Ladder {
  protected readonly store = inject(MachineStore);
  private readonly settings = inject(Settings);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);

  constructor() {
    // The rung in hand, or the next one, is in sight.
    afterRenderEffect(() => {
      this.shape();
      const rail = this.host.nativeElement;
      const rung = rail.querySelector<HTMLElement>('a.on, li.next');
      // Only the ladder is moved, never the work beside it.
      if (rung) rail.scrollTop = Math.max(0, rung.offsetTop + rung.offsetHeight - rail.clientHeight + 40);
    });
  }

  protected readonly tailstock = computed(() => this.store.rungs().some((rung) => rung.check.sameQuestion === 'tailstock'));
  /** The casting that is looked at first. */
  protected readonly castings = computed(() => (machineFamily(this.store.kind()) === 'mill' ? 'column' : 'headstock'));

  protected readonly registers = computed(() => machineFamily(this.store.kind()) === 'turning-centre');
  /** Whether a column is set up on this machine: what is still to go on it pulls it over. */
  protected readonly column = computed(() => this.store.rungs().some(({ check }) => check.casting === 'column'));

  /** What a proof cut said, in a short row. @param um bigger at the tail end, on diameter. */
  private cutWords(um: number): string {
    const { large } = bothUnits(Math.abs(um), 'deviation', this.settings.shown(), 1);
    return isZero(large) ? 'both ends alike' : `${large} bigger at the ${um > 0 ? 'tail' : 'head'}`;
  }
  protected readonly byHand = computed(() => {
    const next = this.store.inHand() ? undefined : this.store.nextStep();
    return this.store.byHand().map(({ step, state, entry, staleBy, cut }) => ({
      id: step.id,
      title: step.title,
      first: step.place === 'first',
      state,
      line: (staleBy && handStaleWords(staleBy)) ?? (cut && this.cutWords(cut.machine)) ?? entry?.note ?? (entry && `done, ${entry.by}`),
      next: next?.id === step.id ? step.why : undefined,
    }));
  });

  protected readonly rungs = computed(() => {
    const next = this.store.inHand() ? undefined : this.store.next();
    const machineId = this.store.machine()?.id ?? '';
    return this.store.rungs().map((rung) => {
      // Of several like things the one that decides is named.
      const about = rung.thing ? `${rung.thing}: ` : '';
      const reason = reasonOf(rung) && about + reasonOf(rung);
      const lines = this.lines(rung).map((line) => (reason ? line : about + line));
      return {
        id: rung.check.id,
        title: rung.check.title,
        // Left out because it is being scraped: there is where it goes on.
        scraped: rung.left ? this.store.surfaces().find(({ aim, putAway }) => !putAway && aim?.check === rung.check.id) : undefined,
        state: rung.state,
        way: wayOfFinding({ quantities: rung.found }, rung.check),
        lines,
        reason,
        // A short row shows the beginning; all of it where the pointer rests.
        told: [reason, ...lines].filter(Boolean).join(' · ') || null,
        next: next?.checkId === rung.check.id ? next.why : undefined,
        // What is out and next is put right from the round that said so.
        // One text: the same one leaves the link as it is, a list would be another at every reading.
        link: [
          '/machines',
          machineId,
          'bench',
          rung.check.id,
          ...(next?.checkId === rung.check.id && next.roundId !== null ? [next.roundId] : []),
        ].join('/'),
      };
    });
  });

  /** What decides where the rungs stand: a new figure on one of them moves nothing. */
  private readonly shape = computed(() =>
    this.rungs()
      .map(({ id, lines, reason, next }) => `${id} ${lines.length} ${reason ? 1 : 0} ${next ? 1 : 0}`)
      .join(),
  );

  private limited(rung: Rung) {
    return Object.entries(rung.found).filter(([, quantity]) => quantity.verdict !== null);
  }

  private lines(rung: Rung): string[] {
    const shown = this.settings.shown();
    const limited = this.limited(rung);
    return limited.map(([name, quantity]) => {
      const info = rung.check.quantities[name];
      const words = inWords(quantity, info, shown);
      // Sizes have no direction to tell one from another: they carry their name.
      return limited.length > 1 && (info.magnitude || !info.words?.plus) ? `${info.label}: ${words}` : words;
    });
  }
}

/** What became of the last move, in a short row. */
const MOVE_SHORT = { 'wrong-way': 'last move: wrong way', 'nothing-moved': 'last move moved nothing' } as const;

/** Why a rung does not stand as its figures say. */
function reasonOf({ stale, left, waits, overdue, moveTold, said }: Rung): string | undefined {
  if (stale) return staleWords(stale);
  if (moveTold) return MOVE_SHORT[moveTold];
  if (left) return leftWords(left);
  if (waits.length) return waitWords(waits[0]);
  if (overdue !== undefined) return `overdue by ${counted(overdue, 'day')}`;
  return said?.unread ? `not finished: ${counted(said.unread, 'place')} left` : undefined;
}
