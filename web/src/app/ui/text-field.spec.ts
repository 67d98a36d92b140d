import { ChangeDetectionStrategy, Component } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { TextField } from './controls';
import { Field } from './field';

@Component({
  imports: [TextField, Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <input pInputText aria-label="bare" example="0.5 div" />
    <input pInputText aria-label="words" placeholder="no limit" />
    <input pInputText aria-label="empty" />
    <iso-field label="Register" value="" [size]="3" example="work shift X" />
  `,
})
class Line {}

describe('a field', () => {
  it('says that what stands in it is an example, and has room for it', () => {
    const fixture = TestBed.createComponent(Line);
    fixture.detectChanges();
    const fields = [...(fixture.nativeElement as HTMLElement).querySelectorAll('input')];
    expect(fields.map((field) => field.getAttribute('placeholder'))).toEqual(['e.g. 0.5 div', 'no limit', null, 'e.g. work shift X']);
    expect(fields[3].size).toBeGreaterThan('e.g. work shift X'.length - 2);
    // It is still the library's field.
    expect(fields[0].classList).toContain('p-inputtext');
  });
});
