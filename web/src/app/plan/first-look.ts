import { ChangeDetectionStrategy, Component, input, output, signal } from '@angular/core';
import { roughlyOut, type ToLookAt } from '@isometra/work';
import { Field } from '../ui/field';
import { Notice } from '../ui/notice';
import { Tick } from '../ui/tick';

/** Something that has not been measured, with what a rough look said of it. */
export interface LookRow extends Pick<ToLookAt, 'info' | 'quantity'> {
  readonly check: string;
  readonly title: string;
  readonly example: string;
  /** As it was typed; '' where nothing was, or where it looks right. */
  readonly out: string;
  readonly right: boolean;
}

/** What somebody saw of it: how far out, null where it looks right; undefined takes it back. */
export interface Looked extends Pick<LookRow, 'check' | 'quantity'> {
  readonly out: string | null | undefined;
}

/** A rough look before anything is measured: about how far out each thing is, or that it looks right. */
@Component({
  selector: 'iso-first-look',
  imports: [Field, Notice, Tick],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>A rough look</h2>
    <p class="soft">
      What can be seen or felt before anything is measured: about how far out, or that it looks right. It goes into the hours above until
      the check is measured.
    </p>
    <iso-notice [text]="wrong()" />
    <div class="rows">
      @for (row of rows(); track row.check + row.quantity) {
        <div class="row">
          <span>{{ row.title }}</span>
          <iso-field
            label=""
            [name]="row.title + ': about how far out'"
            [example]="row.example"
            [most]="40"
            [size]="20"
            [wrong]="wrongIn() === row.check + row.quantity"
            [value]="row.out"
            (changed)="type(row, $event)"
          />
          <iso-tick [on]="row.right" (changed)="looked.emit({ check: row.check, quantity: row.quantity, out: $event ? null : undefined })"
            >looks right</iso-tick
          >
        </div>
      }
    </div>
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    .rows {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(min(100%, 540px), 1fr));
      gap: 0 32px;
    }
    .row {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto 130px;
      gap: 4px 14px;
      align-items: center;
      padding: 4px 0;
      border-top: 1px solid var(--line);
    }
    @media (width < 600px) {
      .row {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class FirstLook {
  readonly rows = input.required<readonly LookRow[]>();
  readonly looked = output<Looked>();
  /** What is wrong with what was typed, and where. */
  protected readonly wrong = signal('');
  protected readonly wrongIn = signal('');

  protected type({ check, quantity, info, title }: LookRow, typed: string): void {
    const out = typed.trim();
    const told = out ? roughlyOut(out, info) : 0;
    const fault = typeof told === 'number' ? '' : told.fault;
    this.wrong.set(fault && `${title}: ${fault}.`);
    this.wrongIn.set(fault && check + quantity);
    if (!fault) this.looked.emit({ check, quantity, out: out || undefined });
  }
}
