// Runs before the first paint, so that a dark bench stays dark, and before the scripts of the page.
(function () {
  var kept = null;
  try {
    kept = localStorage.getItem('ruddy-theme');
  } catch {
    // private windows may keep nothing
  }
  var dark = kept ? kept === 'dark' : window.matchMedia('(prefers-color-scheme: dark)').matches;
  document.documentElement.classList.toggle('dark', dark);
})();

// What every page shows is asked for by the page's head while its scripts still come, and taken up here (see takeEarly in
// src/shared/api/queries.ts).
window.early = fetch('/api/every-page')
  .then(function (answer) {
    return answer.ok ? answer.json() : null;
  })
  .catch(function () {
    return null;
  });
