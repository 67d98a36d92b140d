import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Fault } from '@isometra/core';
import type * as z from 'zod';
import { fieldsOf, type FormValue } from './form-model';
import { SchemaForm } from './schema-form';

/** A headed part of a longer form, drawn from a schema. Nothing is shown of a part that asks nothing. */
@Component({
  selector: 'iso-form-part',
  imports: [SchemaForm],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (asks()) {
      <section>
        <h2>{{ heading() }}</h2>
        @if (hint()) {
          <p class="soft">{{ hint() }}</p>
        }
        <ng-content />
        <iso-schema-form [schema]="schema()" [value]="value()" [faults]="faults()" [showAll]="showAll()" (changed)="changed.emit($event)" />
        <ng-content select="[after]" />
      </section>
    }
  `,
  styles: `
    section {
      display: grid;
      gap: 12px;
      padding-top: 14px;
      border-top: 1px solid var(--line);
    }
  `,
})
export class FormPart {
  readonly heading = input.required<string>();
  readonly hint = input('');
  readonly schema = input.required<z.ZodObject>();
  readonly value = input.required<FormValue>();
  readonly faults = input<readonly Fault[]>([]);
  /** Show faults of fields that have not been touched too. */
  readonly showAll = input(false);
  readonly changed = output<FormValue>();

  protected readonly asks = computed(() => fieldsOf(this.schema()).length > 0);
}
