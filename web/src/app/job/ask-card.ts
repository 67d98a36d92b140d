import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output, signal } from '@angular/core';
import { bareSchema, fieldInfo, MOVES, type Fault } from '@isometra/core';
import * as z from 'zod';
import { Settings } from '../data/settings';
import { Button } from '../ui/controls';
import { formFaults, settled, type FormValue } from '../ui/form-model';
import { SchemaForm } from '../ui/schema-form';

/** What the machine card lacks for a move: asked where the hand is, with the fields themselves. */
@Component({
  selector: 'iso-ask-card',
  imports: [Button, SchemaForm],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section aria-label="What the plan lacks">
      <p>
        <b>{{ asks() }}</b> The result is complete. To plan the move, this is needed. It is saved on the machine card.
      </p>
      <iso-schema-form [schema]="schema()" [value]="typed()" [faults]="faults()" [showAll]="tried()" (changed)="typed.set($event)" />
      <button pButton type="button" class="next" (click)="keep()">Save it on the machine card</button>
    </section>
  `,
  styles: `
    section {
      display: grid;
      gap: 10px;
      justify-items: start;
      padding: 12px 16px;
      border-left: 4px solid var(--yellow);
      background: var(--panel);
    }
    p {
      margin: 0;
    }
  `,
})
export class AskCard {
  readonly kind = input.required<string>();
  readonly missing = input.required<readonly Fault[]>();
  readonly card = input.required<Readonly<Record<string, unknown>>>();
  /** The parts of the card as they are told. */
  readonly told = output<FormValue>();
  private readonly settings = inject(Settings);
  protected readonly tried = signal(false);
  /** Parts of the card that this kind of move needs. */
  private readonly parts = computed(() => MOVES.get(this.kind())?.card ?? {});
  protected readonly schema = computed(() => z.object({ ...this.parts() }));
  protected readonly typed = linkedSignal((): FormValue => {
    const card = this.card();
    return Object.fromEntries(Object.keys(this.parts()).flatMap((key) => (card[key] === undefined ? [] : [[key, card[key]] as const])));
  });
  private readonly full = computed(() => settled(this.schema(), this.typed(), this.settings.system()));
  protected readonly faults = computed(() => formFaults(this.schema(), this.full(), this.settings.system()));

  /** What is missing, each by the label of its field. */
  protected readonly asks = computed(() => {
    const labels = this.missing().map(({ path, message }) => {
      const label = this.labelOf(path.split('.').at(-1) ?? '');
      return /^is missing/.test(message) ? `${label}?` : `${label}: ${message}.`;
    });
    return [...new Set(labels)].join(' ');
  });

  private labelOf(key: string): string {
    const within = Object.values(this.parts()).flatMap((part) => fieldsIn(part));
    return within.find((field) => field.key === key)?.label ?? MOVES.get(this.kind())?.title ?? '';
  }

  protected keep(): void {
    this.tried.set(true);
    if (this.faults().length === 0) this.told.emit(this.full());
  }
}

/** Fields of a part of a card with their labels. */
function fieldsIn(schema: z.ZodType): readonly { readonly key: string; readonly label: string }[] {
  const within = bareSchema(schema);
  if (!(within instanceof z.ZodObject)) return [];
  return Object.entries(within.shape as Readonly<Record<string, z.ZodType>>).flatMap(([key, part]) => {
    const label = fieldInfo(part)?.label;
    return label === undefined ? [] : [{ key, label }];
  });
}
