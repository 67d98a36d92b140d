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
        flags: [...require('../tools/chromium-flags.cjs'), '--force-prefers-reduced-motion', '--window-size=1280,800'],
      },
    },
    restartOnFileChange: false,
  });
