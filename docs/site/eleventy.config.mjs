// SPDX-License-Identifier: Apache-2.0
// The pages are the Markdown files of the repository, where they are: nothing is written twice.
import anchor from 'markdown-it-anchor';
import hljs from 'highlight.js/lib/common';
import { navigation } from './navigation.mjs';
import { href, pages, slug } from './pages.mjs';
import { checkLinks } from './links.mjs';
import { writeSearch } from './search.mjs';
import { writeVersions } from './versions.mjs';

const output = process.env.SITE_OUTPUT;
const version = process.env.SITE_VERSION;

function highlight(code, language) {
  const known = hljs.getLanguage(language) ? language : null;
  return known ? hljs.highlight(code, { language: known, ignoreIllegals: true }).value : '';
}

/** Links to Markdown lead to its page, and tables scroll on narrow screens. */
function forTheSite(markdown) {
  const rules = markdown.renderer.rules;
  rules.link_open = (tokens, at, options, env, self) => {
    const link = tokens[at];
    link.attrSet('href', href(link.attrGet('href'), env.source));
    return self.renderToken(tokens, at, options);
  };
  rules.table_open = () => '<div class="table"><table>\n';
  rules.table_close = () => '</table></div>\n';
}

export default function (eleventy) {
  eleventy.amendLibrary('md', (markdown) => {
    markdown.set({ html: true, highlight });
    markdown.use(anchor, { slugify: slug, permalink: anchor.permalink.headerLink() });
    markdown.use(forTheSite);
  });
  eleventy.addGlobalData('version', version);
  eleventy.addGlobalData('navigation', navigation(output));
  for (const page of pages) {
    eleventy.addTemplate(`${page.source.replaceAll('/', '_')}`, page.text, {
      layout: 'page.njk',
      title: page.title,
      source: page.source,
      permalink: page.target,
      root: '../'.repeat(page.target.split('/').length - 1) || './',
    });
  }
  eleventy.addFilter('headings', (html) =>
    [...html.matchAll(/<h2 id="([^"]*)"[^>]*>(.*?)<\/h2>/g)].map(([, id, title]) => ({
      id,
      title: title.replace(/<[^>]*>/g, ''),
    })),
  );
  eleventy.addPassthroughCopy({ assets: '.' });
  eleventy.addPassthroughCopy({ 'node_modules/minisearch/dist/umd/index.js': 'minisearch.js' });
  eleventy.on('eleventy.after', ({ results }) => {
    writeSearch(output, results);
    writeVersions(output, version);
    checkLinks(output, results);
  });
  return {
    dir: { input: 'assets', includes: '../layout', output },
    // Braces in the guide are those of its examples.
    markdownTemplateEngine: false,
  };
}
