// Web specs in headless Chromium; CHROME_BIN names the browser.
module.exports = (config) =>
  config.set({
    frameworks: ['jasmine'],
    plugins: [require('karma-jasmine'), require('karma-chrome-launcher')],
    // On a busy machine a chunk or a frame takes its time: what waits for something waits longer than any of them.
    client: { jasmine: { random: true, timeoutInterval: 20_000 }, clearContext: false },
    reporters: ['dots'],
    browsers: ['Headless'],
    customLaunchers: {
      Headless: {
        base: 'ChromeHeadless',
        flags: [
          '--no-sandbox',
          '--disable-gpu',
          '--no-first-run',
          '--disable-background-networking',
          '--disable-component-update',
          '--disable-sync',
          '--in-process-gpu',
          '--disable-extensions',
          '--force-prefers-reduced-motion',
          '--js-flags=--min-semi-space-size=32',
          '--window-size=1280,800',
        ],
      },
    },
    restartOnFileChange: false,
  });
