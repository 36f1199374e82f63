// SPDX-License-Identifier: Apache-2.0
'use strict';

const { root, version } = document.body.dataset;
const element = (id) => document.getElementById(id);

function theme() {
  const button = element('theme');
  const show = () => {
    button.textContent = document.documentElement.dataset.theme === 'dark' ? 'Light' : 'Dark';
  };
  button.addEventListener('click', () => {
    const next = document.documentElement.dataset.theme === 'dark' ? 'light' : 'dark';
    document.documentElement.dataset.theme = next;
    try {
      localStorage.setItem('cachette-theme', next);
    } catch (refused) {
      // Then it is as chosen on this page only.
    }
    show();
  });
  show();
}

function menu() {
  const button = element('menu');
  button.addEventListener('click', () => {
    const open = element('pages').classList.toggle('open');
    button.setAttribute('aria-expanded', String(open));
  });
  element('pages').querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest' });
}

function versions() {
  const select = element('version');
  select.replaceChildren(
    ...(window.cachetteVersions || [version]).map((it) => new Option(it, it, false, it === version)),
  );
  select.addEventListener('change', () => {
    location.href = `${root}../${select.value}/index.html`;
  });
}

function search() {
  const input = element('search');
  const found = element('found');
  let index = null;

  function prepared() {
    if (index === null) {
      index = new MiniSearch({
        fields: ['title', 'heading', 'text'],
        storeFields: ['title', 'heading', 'target', 'text'],
        searchOptions: {
          boost: { title: 4, heading: 3 },
          prefix: true,
          fuzzy: (term) => (term.length > 4 ? 0.2 : false),
          combineWith: 'AND',
        },
      });
      index.addAll(window.cachetteSections);
    }
    return index;
  }

  /** The text around the first of the words. */
  function excerpt(result) {
    const lower = result.text.toLowerCase();
    const at = Math.max(0, ...result.terms.map((term) => lower.indexOf(term)).slice(0, 1));
    const from = Math.max(0, at - 40);
    return (from > 0 ? '…' : '') + result.text.slice(from, from + 130);
  }

  function item(result) {
    const link = document.createElement('a');
    link.href = root + result.target;
    const name = document.createElement('b');
    name.textContent = result.heading ? `${result.title}: ${result.heading}` : result.title;
    const text = document.createElement('span');
    text.textContent = excerpt(result);
    link.append(name, text);
    const line = document.createElement('li');
    line.append(link);
    return line;
  }

  function show() {
    const words = input.value.trim();
    found.hidden = words === '';
    if (words === '') {
      return;
    }
    const results = prepared().search(words).slice(0, 10);
    if (results.length > 0) {
      found.replaceChildren(...results.map(item));
    } else {
      const none = document.createElement('li');
      none.className = 'none';
      none.textContent = `Nothing has all of: ${words}`;
      found.replaceChildren(none);
    }
  }

  function move(by) {
    const links = [...found.querySelectorAll('a')];
    const at = links.indexOf(document.activeElement) + by;
    (at < 0 ? input : links[Math.min(at, links.length - 1)])?.focus();
  }

  input.addEventListener('input', show);
  document.querySelector('.search').addEventListener('keydown', (event) => {
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      move(event.key === 'ArrowDown' ? 1 : -1);
    } else if (event.key === 'Enter' && event.target === input) {
      found.querySelector('a')?.click();
    } else if (event.key === 'Escape') {
      found.hidden = true;
    }
  });
  document.addEventListener('click', (event) => {
    found.hidden = found.hidden || !event.target.closest('.search');
  });
  document.addEventListener('keydown', (event) => {
    if (event.key === '/' && !/^(INPUT|SELECT)$/.test(document.activeElement.tagName)) {
      event.preventDefault();
      input.focus();
    }
  });
}

theme();
menu();
versions();
search();
