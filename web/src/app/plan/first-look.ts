import { ChangeDetectionStrategy, Component, input, output, signal } from '@angular/core';
import { roughlyOut, type ToLookAt } from '@isometra/work';
import { Field } from '../ui/field';
import { Notice } from '../ui/notice';
import { Tick } from '../ui/tick';

/** Something that has not been measured, with what a rough look said of it. */
export interface LookRow extends Pick<ToLookAt, 'info' | 'quantity'> {
  /** Its own among the rows: of what it is about. */
  readonly key: string;
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
    <iso-notice [text]="wrong()?.text ?? ''" />
    <div class="rows">
      @for (row of rows(); track row.key) {
        <div class="row">
          <span>{{ row.title }}</span>
          <iso-field
            label=""
            [name]="row.title + ': about how far out'"
            [example]="row.example"
            [most]="40"
            [size]="20"
            [wrong]="wrong()?.key === row.key"
            [value]="typed().get(row.key) ?? row.out"
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
  /** What is wrong with what was typed, and in which row; null where nothing is. */
  protected readonly wrong = signal<{ readonly key: string; readonly text: string } | null>(null);
  /** What was typed and is not taken yet, by row: it stays in its field, whatever the server says. */
  protected readonly typed = signal<ReadonlyMap<string, string>>(new Map());

  protected tell({ key, check, quantity }: LookRow, out: Looked['out']): void {
    // Ticked, it is no longer what stands in the field.
    if (typeof out !== 'string') this.drop(key);
    this.looked.emit({ check, quantity, out, taken: () => this.drop(key) });
  }

  private drop(key: string): void {
    this.typed.update((typed) => new Map([...typed].filter(([other]) => other !== key)));
  }

  protected type(row: LookRow, typed: string): void {
    const out = typed.trim();
    // Enter, and then leaving the field: it is sent once.
    if (out === row.out) return this.drop(row.key);
    this.typed.update((all) => new Map(all).set(row.key, typed));
    const told = out ? roughlyOut(out, row.info) : 0;
    if (typeof told !== 'number') return this.wrong.set({ key: row.key, text: `${row.title}: ${told.fault}.` });
    this.wrong.set(null);
    this.tell(row, out || undefined);
  }
}
