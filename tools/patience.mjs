/* global jasmine */
// On a busy machine a spec takes several times as long: time alone is no fault of it. This ends what hangs.
jasmine.DEFAULT_TIMEOUT_INTERVAL = 60_000;
