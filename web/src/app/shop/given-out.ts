import { ChangeDetectionStrategy, Component, type OnInit, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { switchMap } from 'rxjs';
import type { ApiFailure } from '../data/api';
import type { GivenOutList } from '../data/given-out';
import { dateWords } from '../data/when';
import { Button, TextField } from '../ui/controls';
import { Field } from '../ui/field';
import { Notice } from '../ui/notice';

/** What is given out, in words. */
export interface GivenOutWords {
  /** Id of the field in which a new one is shown. */
  readonly field: string;
  /** "The new address." */
  readonly made: string;
  /** "Revoke the address of", for who only hears it. */
  readonly revoke: string;
  /** What is asked for a new one: the label of the field, an example, the question where it is empty, and the button. */
  readonly label: string;
  readonly example: string;
  readonly question: string;
  readonly make: string;
}

/** Secrets that were given out, by name: a new one is shown once, and each can be revoked. */
@Component({
  selector: 'iso-given-out',
  imports: [Button, Field, Notice, TextField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (made(); as secret) {
      <label [for]="words().field">{{ words().made }} It is shown this once: copy it now.</label>
      <input pInputText [id]="words().field" type="text" readonly [value]="secret" (focus)="$any($event.target).select()" />
    }
    @for (one of all(); track one.id) {
      <div class="row">
        <span
          ><b>{{ one.name }}</b> <span class="soft">{{ one.by }}, {{ day(one.at) }}</span></span
        >
        <button pButton type="button" class="plain" [attr.aria-label]="words().revoke + ' ' + one.name" (click)="revoke(one.id)">
          Revoke
        </button>
      </div>
    }
    <form (submit)="make($event)" novalidate>
      <iso-field
        above
        [label]="words().label"
        [example]="words().example"
        [most]="60"
        [size]="18"
        [value]="name()"
        (typed)="name.set($event)"
      />
      <button pButton type="submit">{{ words().make }}</button>
    </form>
    <ng-content />
    <iso-notice [text]="problem()" />
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
      align-content: start;
    }
    input {
      width: 100%;
      font-size: 0.8125rem;
    }
    form,
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 10px;
      align-items: end;
      justify-content: space-between;
    }
  `,
})
export class GivenOut implements OnInit {
  readonly list = input.required<Pick<GivenOutList, 'all$' | 'load' | 'make' | 'revoke'>>();
  readonly words = input.required<GivenOutWords>();
  protected readonly day = dateWords;
  protected readonly name = signal('');
  protected readonly problem = signal('');
  protected readonly made = signal('');
  protected readonly all = toSignal(toObservable(this.list).pipe(switchMap(({ all$ }) => all$)), {
    initialValue: [],
  });

  ngOnInit(): void {
    this.list().load().subscribe({ error: this.failed });
  }

  private readonly failed = (failure: ApiFailure): void => this.problem.set(failure.message);

  protected make(event: Event): void {
    event.preventDefault();
    this.problem.set('');
    const name = this.name().trim();
    if (!name) return this.problem.set(`${this.words().question} Example: ${this.words().example}`);
    this.list()
      .make(name)
      .subscribe({
        next: (secret) => {
          this.made.set(secret);
          this.name.set('');
        },
        error: this.failed,
      });
  }

  protected revoke(id: string): void {
    this.problem.set('');
    this.made.set('');
    this.list().revoke(id).subscribe({ error: this.failed });
  }
}
