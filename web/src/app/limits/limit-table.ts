import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { CHECKS, parseQuantity, prettyUnit, shownIn, type Fault, toYou } from '@isometra/core';
import { Settings } from '../data/settings';
import { sideOf } from '../ui/say';
import { fieldOf, infoOf, type LineDraft, type LineField } from './limit-draft';
import { TextBox } from '../ui/text-box';
import { Notice } from '../ui/notice';
import { Grid } from '../ui/grid';

interface Cell {
  readonly field: LineField;
  readonly label: string;
  readonly text: string;
  /** Which way a bound lies: "toward you". */
  readonly way: string;
  readonly fault: Fault | undefined;
  readonly shown: boolean;
}

/** One field of one line as it was typed. */
export interface LineEdit {
  readonly index: number;
  readonly field: LineField;
  readonly text: string;
}

/** The lines of a limit sheet, a block for each check. */
@Component({
  selector: 'iso-limit-table',
  imports: [NgTemplateOutlet, TextBox, Notice, Grid],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './limit-table.html',
  styleUrl: './limit-table.css',
})
export class LimitTable {
  readonly lines = input.required<readonly LineDraft[]>();
  readonly faults = input<readonly Fault[]>([]);
  readonly editable = input(false);
  readonly edited = output<LineEdit>();
  private readonly settings = inject(Settings);

  protected readonly blocks = computed(() => {
    const faults = this.faults().map((fault) => ({ fault, at: fieldOf(fault.path) }));
    const rows = this.lines().map((line, index) => {
      const info = infoOf(line);
      const when = info.variants?.find((variant) => variant.key === line.when)?.label;
      const cell = (field: LineField, label: string, shown = true): Cell => ({
        field,
        label: `${label}, ${info.label}`,
        text: line[field],
        way: field === 'over' || field === 'least' ? '' : this.way(line, line[field]),
        fault: faults.find(({ at }) => at?.line === index && at.field === field)?.fault,
        shown,
      });
      return {
        index,
        check: line.check,
        name: when ? `${info.label}, ${when}` : info.label,
        low: cell('low', 'Lowest', !info.magnitude),
        high: cell('high', 'Highest'),
        over: cell('over', 'Stated for a length of', !!info.over),
        least: cell('least', 'Never narrower than', !!info.over),
        aim: cell('aim', 'Target'),
        reason: cell('reason', 'Reason'),
      };
    });
    return [...new Set(rows.map((row) => row.check))].map((check) => ({
      check,
      title: CHECKS.get(check)?.title ?? check,
      rows: rows.filter((row) => row.check === check),
    }));
  });

  /** Direction words of a bound; none for a size or for zero. */
  private way(line: LineDraft, text: string): string {
    const info = infoOf(line);
    const parsed = text ? parseQuantity(text, info.dimension, info.unit) : undefined;
    return parsed?.ok ? toYou(sideOf(parsed.value, info)) : '';
  }

  protected set(index: number, field: LineField, text: string): void {
    this.edited.emit({ index, field, text: this.full(this.lines()[index], field, text) });
  }

  /** A bare number gets the unit shown, so that it stays what it was when the units are switched. */
  private full(line: LineDraft, field: LineField, text: string): string {
    const bare = text.trim();
    if (field === 'reason' || !/^[-+−]?[\d.,/ ]+$/.test(bare)) return bare;
    const { unit } = shownIn(field === 'over' ? 'length' : infoOf(line).dimension, this.settings.system(), 'coarse');
    return `${bare} ${prettyUnit(unit)}`;
  }
}
