// SPDX-License-Identifier: Apache-2.0
// Every link within the site leads to a file that is there, and to an anchor of it.
import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';

function anchors(file) {
  return new Set([...readFileSync(file, 'utf8').matchAll(/ id="([^"]*)"/g)].map((it) => it[1]));
}

function problem(from, link) {
  const [file, fragment] = link.split('#').map(decodeURIComponent);
  const target = file === '' ? from : path.resolve(path.dirname(from), file);
  if (!existsSync(target)) {
    return `there is no ${link}`;
  }
  const isAnchored = fragment !== undefined && target.endsWith('.html');
  return isAnchored && !anchors(target).has(fragment) ? `${link}: there is no such anchor` : null;
}

/** Throws an error that lists the links that lead nowhere. */
export function checkLinks(output, results) {
  const problems = [];
  let checked = 0;
  for (const { content, outputPath } of results) {
    const from = path.resolve(outputPath);
    for (const [, link] of content.matchAll(/ (?:href|src)="([^"]*)"/g)) {
      if (/^[a-z]+:/.test(link)) {
        continue;
      }
      checked++;
      const found = problem(from, link.replaceAll('&amp;', '&'));
      if (found) {
        problems.push(`${path.relative(output, outputPath)}: ${found}`);
      }
    }
  }
  if (problems.length > 0) {
    throw new Error(`links that lead nowhere:\n  ${problems.join('\n  ')}`);
  }
  console.log(`${results.length} pages, ${checked} links`);
}
