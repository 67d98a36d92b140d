import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Tokens } from '../data/tokens';
import { GivenOut } from '../shop/given-out';
import { Choices } from '../ui/choices';

const TABLES = [
  ['findings', 'Findings: every value with its uncertainty, limit and verdict'],
  ['readings', 'Readings, as they were typed'],
  ['rounds', 'Rounds'],
  ['machines', 'Machines'],
  ['kit', 'Kit with certificates'],
  ['limits', 'Limit sheets'],
] as const;

const LABELS = [
  ['machines', 'Machines'],
  ['kit', 'Kit'],
  ['boxes', 'Part boxes'],
] as const;

/** Tables for spreadsheets, and labels to stick on. */
@Component({
  selector: 'iso-paper-out',
  imports: [Choices, GivenOut, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="columns">
      <section>
        <h2>Tables for spreadsheets</h2>
        <iso-choices label="What kind of file" [options]="kinds" [value]="kind()" (chosen)="kind.set($any($event))" />
        <ul>
          @for (table of tables; track table[0]) {
            <li>
              <a download [href]="'/api/tables/' + table[0] + (kind() === 'xlsx' ? '.xlsx' : '.csv?decimal=' + kind())">{{ table[1] }}</a>
            </li>
          }
        </ul>
        <h2>From a table</h2>
        <ul>
          <li><a routerLink="/files/table/kit">Kit, or new certificates of it</a></li>
          <li><a routerLink="/files/table/machines">Machines</a></li>
        </ul>
        <p class="soft">Readings are taken on the bench of their round.</p>
        <h2>A move by itself</h2>
        <p><a routerLink="/moves">Work out a move</a>, or open a move file: leaves, screws, strips, a sine plate.</p>
      </section>
      <section>
        <h2>Labels</h2>
        <p>Three across, eight down. A phone that is let in opens the machine, the piece of kit or the box by the code on it.</p>
        <ul>
          @for (label of labels; track label[0]) {
            <li>
              <a target="_blank" rel="noopener" [href]="'/api/labels.pdf?of=' + label[0]">{{ label[1] }}</a>
            </li>
          }
        </ul>
        @if (here) {
          <p class="soft">Phones reach this shop only when it was started with <code>npm start -- --lan</code>: print labels then.</p>
        }
        <h2>For programs of your own</h2>
        <p>
          <a href="/api/docs" target="_blank" rel="noopener">The interface, described</a>. A token lets a program read everything and write
          nothing.
        </p>
        <iso-given-out [list]="tokens" [words]="words" />
      </section>
    </div>
  `,
  styleUrl: './columns.css',
})
export class PaperOut {
  protected readonly tokens = inject(Tokens);
  protected readonly words = {
    field: 'new-token',
    made: 'The new token.',
    revoke: 'Revoke the token of',
    label: 'What reads with it',
    example: 'Wall screen',
    question: 'What reads with it?',
    make: 'Make a token',
  };
  protected readonly tables = TABLES;
  protected readonly labels = LABELS;
  protected readonly kinds = [
    { value: 'xlsx', label: 'Workbook (.xlsx)' },
    { value: 'point', label: 'CSV, 0.02' },
    { value: 'comma', label: 'CSV, 0,02; semicolons' },
  ];
  protected readonly kind = signal<'xlsx' | 'point' | 'comma'>('point');
  /** Whether this page was asked for from the machine itself: its address leads nowhere on a phone. */
  protected readonly here = ['localhost', '127.0.0.1', '[::1]'].includes(location.hostname);
}
