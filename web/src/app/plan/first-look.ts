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
  /** Once the server has it. */
  readonly taken: () => void;
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
      the check is measured. Enter sends a figure again that was not taken.
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
            [value]="typed().get(row.check + row.quantity) ?? row.out"
            ownEnter
            (changed)="type(row, $event)"
            (entered)="type(row, $any($event.target).value)"
          />
          <iso-tick [on]="row.right" (changed)="tell(row, $event ? null : undefined)">looks right</iso-tick>
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

  /** What was typed and is not taken yet: it stays in its field, whatever the server says. */
  protected readonly typed = signal<ReadonlyMap<string, string>>(new Map());

  protected tell({ check, quantity }: LookRow, out: Looked['out']): void {
    // Ticked, it is no longer what stands in the field.
    if (typeof out !== 'string') this.drop({ check, quantity });
    this.looked.emit({ check, quantity, out, taken: () => this.drop({ check, quantity }) });
  }

  private drop({ check, quantity }: Pick<LookRow, 'check' | 'quantity'>): void {
    this.typed.update((typed) => new Map([...typed].filter(([key]) => key !== check + quantity)));
  }

  protected type(row: LookRow, typed: string): void {
    const { check, quantity, info, title } = row;
    const out = typed.trim();
    // Enter, and then leaving the field: it is sent once.
    if (out === row.out) return this.drop(row);
    this.typed.update((all) => new Map(all).set(check + quantity, typed));
    const told = out ? roughlyOut(out, info) : 0;
    const fault = typeof told === 'number' ? '' : told.fault;
    this.wrong.set(fault && `${title}: ${fault}.`);
    this.wrongIn.set(fault && check + quantity);
    if (!fault) this.tell(row, out || undefined);
  }
}
