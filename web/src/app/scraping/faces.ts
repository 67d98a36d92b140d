import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { of, switchMap } from 'rxjs';
import { toObservable } from '@angular/core/rxjs-interop';
import type { StoredSurface } from '@isometra/contract';
import { deskOf, stateWords, stepWords } from '@isometra/work';
import type { ApiFailure } from '../data/api';
import { Surfaces } from '../data/surfaces';
import { MachineStore } from '../machine/machine-store';
import { AtHand } from '../shell/at-hand';
import { Glyph } from '../ui/glyph';
import { Notice } from '../ui/notice';
import { FaceSmall } from './face-small';

/** The faces of a machine that are scraped: how far each is, and what comes next on it. */
@Component({
  selector: 'iso-faces',
  imports: [RouterLink, FaceSmall, Glyph, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h1>Scraping</h1>
    @for (face of faces(); track face.id) {
      <a class="face" [routerLink]="face.id">
        <iso-face-small [surface]="face.surface" [zones]="face.zones" />
        <iso-glyph [state]="face.glyph" />
        <b>{{ face.name }}</b>
        <span>{{ face.state }}</span>
        <span class="soft">{{ face.passes }}</span>
        <span class="now">{{ face.step }}</span>
      </a>
    } @empty {
      @if (loaded() && !away().length) {
        <p>No face of this machine is being scraped. Describe one: its size, its zones, and what it is blued with.</p>
      }
    }
    @if (away().length) {
      <p class="soft">
        Archived:
        @for (face of away(); track face.id) {
          <a [routerLink]="face.id">{{ face.name }}</a>{{ $last ? '' : ', ' }}
        }
      </p>
    }
    <iso-notice [text]="problem()" />
    <p><a class="act" [class.next]="faces().length === 0" routerLink="new">Describe a face</a></p>
  `,
  styles: `
    :host {
      display: grid;
      gap: 14px;
      align-content: start;
      padding: 18px 28px 30px;
    }
    .face {
      display: grid;
      grid-template-columns: 200px 28px 1fr max-content max-content;
      gap: 4px 14px;
      align-items: center;
      padding: 14px 4px;
      border-top: 1px solid var(--line);
      color: var(--ink);
      text-decoration: none;
    }
    b {
      font: 600 1.25rem/1.2 var(--narrow);
    }
    iso-face-small {
      grid-row: span 2;
    }
    @media (width < 700px) {
      .face {
        grid-template-columns: 28px 1fr max-content;
      }
      iso-face-small {
        grid-column: 1 / -1;
        grid-row: auto;
      }
      .face .soft,
      .face .now {
        grid-column: 2 / -1;
      }
    }
    .now {
      grid-column: 3 / -1;
      font: 600 1.0625rem/1.2 var(--narrow);
    }
  `,
})
export class Faces {
  private readonly desk = inject(MachineStore);
  private readonly store = inject(Surfaces);
  protected readonly problem = signal('');
  protected readonly loaded = signal(false);
  private readonly machineId = computed(() => this.desk.machine()?.id ?? null);
  private readonly all = toSignal(toObservable(this.machineId).pipe(switchMap((id) => (id === null ? of([]) : this.store.of(id)))), {
    initialValue: [] as readonly StoredSurface[],
  });
  /** Begun by mistake, or worked on no more: still to be looked at. */
  protected readonly away = computed(() => this.all().filter(({ putAway }) => putAway));
  private readonly inWork = computed(() => this.all().filter(({ putAway }) => !putAway));
  protected readonly faces = computed(() =>
    this.inWork().map((surface) => {
      const { state, step, zones, aim } = deskOf(surface, surface.entries);
      const left = zones.reduce((sum, zone) => sum + (zone.left ?? 0), 0);
      return {
        ...{ surface, zones },
        ...{ id: surface.id, name: surface.name, state: stateWords(state), step: stepWords(step, !!surface.shell) },
        passes: left ? `${left} ${left === 1 ? 'pass' : 'passes'} left` : '',
        glyph: state === 'accept' ? ('in' as const) : aim ? (aim.met ? ('in' as const) : ('out' as const)) : ('none' as const),
      };
    }),
  );

  constructor() {
    inject(AtHand).doing.set('Scraping');
    const id = this.machineId();
    if (id !== null)
      this.store.load(id).subscribe({
        error: (failure: ApiFailure) => this.problem.set(failure.message),
        complete: () => this.loaded.set(true),
      });
  }
}
