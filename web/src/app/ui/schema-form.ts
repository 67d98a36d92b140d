import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, forwardRef, inject, input, linkedSignal, output, signal } from '@angular/core';
import { Day } from './day';
import { askedBack, bareSchema, bareUnit, exampleFor, prettyUnit, type Fault } from '@isometra/core';
import type * as z from 'zod';
import { Settings } from '../data/settings';
import {
  fieldsOf,
  inUnit,
  shownFields,
  shownText,
  unitBeside,
  unitWritten,
  withField,
  withUnit,
  type FieldModel,
  type FormValue,
} from './form-model';
import { Choices } from './choices';
import { Button, TextField } from './controls';
import { Notice } from './notice';
import { Pick } from './pick';
import { Tick } from './tick';

let forms = 0;

/**
 * A form drawn from a schema: labels, units, help and faults come from the core. It holds nothing:
 * the value goes in and every change comes out, as typed.
 */
@Component({
  selector: 'iso-schema-form',
  imports: [Day, NgTemplateOutlet, forwardRef(() => SchemaForm), Button, TextField, Choices, Pick, Tick, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './schema-form.html',
  styleUrl: './schema-form.css',
})
export class SchemaForm {
  readonly schema = input.required<z.ZodObject>();
  readonly value = input.required<FormValue>();
  readonly faults = input<readonly Fault[]>([]);
  /** Show faults of fields that have not been touched too. */
  readonly showAll = input(false);
  /** Path of this form within a larger one. */
  readonly path = input('');
  /** Its fields are of one kind: a bare figure takes the unit that was written in the one beside it. */
  readonly unitsAlike = input(false);
  readonly changed = output<FormValue>();

  private readonly settings = inject(Settings);
  /** What would do, in the unit that stands beside the field. */
  protected readonly exampleOf = ({ info }: FieldModel): string => exampleFor(info, this.settings.system());
  /** The same for a fault: a choice by the words it is shown in, never by the name it is kept under. */
  protected readonly wouldDo = ({ info }: FieldModel, { example }: Fault): string =>
    info.choices?.find(({ value }) => value === example)?.label ??
    // What a schema says of any text says nothing of this one.
    exampleFor({ ...info, example: info.dimension || !info.example ? example : info.example }, this.settings.system());
  /** A bare figure that is far from what such a thing is: what it may be, each with its unit. */
  protected readonly asked = (field: FieldModel): readonly string[] | undefined =>
    !this.beside(field) && (this.showAll() || this.touched().has(field.key))
      ? askedBack(this.text(field), field.info, this.settings.system())
      : undefined;
  private readonly latest = linkedSignal(() => this.value());
  private readonly touched = signal<ReadonlySet<string>>(new Set());
  /** Whether the rarely needed fields are open: once open they stay until the user closes them. */
  protected readonly opened = signal(false);
  protected readonly id = `form${++forms}`;
  protected readonly fields = computed(() => shownFields(fieldsOf(this.schema()), this.value()));
  protected readonly usual = computed(() => this.fields().filter((field) => !field.info.rare));
  protected readonly rare = computed(() => this.fields().filter((field) => field.info.rare));
  protected readonly rareInUse = computed(() => this.rare().some((field) => this.value()[field.key] !== undefined || this.faultOf(field)));

  protected group(field: FieldModel): FormValue {
    return (this.value()[field.key] as FormValue | undefined) ?? {};
  }

  protected groupSchema(field: FieldModel): z.ZodObject {
    return bareSchema(this.schema().shape[field.key] as z.ZodType) as z.ZodObject;
  }

  /** Begin anew: no field has been touched. */
  forget(): void {
    this.touched.set(new Set());
  }

  protected rows(field: FieldModel): readonly FormValue[] {
    return (this.value()[field.key] as readonly FormValue[] | undefined) ?? [];
  }

  protected rowSchema(field: FieldModel): z.ZodObject {
    return (this.groupSchema(field) as z.ZodType as z.ZodArray<z.ZodObject>).element;
  }

  /** A row changed, added at the end, or taken out (null). */
  protected setRow(field: FieldModel, index: number, row: FormValue | null): void {
    const rows = [...((this.latest()[field.key] as readonly FormValue[] | undefined) ?? [])];
    if (row === null) rows.splice(index, 1);
    else rows[index] = row;
    this.set(field, rows.length ? rows : undefined);
  }

  protected text(field: FieldModel): string {
    return shownText(this.value()[field.key], field.info);
  }

  /** What is stored, and nothing else: a choice that nobody made is not shown as made. */
  protected chosen(field: FieldModel): string | undefined {
    return this.value()[field.key] as string | undefined;
  }

  private several(field: FieldModel): readonly unknown[] {
    const names = this.latest()[field.key];
    return Array.isArray(names) ? names : [];
  }
  /** Whether one of several is told. */
  protected isOf(field: FieldModel, name: unknown): boolean {
    const names = this.value()[field.key];
    return Array.isArray(names) && names.includes(name);
  }
  protected setOf(field: FieldModel, name: unknown, on: boolean): void {
    const others = this.several(field).filter((entry) => entry !== name);
    this.set(field, on ? [...others, name] : others);
  }

  protected unit(field: FieldModel): string {
    if (unitWritten(this.text(field), field.info)) return '';
    return prettyUnit(this.beside(field) ?? bareUnit(field.info, this.settings.system()));
  }

  private beside(field: FieldModel): string | undefined {
    return this.unitsAlike() ? unitBeside(this.schema(), this.value(), field.key) : undefined;
  }

  protected pathOf(field: FieldModel): string {
    return this.path() ? `${this.path()}.${field.key}` : field.key;
  }

  protected faultOf(field: FieldModel): Fault | undefined {
    const path = this.pathOf(field);
    const fault = this.faults().find((entry) => entry.path === path);
    return fault && (this.showAll() || this.touched().has(field.key)) ? fault : undefined;
  }

  protected type(field: FieldModel, text: string): void {
    this.set(field, text);
  }

  /** On leaving a field: its unit is written behind a bare number, and its fault may be shown. */
  protected leave(field: FieldModel, text: string): void {
    this.touched.update((touched) => new Set(touched).add(field.key));
    const full = withUnit(inUnit(text, this.beside(field)), field.info, this.settings.system());
    if (full !== this.text(field)) this.set(field, full);
  }

  protected set(field: FieldModel, next: unknown): void {
    // Two changes may come before the first has gone round through the owner of the value: the second builds on it.
    this.latest.update((value) => withField(value, field.key, next));
    this.changed.emit(this.latest());
  }
}
