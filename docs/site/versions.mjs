// SPDX-License-Identifier: Apache-2.0
// The versions beside each other, and a page that leads to the one that was made last.
import { readdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';

export function writeVersions(output, version) {
  const all = path.dirname(path.resolve(output));
  const versions = readdirSync(all, { withFileTypes: true })
    .filter((it) => it.isDirectory())
    .map((it) => it.name)
    .sort((one, other) => other.localeCompare(one, 'en', { numeric: true }));
  writeFileSync(
    path.join(all, 'versions.js'),
    `window.cachetteVersions = ${JSON.stringify(versions)};\n`,
  );
  writeFileSync(
    path.join(all, 'index.html'),
    `<!doctype html><meta charset="utf-8"><title>Cachette</title>` +
      `<meta http-equiv="refresh" content="0; url=${version}/index.html">` +
      `<a href="${version}/index.html">Cachette ${version}</a>\n`,
  );
}
