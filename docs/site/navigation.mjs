// SPDX-License-Identifier: Apache-2.0
// The list of pages at the side: the guide in the order of its own table of contents, and what
// is looked up.
import { existsSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { pageOf, target } from './pages.mjs';

const CONTENTS = 'docs/guide/README.md';

function guide() {
  const groups = [];
  for (const line of pageOf(CONTENTS).text.split('\n')) {
    const heading = /^\*\*(.*)\*\*$/.exec(line);
    const item = /^- \[(.*?)\]\((.*?)\)/.exec(line);
    if (heading) {
      groups.push({ title: heading[1], items: [] });
    } else if (item && groups.length > 0) {
      groups.at(-1).items.push({ title: item[1], target: `docs/guide/${target(item[2])}` });
    }
  }
  return groups;
}

function page(source, title) {
  const found = pageOf(source);
  return { title: title ?? found.title, target: found.target };
}

function javadoc(output) {
  const folder = path.join(output, 'javadoc');
  return existsSync(folder)
    ? readdirSync(folder)
        .sort()
        .map((name) => ({ title: name, target: `javadoc/${name}/index.html` }))
    : [];
}

export function navigation(output) {
  return [
    { title: 'Cachette', items: [page('README.md', 'Overview'), page(CONTENTS, 'Contents')] },
    ...guide(),
    {
      title: 'Tables and schemas',
      items: [
        page('docs/clients.md'),
        page('docs/faults.md'),
        page('docs/identity-clients.md'),
        page('docs/platforms.md'),
        page('docs/benchmarks.md'),
        { title: 'Schema of stub files', target: 'docs/schema/cachette-stubs.schema.json' },
        { title: 'Schema of identity files', target: 'docs/schema/cachette-identity.schema.json' },
        { title: 'Schema of run files', target: 'docs/schema/cachette-run.schema.json' },
      ],
    },
    { title: 'Javadoc', items: javadoc(output) },
    {
      title: 'Project',
      items: [
        page('CHANGELOG.md'),
        page('docs/decisions/README.md'),
        page('SUPPORT.md'),
        page('SECURITY.md'),
        page('CONTRIBUTING.md'),
      ],
    },
  ];
}
