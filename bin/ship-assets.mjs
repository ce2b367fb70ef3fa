// Copies what ships with the application out of the packages: styles, scripts, fonts. Nothing is fetched when it runs.
import fs from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');
const modules = path.join(root, 'node_modules');
const target = path.join(root, 'public/vendor');
fs.mkdirSync(path.join(target, 'fonts'), { recursive: true });

const copies = {
    'bootstrap/dist/css/bootstrap.min.css': 'bootstrap.min.css',
    'htmx.org/dist/htmx.min.js': 'htmx.min.js',
    'idiomorph/dist/idiomorph-ext.min.js': 'idiomorph-ext.min.js',
    'tus-js-client/dist/tus.min.js': 'tus.min.js',
};
for (const [from, to] of Object.entries(copies)) fs.copyFileSync(path.join(modules, from), path.join(target, to));

let css = '';
for (const [name, family, weights] of [
    ['next', 'Atkinson Hyperlegible Next', [400, 700]],
    ['mono', 'Atkinson Hyperlegible Mono', [400, 700]],
]) {
    for (const weight of weights) {
        for (const subset of ['latin-ext', 'latin']) {
            const file = `atkinson-hyperlegible-${name}-${subset}-${weight}-normal.woff2`;
            fs.copyFileSync(
                path.join(modules, `@fontsource/atkinson-hyperlegible-${name}/files/${file}`),
                path.join(target, 'fonts', file),
            );
            const range =
                subset === 'latin'
                    ? 'U+0000-00FF,U+0131,U+0152-0153,U+02BB-02BC,U+02C6,U+02DA,U+02DC,' +
                      'U+2000-206F,U+20AC,U+2122,U+2191,U+2193,U+2212,U+2215,U+FEFF,U+FFFD'
                    : 'U+0100-02BA,U+02BD-02C5,U+02C7-02CC,U+02CE-02D7,U+02DD-02FF,U+1E00-1E9F,U+1EF2-1EFF,U+2020,U+20A0-20AB';
            css += `@font-face{font-family:"${family}";font-weight:${weight};font-display:swap;`;
            css += `src:url(fonts/${file}) format("woff2");unicode-range:${range}}\n`;
        }
    }
}
fs.writeFileSync(path.join(target, 'fonts.css'), css);
