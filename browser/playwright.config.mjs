import { defineConfig } from '@playwright/test';

export default defineConfig({
    testDir: '.',
    testMatch: '*.spec.mjs',
    timeout: 300_000,
    expect: { timeout: 90_000 },
    // One where other tests run beside it.
    workers: Number(process.env.OCTAVOX_BROWSERS ?? 2),
    fullyParallel: false,
    reporter: [['list']],
    outputDir: '/tmp/octavox-browser-results',
    use: {
        viewport: { width: 1280, height: 800 },
        acceptDownloads: true,
        actionTimeout: 60_000,
        launchOptions: {
            executablePath: process.env.CHROMIUM || '/usr/bin/chromium',
            args: [
                '--no-sandbox',
                '--disable-gpu',
                '--disable-quic',
                '--no-first-run',
                '--disable-background-networking',
                '--disable-component-update',
                '--disable-sync',
                '--autoplay-policy=no-user-gesture-required',
            ],
        },
    },
});
