import { bootstrapApplication } from '@angular/platform-browser';
import { appConfig } from './app/app.config';
import { Root } from './app/shell/root';

// The frame of a machine and its picture are asked for while the application starts, not when it has: they are most of the way to the survey.
if (/^\/machines\/[^/]+\/survey/.test(location.pathname)) {
  void import('./app/machine/machine-frame');
  void import('./app/survey/survey');
} else if (/^\/machines\/(?!new$)[^/]+/.test(location.pathname)) void import('./app/machine/machine-frame');

bootstrapApplication(Root, appConfig).catch((error: unknown) => console.error(error));
