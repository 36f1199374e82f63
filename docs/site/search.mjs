// SPDX-License-Identifier: Apache-2.0
// What the search of the pages reads: a script, since pages from disk may not read other files.
import { writeFileSync } from 'node:fs';
import path from 'node:path';

const ENTITIES = { '&lt;': '<', '&gt;': '>', '&quot;': '"', '&#39;': "'", '&amp;': '&' };

/** The text of HTML, on one line. */
function text(html) {
  return html
    .replace(/<[^>]*>/g, ' ')
    .replace(/&(?:lt|gt|quot|#39|amp);/g, (entity) => ENTITIES[entity])
    .replace(/\s+/g, ' ')
    .trim();
}

/** The sections of a page: what is before the first heading of level two, and below each. */
function sections(html) {
  return html.split(/(?=<h2 )/).map((part) => {
    const heading = /^<h2 id="([^"]*)"[^>]*>(.*?)<\/h2>/.exec(part);
    return {
      heading: heading ? text(heading[2]) : '',
      fragment: heading ? `#${heading[1]}` : '',
      text: text(heading ? part.slice(heading[0].length) : part.replace(/<h1[^]*?<\/h1>/, '')),
    };
  });
}

export function writeSearch(output, results) {
  const found = results.flatMap(({ content, outputPath }) => {
    const target = path.relative(output, outputPath).replaceAll(path.sep, '/');
    const main = /<main[^>]*>([^]*?)<\/main>/.exec(content)[1];
    const title = text(/<h1[^>]*>([^]*?)<\/h1>/.exec(main)[1]);
    return sections(main).map((it) => ({
      title,
      heading: it.heading,
      target: target + it.fragment,
      text: it.text,
    }));
  });
  const documents = found.map((it, id) => ({ id, ...it }));
  writeFileSync(
    path.join(output, 'sections.js'),
    `window.cachetteSections = ${JSON.stringify(documents)};\n`,
  );
}
