// The controls of the library that are used bare, under our names: nothing else imports it. The rest have a wrapper each.
export { ButtonDirective as Button } from 'primeng/button';
export { Textarea as TextArea } from 'primeng/textarea';
export { TextField } from './text-field';
