import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { ApiFailure } from '../data/api';
import { Tokens } from '../data/tokens';
import { dateWords } from '../data/when';
import { Button, TextField } from '../ui/controls';
import { Field } from '../ui/field';
import { Notice } from '../ui/notice';

/** Tokens with which a spreadsheet or a screen of the shop's own reads. */
@Component({
  selector: 'iso-token-list',
  imports: [Button, Field, Notice, TextField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>For programs of your own</h2>
    <p>
      <a href="/api/docs" target="_blank" rel="noopener">The interface, described</a>. A token lets a program read everything and write
      nothing.
    </p>
    @if (made(); as token) {
      <label for="new-token">The new token. It is shown this once: copy it now.</label>
      <input pInputText id="new-token" type="text" readonly [value]="token" (focus)="$any($event.target).select()" />
    }
    @for (token of tokens(); track token.id) {
      <div class="row">
        <span
          ><b>{{ token.name }}</b> <span class="soft">{{ token.by }}, {{ day(token.at) }}</span></span
        >
        <button pButton type="button" class="plain" [attr.aria-label]="'Revoke the token of ' + token.name" (click)="revoke(token.id)">
          Revoke
        </button>
      </div>
    }
    <form (submit)="make($event)" novalidate>
      <iso-field
        above
        label="What reads with it"
        example="Wall screen"
        [most]="60"
        [size]="18"
        [value]="name()"
        (typed)="name.set($event)"
      />
      <button pButton type="submit">Make a token</button>
    </form>
    <iso-notice [text]="problem()" />
  `,
  styles: `
    :host {
      display: grid;
      gap: 12px;
      align-content: start;
    }
    h2 {
      font-size: 1.125rem;
    }
    input {
      width: 100%;
    }
    form,
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 10px 24px;
      align-items: end;
    }
  `,
})
export class TokenList {
  private readonly store = inject(Tokens);
  protected readonly day = dateWords;
  protected readonly name = signal('');
  protected readonly problem = signal('');
  protected readonly made = signal('');
  protected readonly tokens = toSignal(this.store.all$, { initialValue: [] });

  constructor() {
    this.store.load().subscribe({ error: this.failed });
  }

  private readonly failed = (failure: ApiFailure): void => this.problem.set(failure.message);

  protected make(event: Event): void {
    event.preventDefault();
    this.problem.set('');
    const name = this.name().trim();
    if (!name) return this.problem.set('What reads with it? Example: Wall screen');
    this.store.make(name).subscribe({
      next: ({ token }) => {
        this.made.set(token);
        this.name.set('');
      },
      error: this.failed,
    });
  }

  protected revoke(id: string): void {
    this.problem.set('');
    this.made.set('');
    this.store.revoke(id).subscribe({ error: this.failed });
  }
}
