import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, type TemplateRef, computed, contentChild, input } from '@angular/core';
import { TableModule } from 'primeng/table';

/** Rows under a head. Templates: `#head` the row of the head, `#row` a row (`$implicit`, `index`), `#none` what stands where there is none. */
@Component({
  selector: 'iso-grid',
  imports: [NgTemplateOutlet, TableModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-table
      [value]="lines()"
      [rowTrackBy]="byPlace"
      [pt]="{ table: { 'aria-label': label() } }"
      [tableStyle]="fixed() ? FIXED : undefined"
      size="small"
    >
      <ng-template #header><ng-container [ngTemplateOutlet]="head()" /></ng-template>
      <ng-template #body let-line let-i="rowIndex"
        ><ng-container [ngTemplateOutlet]="row()" [ngTemplateOutletContext]="{ $implicit: line, index: i }"
      /></ng-template>
      <ng-template #emptymessage><ng-container [ngTemplateOutlet]="none() ?? null" /></ng-template>
    </p-table>
  `,
  styles: `
    :host {
      display: block;
    }
  `,
})
export class Grid<Row> {
  readonly rows = input.required<readonly Row[]>();
  /** What the rows are, for those who cannot see them. */
  readonly label = input.required<string>();
  /** Columns as wide as the head says, so that one grid stands under another. */
  readonly fixed = input(false);
  protected readonly FIXED = { 'table-layout': 'fixed' };
  /** A row that is changed stays the same row: the hand is in it. */
  protected readonly byPlace = (index: number): number => index;
  protected readonly lines = computed(() => [...this.rows()]);
  protected readonly head = contentChild.required<TemplateRef<unknown>>('head');
  protected readonly row = contentChild.required<TemplateRef<unknown>>('row');
  protected readonly none = contentChild<TemplateRef<unknown>>('none');
}
