// SPDX-License-Identifier: Apache-2.0
// The pages of the site, and where links between Markdown files lead there.
import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

export const repository = fileURLToPath(new URL('../..', import.meta.url));
const pom = readFileSync(path.join(repository, 'pom.xml'), 'utf8');
const sources = /<scm>[^]*?<url>(.*?)<\/url>/.exec(pom)[1];

function read(source) {
  const text = readFileSync(path.join(repository, source), 'utf8');
  const heading = /^# (.*)$/m.exec(text);
  if (!heading) {
    throw new Error(`${source} has no heading, which would be the title of its page`);
  }
  return { source, target: target(source), title: heading[1].replaceAll('`', ''), text };
}

/** The path of the page of a Markdown file. */
export function target(source) {
  return source.replace(/(^|\/)README\.md$/, '$1index.html').replace(/\.md$/, '.html');
}

const listed = execFileSync('git', ['ls-files', '*.md'], { cwd: repository, encoding: 'utf8' });

/** The Markdown files at the root, and all in `docs`. */
export const pages = listed
  .split('\n')
  .filter((it) => it.startsWith('docs/') || /^[A-Z]+\.md$/.test(it))
  .map(read);

const bySource = new Map(pages.map((page) => [page.source, page]));

/** The page of a Markdown file. */
export function pageOf(source) {
  return bySource.get(source);
}

/** The anchor of a heading, as the pages of a repository have it. */
export function slug(heading) {
  return heading
    .toLowerCase()
    .trim()
    .replace(/[^\p{L}\p{N}\s_-]/gu, '')
    .replaceAll(' ', '-');
}

/** Where a link in a Markdown file leads on the site: to a page, a copied file, or the sources. */
export function href(link, source) {
  if (/^[a-z]+:|^#/.test(link)) {
    return link;
  }
  const [file, fragment] = link.split('#');
  const place = path.posix.normalize(path.posix.join(path.posix.dirname(source), file));
  const after = fragment === undefined ? '' : `#${fragment}`;
  if (bySource.has(place)) {
    return target(file) + after;
  }
  if (/^docs\/(schema|screenshots)\//.test(place)) {
    return link;
  }
  if (!existsSync(path.join(repository, place))) {
    throw new Error(`${source}: there is no ${place}, to which it links`);
  }
  return `${sources}/${place}${after}`;
}
