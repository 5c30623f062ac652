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

// What every page shows is asked for while the page's own scripts still come (see src/shared/api/early.ts).
window.early = {};
['/api/household', '/api/prepare', '/api/session', '/api/bench'].forEach(function (path) {
  var early = (window.early[path] = {});
  early.coming = fetch(path)
    .then(function (answer) {
      return answer.text().then(function (text) {
        if (answer.ok) early.text = text;
        return new Response(text || null, { status: answer.status, headers: answer.headers });
      });
    })
    .catch(function () {});
});
