// SPDX-License-Identifier: Apache-2.0
// Before the page is drawn: as chosen, or else as the system has it.
(function () {
  function chosen() {
    try {
      return localStorage.getItem('cachette-theme');
    } catch (refused) {
      return null;
    }
  }
  const dark = matchMedia('(prefers-color-scheme: dark)').matches;
  document.documentElement.dataset.theme = chosen() || (dark ? 'dark' : 'light');
})();
